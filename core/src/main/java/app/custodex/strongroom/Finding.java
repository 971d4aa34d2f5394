package app.custodex.strongroom;

import app.custodex.base.Problem;
import java.io.IOException;
import java.util.Optional;

/**
 * Something about a strongroom's own files that is not as it should be.
 *
 * @param file which, below the strongroom's folder
 * @param what what is wrong with it, one sentence without a full stop
 * @param mend makes it as it was; empty when that can't be done from what is there
 * @param costly whether something can't be read or trusted because of it
 */
record Finding(String file, String what, Optional<Mend> mend, boolean costly) {
    /** Makes a file as it was. */
    interface Mend {
        void run() throws IOException;
    }

    static Finding mendable(String file, String what, Mend mend) {
        return new Finding(file, what, Optional.of(mend), true);
    }

    static Finding lost(String file, String what) {
        return new Finding(file, what, Optional.empty(), true);
    }

    /** Nothing is missing for it. */
    static Finding stray(String file) {
        return new Finding(file, "It does not belong in the strongroom", Optional.empty(), false);
    }

    Problem problem() {
        var advice = mend.isPresent()
                ? "Mend the strongroom; what is needed for it is there. Check the disk for errors"
                : costly
                        ? "Bring it back from the shop's second copy; check the disk for errors"
                        : "Find out who put it there, and remove it";
        return costly ? Problem.failure(file, what, advice) : Problem.loss(file, what, advice);
    }

    Problem mended() {
        return Problem.note(file, what + ". It was mended", "Check the disk for errors");
    }
}
