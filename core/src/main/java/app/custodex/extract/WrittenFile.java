package app.custodex.extract;

import java.nio.file.Path;

/**
 * A file that is complete.
 *
 * @param file on the disk, or inside the package of which it is a part
 * @param bytes its size
 * @param sha512 its digest
 */
public record WrittenFile(Path file, long bytes, String sha512) {}
