package app.custodex.link;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import org.jspecify.annotations.Nullable;

/** Something went wrong between the bench and a phone. */
public abstract sealed class LinkException extends ProblemException {
    private static final long serialVersionUID = 1L;

    LinkException(Problem problem, @Nullable Throwable cause) {
        super(problem);
        if (cause != null) {
            initCause(cause);
        }
    }

    /** The phone does not answer, or went away in the middle of an answer. */
    public static final class Lost extends LinkException {
        private static final long serialVersionUID = 1L;

        public Lost(String subject, @Nullable Throwable cause) {
            super(
                    Problem.failure(
                            subject, "The connection broke", "Check the cable at both ends, or the network, and go on"),
                    cause);
        }
    }

    /** The phone answers but waits for a movement of the hand. */
    public static final class NotReady extends LinkException {
        private static final long serialVersionUID = 1L;

        public NotReady(String subject) {
            super(
                    Problem.failure(
                            subject,
                            "The phone doesn't give its files at the moment",
                            "Look at the phone: it is locked or asks something"),
                    null);
        }
    }

    /** One file or folder can't be read; the others can. */
    public static final class Item extends LinkException {
        private static final long serialVersionUID = 1L;

        public Item(PhonePath path, String what, String advice, @Nullable Throwable cause) {
            super(Problem.failure(path.text().isEmpty() ? "/" : path.text(), what, advice), cause);
        }
    }
}
