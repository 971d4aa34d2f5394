package app.custodex.link;

import app.custodex.base.Problem;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.function.Supplier;

/** A folder of this computer: a phone that the system mounted, a card, an unpacked archive. Links in it are never followed. */
public final class FolderLink extends PlainLink {
    private final Path root;
    private final Supplier<Path> leaveOut;

    /** @param leaveOut a folder that is not looked into: the strongroom must not swallow itself */
    public FolderLink(String identifier, String name, Path root, Supplier<Path> leaveOut) {
        super(Family.FOLDER, new SourceName(identifier, name));
        this.root = root;
        this.leaveOut = leaveOut;
    }

    @Override
    public PhoneStatus status() {
        if (!Files.isDirectory(root) || !Files.isReadable(root) || isWithinStrongroom()) {
            return status(none(), root.toString(), 0, 0);
        }
        // Not the size of the disk that it lies on, which changes with whatever else is written there.
        return status(EnumSet.of(ReadinessStep.REACH), root.toString(), 0, 0);
    }

    /** A strongroom may have been put here after the folder was added. */
    private boolean isWithinStrongroom() {
        try {
            var out = leaveOut.get();
            return Files.exists(out) && root.toRealPath().startsWith(out.toRealPath());
        } catch (IOException unknown) {
            return false;
        }
    }

    private Path path(PhonePath path) {
        var found = root;
        if (!path.text().isEmpty()) {
            for (var segment : path.text().split("/")) {
                found = RawName.hasMarks(segment) ? RawPaths.child(found, segment) : found.resolve(segment);
            }
        }
        return found;
    }

    @Override
    public List<Listed> list(PhonePath folder) throws LinkException {
        var path = path(folder);
        var listed = new ArrayList<Listed>();
        try (var members = Files.newDirectoryStream(path)) {
            for (var member : members) {
                listed.add(listed(folder, member));
            }
        } catch (DirectoryIteratorException e) {
            throw trouble(folder, new IOException(e));
        } catch (IOException e) {
            throw trouble(folder, e);
        }
        listed.sort(Comparator.comparing(Listed::path));
        return listed;
    }

    /** One member of a folder, as it stands in its listing. */
    Listed listed(PhonePath folder, Path member) throws IOException {
        var path = folder.child(RawPaths.name(member));
        try {
            var attributes = Files.readAttributes(member, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
            var modified = attributes.lastModifiedTime().toInstant();
            if (attributes.isSymbolicLink()) {
                return new Listed.Link(path, RawPaths.text(Files.readSymbolicLink(member)), modified);
            }
            if (attributes.isDirectory()) {
                return isLeftOut(member)
                        ? new Listed.Refused(
                                path,
                                Problem.note(
                                        path.text(),
                                        "It is the strongroom itself and was left out",
                                        "Nothing needs doing"))
                        : new Listed.Folder(path, modified);
            }
            if (attributes.isRegularFile()) {
                return new Listed.File(path, attributes.size(), modified, "");
            }
            return new Listed.Refused(
                    path,
                    Problem.note(
                            path.text(),
                            "It is " + RawPaths.special(member) + " and holds no content",
                            "Nothing needs doing"));
        } catch (NoSuchFileException e) {
            return new Listed.Refused(
                    path,
                    Problem.failure(
                            path.text(), "It went away while the folder was listed", "Back up again to be sure"));
        } catch (AccessDeniedException e) {
            return new Listed.Refused(
                    path,
                    Problem.failure(
                            path.text(), "This user may not look at it", "Give this user the right to read it"));
        }
    }

    private boolean isLeftOut(Path member) throws IOException {
        var out = leaveOut.get();
        return Files.exists(out) && Files.isSameFile(member, out);
    }

    @Override
    public PhoneContent open(PhonePath file, long offset) throws LinkException {
        try {
            var path = path(file);
            var before = Files.readAttributes(path, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
            if (!before.isRegularFile()) {
                throw new LinkException.Item(
                        file, "It is no longer an ordinary file", "Back up again to take what is there now", null);
            }
            var channel = FileChannel.open(path);
            try {
                long size = Math.max(0, before.size() - offset);
                var in = Channels.newInputStream(channel.position(offset));
                return new PhoneContent(size, "", new Content(file, in, size, () -> isAs(before, path)));
            } catch (IOException | RuntimeException e) {
                channel.close();
                throw e;
            }
        } catch (IOException e) {
            throw trouble(file, e);
        }
    }

    private static boolean isAs(BasicFileAttributes before, Path path) throws IOException {
        var now = Files.readAttributes(path, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
        return now.size() == before.size() && now.lastModifiedTime().equals(before.lastModifiedTime());
    }

    private LinkException trouble(PhonePath path, IOException e) {
        if (e instanceof LinkException known) {
            return known;
        }
        if (!Files.isDirectory(root)) {
            return new LinkException.Lost(name().name(), e);
        }
        return switch (e) {
            case NoSuchFileException gone ->
                new LinkException.Item(path, "It is no longer there", "It was deleted while the copy ran", gone);
            case AccessDeniedException denied ->
                new LinkException.Item(
                        path, "This user may not read it", "Give this user the right to read it", denied);
            default ->
                new LinkException.Item(
                        path,
                        "It can't be read from its medium",
                        "Try again; the card or drive may be failing, so copy what is most needed first",
                        e);
        };
    }

    @Override
    public void close() {
        // Nothing is held open between calls.
    }

    /** Asked when all of a file was read. */
    private interface Unchanged {
        boolean still() throws IOException;
    }

    private final class Content extends FilterInputStream {
        private final PhonePath path;
        private final Unchanged unchanged;
        private long left;

        /** @param left bytes that there were when it was opened */
        Content(PhonePath path, InputStream in, long left, Unchanged unchanged) {
            super(in);
            this.path = path;
            this.left = left;
            this.unchanged = unchanged;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            try {
                int n = left == 0 ? -1 : super.read(buffer, offset, (int) Math.min(length, left));
                left -= Math.max(0, n);
                if (left == 0 || n < 0) {
                    requireUnchanged();
                }
                return n;
            } catch (IOException e) {
                throw trouble(path, e);
            }
        }

        private void requireUnchanged() throws IOException {
            if (left > 0 || !unchanged.still()) {
                throw new LinkException.Item(
                        path,
                        "It was written to while it was copied",
                        "Close what writes to it, then back up again",
                        null);
            }
        }
    }
}
