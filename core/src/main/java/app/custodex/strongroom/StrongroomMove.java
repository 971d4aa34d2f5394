package app.custodex.strongroom;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.Sizes;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.LongConsumer;

/**
 * Brings a whole strongroom to another place. On the same disk it is one rename; else every file is copied, synced, read back from
 * the medium and compared, and only then does the copy take the strongroom's name and the old one go. A move that is cut leaves the
 * old one as it was; the next attempt takes over the files that had arrived.
 */
public final class StrongroomMove {
    private static final String ARRIVING = ".arriving";

    private final Strongroom strongroom;
    private final Path from;
    private final Path to;
    private final Disk disk;

    /** @param to must not exist, or be empty */
    public StrongroomMove(Strongroom strongroom, Path to, Disk disk) {
        this.strongroom = strongroom;
        this.from = strongroom.root().toAbsolutePath().normalize();
        this.to = to.toAbsolutePath().normalize();
        this.disk = disk;
    }

    /** Remembers where the strongroom is now. */
    public interface Arrived {
        void at(Path place) throws IOException;
    }

    /** Removes what an earlier attempt to move to this place left there, when it is not going to be used any more. */
    public static void clearLeftOver(Path place, Disk disk) throws IOException {
        disk.delete(place.resolveSibling(place.getFileName() + ARRIVING));
    }

    /** Bytes that have to be copied when it can't be renamed. */
    public long size() throws IOException {
        long size = 0;
        for (var file : files()) {
            size += Files.size(file);
        }
        return size;
    }

    private List<Path> files() throws IOException {
        try (var all = Files.walk(from)) {
            return all.filter(Files::isRegularFile)
                    .filter(file -> !file.toString().endsWith(".lock"))
                    .sorted()
                    .toList();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /**
     * Nobody else may use the strongroom meanwhile: who tries is told that it is being moved.
     *
     * @param progress is told bytes as they are copied
     * @param arrived is called when all of it is in its new place, before the old one goes
     * @throws ProblemException when it is in use, or the target is taken or too small; nothing was changed then
     */
    public void run(LongConsumer progress, CancelToken cancel, Arrived arrived) throws IOException {
        try (var alone = strongroom.alone()) {
            move(progress, cancel, arrived);
        }
    }

    private void move(LongConsumer progress, CancelToken cancel, Arrived arrived) throws IOException {
        requireFree();
        var parent = to.getParent();
        if (parent == null) {
            throw new ProblemException(
                    Problem.failure(to.toString(), "It is no folder for a strongroom", "Choose another"));
        }
        disk.createFolders(parent);
        if (Files.exists(to)) {
            Files.delete(to); // empty, as was seen above
        }
        try {
            disk.move(from, to);
            disk.syncFolder(parent);
            arrived.at(to);
            return;
        } catch (AtomicMoveNotSupportedException otherDisk) {
            // Copied below.
        } catch (FileSystemException e) {
            throw new ProblemException(
                    Problem.failure(
                            to.toString(),
                            "The strongroom can't be moved there",
                            "Choose a folder that may be written"),
                    e);
        }
        var arriving = parent.resolve(to.getFileName() + ARRIVING);
        requireRoom(parent, arriving);
        var files = files();
        var expected = new HashSet<Path>();
        for (var file : files) {
            cancel.check();
            var target = arriving.resolve(from.relativize(file).toString());
            expected.add(target);
            copy(file, target, progress, cancel);
        }
        disk.createFolders(arriving.resolve(Strongroom.WORK));
        dropOthers(arriving, expected);
        syncFolders(arriving);
        if (!files().equals(files)) {
            throw new ProblemException(Problem.failure(
                    from.toString(),
                    "Something was written into the strongroom while it was moved, by a program that does not wait for it",
                    "End that program, then move it again; the strongroom is where it was"));
        }
        disk.move(arriving, to);
        disk.syncFolder(parent);
        arrived.at(to);
        disk.delete(from);
    }

    /** An earlier attempt may have copied what is not in the strongroom any more. */
    private void dropOthers(Path arriving, Set<Path> expected) throws IOException {
        List<Path> others;
        try (var all = Files.walk(arriving)) {
            others = all.filter(file -> !Files.isDirectory(file) && !expected.contains(file))
                    .toList();
        }
        for (var other : others) {
            disk.delete(other);
        }
    }

    /** The copy is the only one soon: not only what is in the files has to be on the medium, their names too. */
    private void syncFolders(Path arriving) throws IOException {
        List<Path> folders;
        try (var all = Files.walk(arriving)) {
            folders = all.filter(Files::isDirectory).toList();
        }
        for (var folder : folders.reversed()) {
            disk.syncFolder(folder);
        }
    }

    private void requireFree() throws IOException {
        if (to.startsWith(from) || from.startsWith(to)) {
            throw new ProblemException(Problem.failure(
                    to.toString(),
                    "It lies within the strongroom, or the strongroom within it",
                    "Choose another folder"));
        }
        if (Files.exists(to)) {
            boolean empty = false;
            if (Files.isDirectory(to)) {
                try (var members = Files.list(to)) {
                    empty = members.findAny().isEmpty();
                }
            }
            if (!empty) {
                throw new ProblemException(Problem.failure(
                        to.toString(), "There is something there already", "Choose an empty folder, or a new name"));
            }
        }
    }

    private void requireRoom(Path parent, Path arriving) throws IOException {
        long there = 0;
        if (Files.exists(arriving)) {
            try (var all = Files.walk(arriving)) {
                there = all.filter(Files::isRegularFile)
                        .mapToLong(file -> file.toFile().length())
                        .sum();
            }
        }
        long need = size() - there;
        long room = disk.room(parent);
        if (need > room) {
            throw new ProblemException(Problem.failure(
                    to.toString(),
                    "The strongroom needs " + Sizes.bytes(need, Locale.ENGLISH) + " there, and there is room for "
                            + Sizes.bytes(room, Locale.ENGLISH),
                    "Choose a larger disk; nothing was moved"));
        }
    }

    private void copy(Path file, Path target, LongConsumer progress, CancelToken cancel) throws IOException {
        var parent = target.getParent();
        if (parent != null) {
            disk.createFolders(parent);
        }
        if (Files.exists(target)
                && Files.size(target) == Files.size(file)
                && read(target).equals(read(file))) {
            progress.accept(Files.size(file));
            return;
        }
        disk.delete(target);
        var digest = Digests.sha512();
        try (var in = Files.newInputStream(file);
                var out = disk.create(target)) {
            var buffer = new byte[1 << 20];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                cancel.check();
                digest.update(buffer, 0, n);
                out.write(ByteBuffer.wrap(buffer, 0, n));
                progress.accept(n);
            }
            out.sync();
        }
        if (!read(target).equals(Digests.hex(digest))) {
            throw new ProblemException(Problem.failure(
                    target.toString(),
                    "It reads back differently from what was written",
                    "Don't use this disk; the strongroom is where it was"));
        }
    }

    private static String read(Path file) throws IOException {
        try (var in = new MediumStream(file)) {
            return Digests.of(in);
        }
    }
}
