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
import java.util.Optional;
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
        if (!Files.isDirectory(root) || !Files.isReadable(root)) {
            return status(none(), root.toString(), 0, 0);
        }
        // Not the size of the disk that it lies on, which changes with whatever else is written there.
        return status(EnumSet.of(ReadinessStep.REACH), root.toString(), 0, 0);
    }

    private Path path(PhonePath path) {
        var found = root;
        if (!path.text().isEmpty()) {
            for (var segment : path.text().split("/")) {
                found = found.resolve(segment);
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
        listed.sort(Comparator.comparing(FolderLink::place));
        return listed;
    }

    private static String place(Listed listed) {
        return switch (listed) {
            case Listed.File file -> file.path().text();
            case Listed.Folder folder -> folder.path().text();
            case Listed.Link link -> link.path().text();
            case Listed.Closed closed -> closed.path().text();
            case Listed.Refused refused -> refused.problem().subject();
        };
    }

    private Listed listed(PhonePath folder, Path member) throws IOException {
        var name = String.valueOf(member.getFileName());
        if (!PhonePath.isName(name)) {
            return new Listed.Refused(Problem.failure(
                    member.toString(), "Its name can't be the name of a file", "Rename it, then back up again"));
        }
        var path = folder.child(name);
        try {
            var attributes = Files.readAttributes(member, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
            if (attributes.isSymbolicLink()) {
                return new Listed.Link(path, Files.readSymbolicLink(member).toString());
            }
            if (attributes.isDirectory()) {
                return isLeftOut(member)
                        ? new Listed.Refused(Problem.note(
                                path.text(), "It is the strongroom itself and was left out", "Nothing needs doing"))
                        : new Listed.Folder(path);
            }
            if (attributes.isRegularFile()) {
                return new Listed.File(
                        path, attributes.size(), attributes.lastModifiedTime().toInstant(), "");
            }
            return new Listed.Refused(Problem.note(
                    path.text(), "It is a device, a pipe or a socket and holds no content", "Nothing needs doing"));
        } catch (NoSuchFileException e) {
            return new Listed.Refused(Problem.failure(
                    path.text(), "It went away while the folder was listed", "Back up again to be sure"));
        }
    }

    private boolean isLeftOut(Path member) throws IOException {
        var out = leaveOut.get();
        return Files.exists(out) && Files.isSameFile(member, out);
    }

    @Override
    public PhoneContent open(PhonePath file, long offset) throws LinkException {
        try {
            var channel = FileChannel.open(path(file));
            try {
                long size = Math.max(0, channel.size() - offset);
                return new PhoneContent(size, "", new Content(file, Channels.newInputStream(channel.position(offset))));
            } catch (IOException | RuntimeException e) {
                channel.close();
                throw e;
            }
        } catch (IOException e) {
            throw trouble(file, e);
        }
    }

    private LinkException trouble(PhonePath path, IOException e) {
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
                        "It can't be read from its medium ("
                                + Optional.ofNullable(e.getMessage()).orElse("no reason given") + ")",
                        "Try again; the card or drive may be failing, so copy what is most needed first",
                        e);
        };
    }

    @Override
    public void close() {
        // Nothing is held open between calls.
    }

    private final class Content extends FilterInputStream {
        private final PhonePath path;

        Content(PhonePath path, InputStream in) {
            super(in);
            this.path = path;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            try {
                return super.read(buffer, offset, length);
            } catch (IOException e) {
                throw trouble(path, e);
            }
        }
    }
}
