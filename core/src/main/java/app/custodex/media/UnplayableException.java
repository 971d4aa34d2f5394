package app.custodex.media;

import java.io.IOException;

/** A file can't be shown or played. Nothing else is harmed by it. */
public final class UnplayableException extends IOException {
    private static final long serialVersionUID = 1L;

    /** What was the matter. */
    public enum Why {
        /** It is damaged, or of a form that is not known here. */
        DAMAGED("It is damaged, or of a format that Custodex can't show"),
        /** It ended the process that decoded it. */
        ENDED("It made the decoder crash; it may be made to do harm"),
        TOO_SLOW("Decoding it took too long"),
        /** What came out of the decoder was not what was asked for. */
        SUSPICIOUS("It made the decoder answer what nobody asked; it may be made to do harm");

        private final String words;

        Why(String words) {
            this.words = words;
        }

        /** As a sentence without its end. */
        public String words() {
            return words;
        }
    }

    private final Why why;

    UnplayableException(Why why, String forTheLog) {
        super(forTheLog);
        this.why = why;
    }

    public Why why() {
        return why;
    }
}
