package app.custodex.base;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A place in which something is put while it is read is full, or can't be written: no fault of what is read. */
public final class PlaceFailure extends ProblemException {
    private static final long serialVersionUID = 1L;

    /** With less room than this, in bytes, a place is full. */
    private static final long LEAST_ROOM = 1 << 20;

    /** SQLITE_FULL; see "Result and Error Codes" in SQLite's documents. */
    private static final int FULL = 13;

    /** SQLITE_READONLY, SQLITE_IOERR, SQLITE_CANTOPEN. */
    private static final Set<Integer> REFUSED = Set.of(8, 10, 14);

    /** The codes of some errors say more in their upper bytes. */
    private static final int CODE = 0xff;

    private PlaceFailure(Path place, boolean full, Throwable cause) {
        super(
                full
                        ? Problem.failure(
                                place.toString(),
                                "There is no room left here, and reading needs some",
                                "Make room, and open it again")
                        : Problem.failure(
                                place.toString(),
                                "Nothing can be written here, and reading needs a place to put things",
                                "Look at the disk and who may write to it, and open it again"),
                cause);
    }

    /** Writing into a place failed. */
    static PlaceFailure of(Path place, IOException cause) {
        return new PlaceFailure(place, isFull(place), cause);
    }

    private static boolean isFull(Path place) {
        try {
            return Files.getFileStore(place).getUsableSpace() < LEAST_ROOM;
        } catch (IOException gone) {
            return false;
        }
    }

    /** What lies behind a failure, where that was one of a place, or of a database that is written there. */
    public static Optional<PlaceFailure> behind(Throwable failure, Path place) {
        for (@Nullable Throwable cause = failure; cause != null; cause = cause.getCause()) {
            if (cause instanceof PlaceFailure told) {
                return Optional.of(told);
            }
            if (cause instanceof SQLException sql) {
                int code = sql.getErrorCode() & CODE;
                if (code == FULL || REFUSED.contains(code)) {
                    return Optional.of(new PlaceFailure(place, code == FULL, failure));
                }
            }
        }
        return Optional.empty();
    }
}
