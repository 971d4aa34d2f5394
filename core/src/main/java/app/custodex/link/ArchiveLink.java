package app.custodex.link;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.BufferedInputStream;
import java.io.Closeable;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.compress.archivers.ArchiveException;
import org.apache.commons.compress.archivers.ArchiveStreamFactory;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.compress.compressors.CompressorException;
import org.apache.commons.compress.compressors.CompressorStreamFactory;

/**
 * A ZIP archive (PKWARE APPNOTE) or an uncompressed TAR archive (POSIX pax, ustar, GNU). Its names are a stranger's: what would
 * lie outside of it is refused.
 */
public final class ArchiveLink extends PlainLink {
    /** JAR is a ZIP with a certain first entry. */
    private static final Set<String> KNOWN =
            Set.of(ArchiveStreamFactory.ZIP, ArchiveStreamFactory.JAR, ArchiveStreamFactory.TAR);

    private final Path file;
    private Optional<Index> index = Optional.empty();

    public ArchiveLink(String identifier, String name, Path file) {
        super(Family.ARCHIVE, new SourceName(identifier, name));
        this.file = file;
    }

    /**
     * Looks at the beginning of a file before it is taken for an archive.
     *
     * @throws ProblemException when it is none that can be read here
     */
    public static void require(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw noArchive(file); // reading a pipe would wait for its other end
        }
        try (var in = new BufferedInputStream(Files.newInputStream(file))) {
            if (isArchive(in)) {
                return;
            }
            var packing = packing(in);
            if (packing.isPresent()) {
                throw new ProblemException(Problem.failure(
                        file.toString(),
                        "It is packed with " + packing.get() + "; its items can't be reached one by one",
                        "Unpack it first, and add the TAR archive or the folder that comes out"));
            }
            throw noArchive(file);
        }
    }

    private static ProblemException noArchive(Path file) {
        return new ProblemException(Problem.failure(
                file.toString(),
                "It is no ZIP archive and no TAR archive",
                "Unpack it with the program that made it, and add the folder instead"));
    }

    private static boolean isArchive(InputStream in) throws IOException {
        try {
            return KNOWN.contains(ArchiveStreamFactory.detect(in));
        } catch (ArchiveException none) {
            return false;
        }
    }

    private static Optional<String> packing(InputStream in) throws IOException {
        try {
            return Optional.of(CompressorStreamFactory.detect(in));
        } catch (CompressorException none) {
            return Optional.empty();
        }
    }

    /** Gives an entry's content from its start. */
    private interface Opener {
        InputStream open() throws IOException;
    }

    private record Entry(Listed.File file, Opener content) {}

    private record Index(Map<PhonePath, List<Listed>> folders, Map<PhonePath, Entry> entries, Closeable archive) {}

    @Override
    public PhoneStatus status() {
        if (!Files.isReadable(file) || !Files.isRegularFile(file)) {
            return status(none(), file.toString(), 0, 0);
        }
        try {
            long size = Files.size(file);
            return status(EnumSet.of(ReadinessStep.REACH), file.toString(), size, size);
        } catch (IOException e) {
            return status(none(), file.toString(), 0, 0);
        }
    }

    private synchronized Index index() throws LinkException {
        if (index.isPresent()) {
            return index.get();
        }
        try {
            index = Optional.of(read());
            return index.get();
        } catch (IOException | RuntimeException e) {
            if (!Files.exists(file)) {
                throw new LinkException.Lost(name().name(), e);
            }
            throw new LinkException.Item(
                    new PhonePath(name().name()),
                    "This is no ZIP archive and no uncompressed TAR archive, or it is damaged",
                    "Unpack it with the program that made it, and add the folder instead",
                    e);
        }
    }

    private Index read() throws IOException {
        var builder = new Builder();
        if (isZip()) {
            var zip = ZipFile.builder().setPath(file).get();
            try {
                for (var entries = zip.getEntriesInPhysicalOrder(); entries.hasMoreElements(); ) {
                    builder.zip(zip, entries.nextElement());
                }
                return builder.index(zip);
            } catch (IOException | RuntimeException e) {
                zip.close();
                throw e;
            }
        }
        var channel = FileChannel.open(file);
        try {
            readTar(channel, builder);
            return builder.index(channel);
        } catch (IOException | RuntimeException e) {
            channel.close();
            throw e;
        }
    }

    /** Goes from header to header; of a torn archive, what lies before the tear is taken. */
    private static void readTar(FileChannel channel, Builder builder) throws IOException {
        var tar = new TarArchiveInputStream(Channels.newInputStream(channel)); // closed with the channel
        Optional<String> last = Optional.empty();
        try {
            for (var entry = tar.getNextEntry(); entry != null; entry = tar.getNextEntry()) {
                if (!entry.isCheckSumOK()) {
                    throw new IOException("a header that is none");
                }
                builder.tar(channel, entry, tar.getBytesRead());
                last = Optional.of(entry.getName());
            }
        } catch (IOException | RuntimeException e) {
            if (last.isEmpty()) {
                throw e;
            }
            builder.torn(last.get());
        }
        if (last.isEmpty()) {
            throw new IOException("an archive without entries");
        }
    }

    /** By the signature of a local header, or of the end of an empty archive. */
    private boolean isZip() throws IOException {
        try (var in = Files.newInputStream(file)) {
            var start = in.readNBytes(4);
            return start.length == 4 && start[0] == 'P' && start[1] == 'K' && (start[2] == 3 || start[2] == 5);
        }
    }

    /** Sorts entries, which come in any order and under any name, into folders. */
    private static final class Builder {
        private final Map<PhonePath, Entry> entries = new LinkedHashMap<>();
        private final Map<PhonePath, Listed> folders = new LinkedHashMap<>();
        private final Map<PhonePath, Listed> links = new LinkedHashMap<>();
        private final List<Listed> refused = new ArrayList<>();

        /** The path that a name means; empty for the root itself. Leading slashes and "." are only ways of writing. */
        private Optional<PhonePath> path(String name) {
            var path = PhonePath.ROOT;
            for (var segment : name.split("/")) {
                if (segment.isEmpty() || segment.equals(".")) {
                    continue;
                }
                if (!PhonePath.isName(segment)) {
                    refused.add(new Listed.Refused(Problem.failure(
                            "/",
                            "The archive lists \"" + name + "\", which would lie outside of it",
                            "It was left out; ask where the archive comes from")));
                    return Optional.empty();
                }
                path = path.child(segment);
            }
            return path.text().isEmpty() ? Optional.empty() : Optional.of(path);
        }

        private void add(PhonePath path, long size, Optional<FileTime> modified, String etag, Opener content) {
            var time = modified.map(FileTime::toInstant).orElse(Instant.EPOCH);
            entries.put(path, new Entry(new Listed.File(path, Math.max(0, size), time, etag), content));
        }

        void zip(ZipFile zip, ZipArchiveEntry entry) throws IOException {
            var path = path(entry.getName());
            if (path.isEmpty()) {
                return;
            }
            if (entry.isDirectory()) {
                folders.put(path.get(), new Listed.Folder(path.get()));
            } else if (entry.isUnixSymlink()) {
                links.put(path.get(), new Listed.Link(path.get(), zip.getUnixSymlink(entry)));
            } else {
                // The checksum tells a changed file even when size and time are the same.
                var etag = "\"" + Long.toHexString(entry.getCrc()) + "\"";
                add(path.get(), entry.getSize(), Optional.ofNullable(entry.getLastModifiedTime()), etag, () -> {
                    if (!zip.canReadEntryData(entry)) {
                        throw new LinkException.Item(
                                path.get(),
                                "It is locked with a password, or packed in a way that can't be read here",
                                "Unpack the archive with the program that made it, and add the folder instead",
                                null);
                    }
                    return zip.getInputStream(entry);
                });
            }
        }

        /** @param last the entry behind which nothing can be read */
        void torn(String last) {
            refused.add(new Listed.Refused(Problem.failure(
                    last,
                    "The archive is torn or damaged here; what may lie behind it can't be read",
                    "Ask for another copy of the archive; what lies before was taken")));
        }

        /** @param content where its content begins in the archive */
        void tar(FileChannel channel, TarArchiveEntry entry, long content) {
            var path = path(entry.getName());
            if (path.isEmpty()) {
                return;
            }
            if (entry.isDirectory()) {
                folders.put(path.get(), new Listed.Folder(path.get()));
            } else if (entry.isSymbolicLink() || entry.isLink()) {
                links.put(path.get(), new Listed.Link(path.get(), entry.getLinkName()));
            } else if (entry.isFile() && !entry.isSparse()) {
                add(
                        path.get(),
                        entry.getSize(),
                        Optional.ofNullable(entry.getLastModifiedTime()),
                        "",
                        () -> new Slice(channel, content, entry.getSize()));
            } else {
                refused.add(new Listed.Refused(
                        Problem.note(path.get().text(), "It is no ordinary file in the archive", "It was left out")));
            }
        }

        Index index(Closeable archive) {
            var members = new HashMap<PhonePath, List<Listed>>();
            members.put(PhonePath.ROOT, new ArrayList<>(refused));
            for (var path : entries.keySet()) {
                folders(path);
            }
            for (var path : links.keySet()) {
                folders(path);
            }
            for (var path : List.copyOf(folders.keySet())) {
                folders(path);
            }
            // A path that is a folder for some entries can't be a file for others.
            links.keySet().removeAll(folders.keySet());
            entries.keySet().removeAll(folders.keySet());
            folders.forEach((path, folder) -> place(members, folder, path));
            links.forEach((path, link) -> place(members, link, path));
            entries.forEach((path, entry) -> place(members, entry.file(), path));
            return new Index(members, entries, archive);
        }

        /** Archives need not name the folders that their files lie in. */
        private void folders(PhonePath path) {
            for (var parent = parent(path); !parent.text().isEmpty(); parent = parent(parent)) {
                folders.putIfAbsent(parent, new Listed.Folder(parent));
            }
        }

        private static void place(Map<PhonePath, List<Listed>> members, Listed listed, PhonePath path) {
            members.computeIfAbsent(parent(path), p -> new ArrayList<>()).add(listed);
        }

        private static PhonePath parent(PhonePath path) {
            int slash = path.text().lastIndexOf('/');
            return slash < 0 ? PhonePath.ROOT : new PhonePath(path.text().substring(0, slash));
        }
    }

    @Override
    public List<Listed> list(PhonePath folder) throws LinkException {
        return index().folders().getOrDefault(folder, List.of());
    }

    @Override
    public PhoneContent open(PhonePath path, long offset) throws LinkException {
        var entry = Optional.ofNullable(index().entries().get(path))
                .orElseThrow(() -> new LinkException.Item(path, "It is not in the archive", "List it again", null));
        try {
            var stream = entry.content().open();
            stream.skipNBytes(offset);
            long size = Math.max(0, entry.file().size() - offset);
            return new PhoneContent(size, entry.file().etag(), new Content(path, stream, size));
        } catch (LinkException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            throw trouble(path, e);
        }
    }

    private LinkException trouble(PhonePath path, Exception e) {
        if (!Files.exists(file)) {
            return new LinkException.Lost(name().name(), e);
        }
        return new LinkException.Item(
                path, "The archive is damaged here", "Ask for another copy of the archive; the rest was taken", e);
    }

    @Override
    public synchronized void close() {
        try {
            if (index.isPresent()) {
                index.get().archive().close();
            }
        } catch (IOException e) {
            // It was only read.
        }
        index = Optional.empty();
    }

    /** Tells damage of one entry from everything else. */
    private final class Content extends FilterInputStream {
        private final PhonePath path;
        private long left;

        /** @param left bytes that the archive's index promises */
        Content(PhonePath path, InputStream in, long left) {
            super(in);
            this.path = path;
            this.left = left;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            if (left == 0) {
                return -1; // whatever more the entry unpacks to was not promised
            }
            try {
                int n = super.read(buffer, offset, (int) Math.min(length, left));
                if (n < 0) {
                    throw new IOException("the entry ends early");
                }
                left -= n;
                return n;
            } catch (IOException | RuntimeException e) {
                throw trouble(path, e);
            }
        }
    }

    /** A part of a file, read by place, so that several can be read at once. */
    private static final class Slice extends InputStream {
        private final FileChannel channel;
        private final long end;
        private long position;

        Slice(FileChannel channel, long from, long length) {
            this.channel = channel;
            this.position = from;
            this.end = from + length;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            if (position >= end) {
                return -1;
            }
            int n = channel.read(ByteBuffer.wrap(buffer, offset, (int) Math.min(length, end - position)), position);
            position += Math.max(0, n);
            return n;
        }
    }
}
