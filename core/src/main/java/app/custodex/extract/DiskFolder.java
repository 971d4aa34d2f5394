package app.custodex.extract;

import app.custodex.base.DigestAside;
import app.custodex.base.SafeNames;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.time.Instant;

/** A folder on the disk. Each file is written under a name ending in ".part" and gets its own name once it is complete. */
public final class DiskFolder implements OutFolder {
    private static final int BUFFER = 1 << 16;

    private final Path folder;
    private final WrittenFiles files;

    /** @param files is told of every file */
    public DiskFolder(Path folder, WrittenFiles files) throws IOException {
        this.folder = folder;
        this.files = files;
        Files.createDirectories(folder);
    }

    @Override
    public OutFolder folder(String wish) throws IOException {
        return new DiskFolder(Files.createDirectory(SafeNames.free(folder, SafeNames.of(wish, "Folder"), "")), files);
    }

    @Override
    public OutFolder sharedFolder(String wish) throws IOException {
        return new DiskFolder(folder.resolve(SafeNames.of(wish, "Folder")), files);
    }

    @Override
    public Path file(String wish, String ending, Body body) throws IOException {
        return write(SafeNames.of(wish, "Unnamed"), ending, body).file();
    }

    private WrittenFile write(String stem, String ending, Body body) throws IOException {
        return write(
                SafeNames.free(folder, stem, ending + ".part"),
                part -> SafeNames.moveToFree(part, folder, stem, ending),
                body);
    }

    /**
     * Writes a file that somebody named.
     *
     * @throws java.nio.file.FileAlreadyExistsException when it is there meanwhile
     */
    public Path exactly(Path file, Body body) throws IOException {
        var name = file.getFileName().toString();
        return write(SafeNames.free(folder, name, ".part"), part -> Files.move(part, file), body)
                .file();
    }

    /** Gives a complete file its name. */
    private interface Naming {
        Path name(Path part) throws IOException;
    }

    private WrittenFile write(Path part, Naming naming, Body body) throws IOException {
        files.begin();
        boolean complete = false;
        try {
            var disk = new DigestAside(
                    Files.newOutputStream(part, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE));
            try (var out = new BufferedOutputStream(disk, BUFFER)) {
                body.writeTo(out);
            }
            var target = naming.name(part);
            complete = true;
            var written = new WrittenFile(target, Files.size(target), disk.digest());
            files.complete(written);
            return written;
        } finally {
            if (!complete) {
                files.fail();
                Files.deleteIfExists(part);
            }
        }
    }

    @Override
    public WrittenFile original(String name, InputStream content, Instant modified) throws IOException {
        var split = SafeNames.split(name);
        var written = write(split.stem(), split.ending(), content::transferTo);
        Files.setLastModifiedTime(written.file(), FileTime.from(modified));
        return written;
    }

    @Override
    public String relative(Path file) {
        return folder.relativize(file).toString().replace(folder.getFileSystem().getSeparator(), "/");
    }
}
