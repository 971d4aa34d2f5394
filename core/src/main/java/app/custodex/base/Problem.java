package app.custodex.base;

/**
 * One thing that went wrong, in words that reach the screen as they are: whatever a hostile name holds, they are one plain line.
 *
 * @param grade how much it costs
 * @param subject the item it happened to: a path, a file name, a person; never empty
 * @param what what happened, one sentence without a full stop
 * @param advice what to do about it, one sentence without a full stop; empty when nothing needs doing
 */
public record Problem(Grade grade, String subject, String what, String advice) {
    public Problem {
        subject = VisibleText.oneLine(subject);
        what = VisibleText.oneLine(what);
        advice = VisibleText.oneLine(advice);
    }

    /** What a problem costs. */
    public enum Grade {
        /** Worth knowing; nothing is missing. */
        NOTE,
        /** Something of this item is missing or was changed. */
        LOSS,
        /** The item, or the whole task, could not be done. */
        FAILURE
    }

    public static Problem note(String subject, String what, String advice) {
        return new Problem(Grade.NOTE, subject, what, advice);
    }

    public static Problem loss(String subject, String what, String advice) {
        return new Problem(Grade.LOSS, subject, what, advice);
    }

    public static Problem failure(String subject, String what, String advice) {
        return new Problem(Grade.FAILURE, subject, what, advice);
    }

    /** The problem as one line: subject, what happened, what to do. */
    public String sentence() {
        return subject + ": " + told();
    }

    /** What happened and what to do, without what it happened to. */
    public String told() {
        return advice.isEmpty() ? what + "." : what + ". " + advice + ".";
    }
}
