package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.FileLease;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.WriteRefused;
import app.custodex.link.PhoneIdentity;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Optional;

/** Who may use a strongroom at the moment, and who may write to a phone's stack. Each use begins by looking whether it is still there. */
final class Leases {
    private static final String LEASE = "strongroom.lock";

    private final Path root;
    private final Disk disk;
    private final StrongroomIdentity identity;

    Leases(Path root, Disk disk, StrongroomIdentity identity) {
        this.root = root;
        this.disk = disk;
        this.identity = identity;
    }

    /** The right to use it together with others; it can't be moved meanwhile. */
    Closeable shared() throws IOException {
        requireThere();
        try {
            var lease = FileLease.shared(root.resolve(Strongroom.WORK).resolve(LEASE));
            if (lease.isEmpty()) {
                throw new ProblemException(
                        Problem.failure(root.toString(), "The strongroom is being moved", "Wait until it has arrived"));
            }
            return lease.get();
        } catch (FileSystemException e) {
            if (WriteRefused.is(e)
                    || e instanceof NoSuchFileException && !Files.exists(root.resolve(Strongroom.WORK))) {
                return () -> {}; // where nothing can be written, nothing can be moved
            }
            throw e;
        }
    }

    /** The right to use it alone. */
    Closeable alone() throws IOException {
        requireThere();
        disk.createFolders(root.resolve(Strongroom.WORK));
        return FileLease.alone(root.resolve(Strongroom.WORK).resolve(LEASE))
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        root.toString(),
                        "The strongroom is in use: something is copied into it, checked or read",
                        "Wait until that is done, or end it, then try again")));
    }

    void requireThere() throws ProblemException {
        var there = StrongroomIdentity.read(root);
        if (there.isEmpty() && !StrongroomFinder.isStrongroom(root)
                || there.filter(found -> !found.id().equals(identity.id())).isPresent()) {
            throw away(root);
        }
    }

    Closeable lockedFor(PhoneIdentity phone, Stack stack) throws IOException {
        return lock(stack)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        phone.name(),
                        "Another copy of this phone is under way",
                        "Wait until it is done, or stop it there")));
    }

    Optional<FileLease> lock(Stack stack) throws IOException {
        return FileLease.alone(root.resolve(Strongroom.WORK).resolve(stack.name() + ".lock"));
    }

    static ProblemException away(Path root) {
        return new ProblemException(Problem.failure(
                root.toString(),
                "The strongroom is not there",
                "Plug in the drive that it is on and try again, or choose another one; nothing was written"));
    }
}
