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
import java.util.List;
import java.util.Locale;
import java.util.function.LongConsumer;

/**
 * Brings a whole strongroom to another place. On the same disk it is one rename; else every file is copied, synced, read back from
 * the medium and compared, and only then does the copy take the strongroom's name and the old one go. A move that is cut leaves the
 * old one as it was; the next attempt takes over the files that had arrived.
 */
public final class StrongroomMove {
    private final Path from;
    private final Path to;
    private final Disk disk;

    /** @param to must not exist, or be empty */
    public StrongroomMove(Path from, Path to, Disk disk) {
        this.from = from.toAbsolutePath().normalize();
        this.to = to.toAbsolutePath().normalize();
        this.disk = disk;
    }

    /** Remembers where the strongroom is now. */
    public interface Arrived {
        void at(Path place) throws IOException;
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
     * @param progress is told bytes as they are copied
     * @param arrived is called when all of it is in its new place, before the old one goes
     * @throws ProblemException when the target is taken or too small; nothing was changed then
     */
    public void run(LongConsumer progress, CancelToken cancel, Arrived arrived) throws IOException {
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
        var arriving = parent.resolve(to.getFileName() + ".arriving");
        requireRoom(parent, arriving);
        for (var file : files()) {
            cancel.check();
            copy(file, arriving.resolve(from.relativize(file).toString()), progress, cancel);
        }
        disk.createFolders(arriving.resolve("work"));
        disk.move(arriving, to);
        disk.syncFolder(parent);
        arrived.at(to);
        disk.delete(from);
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
                    "The strongroom needs " + Sizes.bytes(need, Locale.getDefault()) + " there, and there is room for "
                            + Sizes.bytes(room, Locale.getDefault()),
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
