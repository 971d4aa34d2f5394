package app.custodex.extract.handover;

import app.custodex.base.Digests;
import app.custodex.base.SafeNames;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Spool;
import app.custodex.extract.WrittenFile;
import app.custodex.seal.Passphrase;
import app.custodex.seal.PassphraseSeal;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.compress.archivers.zip.Zip64Mode;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;

/**
 * One ZIP file, sealed with a passphrase or not, that gets its name once it is complete. What stands in it never lies on the disk by itself.
 */
final class ZipPackage implements Bag.Container {
    private static final int BUFFER = 1 << 16;

    private final Path folder;
    private final String name;
    private final String ending;
    private final Path part;
    private final ZipArchiveOutputStream zip;
    private final IndexedFiles files;
    private final Set<String> taken = new HashSet<>();
    private final MessageDigest digest;
    private Optional<WrittenFile> complete = Optional.empty();
    private boolean finished;
    private boolean closed;

    private ZipPackage(
            Path folder,
            String name,
            String ending,
            Path part,
            OutputStream out,
            MessageDigest digest,
            IndexedFiles files) {
        this.digest = digest;
        this.files = files;
        this.folder = folder;
        this.name = name;
        this.ending = ending;
        this.part = part;
        zip = new ZipArchiveOutputStream(new BufferedOutputStream(out, BUFFER));
        zip.setUseZip64(Zip64Mode.AsNeeded);
    }

    static ZipPackage open(Path folder, String title, Optional<Passphrase> passphrase, IndexedFiles files)
            throws IOException {
        var name = SafeNames.of(title, "Package");
        var ending = passphrase.isPresent() ? ".zip.age" : ".zip";
        var part = SafeNames.free(folder, name, ending + ".part");
        var digest = Digests.sha512();
        var disk = new DigestOutputStream(
                Files.newOutputStream(part, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE), digest);
        try {
            return new ZipPackage(
                    folder,
                    name,
                    ending,
                    part,
                    passphrase.isPresent() ? PassphraseSeal.over(disk, passphrase.get()) : disk,
                    digest,
                    files);
        } catch (IOException | RuntimeException e) {
            disk.close();
            Files.deleteIfExists(part);
            throw e;
        }
    }

    @Override
    public OutFolder root() {
        return new InZip(Path.of(name));
    }

    /** A folder inside. */
    private final class InZip implements OutFolder {
        private final Path path;

        InZip(Path path) {
            this.path = path;
        }

        @Override
        public OutFolder folder(String wish) {
            return new InZip(free(SafeNames.of(wish, "Folder"), ""));
        }

        @Override
        public OutFolder sharedFolder(String wish) {
            var shared = path.resolve(SafeNames.of(wish, "Folder"));
            taken.add(key(shared));
            return new InZip(shared);
        }

        private Path free(String stem, String end) {
            var found = path.resolve(stem + end);
            for (int n = 2; !taken.add(key(found)); n++) {
                found = path.resolve(stem + " (" + n + ")" + end);
            }
            return found;
        }

        /** Names that differ in case only are one on some systems. */
        private static String key(Path of) {
            return of.toString().toLowerCase(Locale.ROOT);
        }

        @Override
        public Path file(String wish, String end, Body body) throws IOException {
            return write(SafeNames.of(wish, "Unnamed"), end, Optional.empty(), body)
                    .file();
        }

        @Override
        public WrittenFile original(String own, InputStream content, Instant modified) throws IOException {
            var split = SafeNames.split(own);
            return write(split.stem(), split.ending(), Optional.of(modified), content::transferTo);
        }

        private WrittenFile write(String stem, String end, Optional<Instant> modified, Body body) throws IOException {
            files.begin();
            boolean complete = false;
            try (var spool = new Spool()) {
                var digest = Digests.sha512();
                body.writeTo(new DigestOutputStream(spool, digest));
                var place = free(stem, end);
                var entry = new ZipArchiveEntry(relativeTo(Path.of(""), place));
                entry.setSize(spool.size());
                modified.ifPresent(at -> entry.setLastModifiedTime(FileTime.from(at)));
                zip.putArchiveEntry(entry);
                try (var content = spool.content()) {
                    content.transferTo(zip);
                }
                zip.closeArchiveEntry();
                complete = true;
                var written = WrittenFile.of(place, spool.size(), Digests.hex(digest));
                files.complete(written);
                return written;
            } finally {
                if (!complete) {
                    files.fail();
                }
            }
        }

        @Override
        public String relative(Path file) {
            return relativeTo(path, file);
        }

        private static String relativeTo(Path base, Path file) {
            return base.relativize(file).toString().replace(file.getFileSystem().getSeparator(), "/");
        }
    }

    @Override
    public void finish() throws IOException {
        zip.close();
        finished = true;
        var file = SafeNames.moveToFree(part, folder, name, ending);
        complete = Optional.of(WrittenFile.of(file, Files.size(file), Digests.hex(digest)));
    }

    @Override
    public List<WrittenFile> onDisk() {
        return complete.stream().toList();
    }

    /** Unless it was finished, nothing of it stays. */
    @Override
    public void close() throws IOException {
        if (closed) {
            return;
        }
        closed = true;
        if (!finished) {
            try {
                zip.close();
            } finally {
                Files.deleteIfExists(part);
            }
        }
    }
}
