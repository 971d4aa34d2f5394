package app.custodex.extract;

import app.custodex.base.SafeNames;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;

/** A folder of which nothing is on the disk: it keeps the beginnings of files, to be looked at. */
final class PreviewFolder implements OutFolder {
    private static final int MOST = 1 << 22;

    private final Path folder;
    private final List<Extraction.Preview> files;

    /** @param files gets every file */
    PreviewFolder(Path folder, List<Extraction.Preview> files) {
        this.folder = folder;
        this.files = files;
    }

    @Override
    public OutFolder folder(String wish) {
        return sharedFolder(wish);
    }

    @Override
    public OutFolder sharedFolder(String wish) {
        return new PreviewFolder(folder.resolve(SafeNames.of(wish, "Folder")), files);
    }

    @Override
    public Path file(String wish, String ending, Body body) throws IOException {
        var kept = new Beginning();
        body.writeTo(kept);
        return keep(SafeNames.of(wish, "Unnamed") + ending, kept.bytes.toByteArray());
    }

    @Override
    public WrittenFile original(String name, InputStream content, Instant modified) {
        return WrittenFile.of(keep(SafeNames.of(name, "Unnamed"), new byte[0]), 0, "");
    }

    private Path keep(String name, byte[] beginning) {
        var file = folder.resolve(name);
        files.add(new Extraction.Preview(file.toString(), beginning));
        return file;
    }

    @Override
    public boolean isPreview() {
        return true;
    }

    @Override
    public String relative(Path file) {
        return folder.relativize(file).toString().replace(folder.getFileSystem().getSeparator(), "/");
    }

    private static final class Beginning extends OutputStream {
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();

        @Override
        public void write(int b) {
            if (bytes.size() < MOST) {
                bytes.write(b);
            }
        }

        @Override
        public void write(byte[] from, int offset, int length) {
            bytes.write(from, offset, Math.min(length, MOST - bytes.size()));
        }
    }
}
