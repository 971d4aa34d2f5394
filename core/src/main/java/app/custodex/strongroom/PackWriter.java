package app.custodex.strongroom;

import app.custodex.link.PhonePath;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;

/**
 * Writes one TAR pack in the pax interchange format (POSIX.1-2017, pax) and keeps the offset of every item in it. The
 * blocks are put on the disk here, since only then is the offset known and an item written in one go.
 */
final class PackWriter implements Closeable {
    private static final int BLOCK = 512;

    private final ContentWriter out;

    PackWriter(ContentWriter out) {
        this.out = out;
    }

    long size() {
        return out.size();
    }

    /** Where a pack may be cut behind an item whose content ends here. */
    static long endOf(long contentEnd) {
        return contentEnd + padding(contentEnd);
    }

    /** Bytes as they lie on the disk, once it is finished. */
    long storedSize() {
        return out.storedSize();
    }

    void flush() throws IOException {
        out.flush();
    }

    /** Appends an item and says where its content begins. */
    long add(PhonePath path, Instant modified, byte[] content) throws IOException {
        append(header(path, modified, content.length));
        long offset = out.size();
        append(content);
        append(new byte[padding(content.length)]);
        return offset;
    }

    private static int padding(long length) {
        return (int) (-length & (BLOCK - 1));
    }

    private static byte[] header(PhonePath path, Instant modified, long size) throws IOException {
        // "preserveAbsolutePath" keeps commons-compress from reading drive letters and slashes into the name.
        var entry = new TarArchiveEntry(path.text(), TarConstants.LF_NORMAL, true);
        entry.setSize(size);
        entry.setLastModifiedTime(FileTime.from(modified));
        entry.setMode(0600);
        var bytes = new ByteArrayOutputStream(BLOCK * 3);
        @SuppressWarnings("resource") // closing would demand the content, which is written elsewhere
        var tar = new TarArchiveOutputStream(bytes, BLOCK, StandardCharsets.UTF_8.name());
        tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
        tar.setBigNumberMode(TarArchiveOutputStream.BIGNUMBER_POSIX);
        tar.setAddPaxHeadersForNonAsciiNames(true);
        tar.putArchiveEntry(entry);
        tar.flush();
        return bytes.toByteArray();
    }

    private void append(byte[] bytes) throws IOException {
        out.write(bytes, 0, bytes.length);
    }

    /** Writes the end of the archive and gives the digest of the stored file; what follows is {@link #sync}. */
    String finish() throws IOException {
        append(new byte[2 * BLOCK]);
        return out.finish();
    }

    void sync() throws IOException {
        out.sync();
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
