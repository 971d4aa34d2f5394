package app.custodex.link;

import com.fasterxml.jackson.annotation.JsonValue;

/** One movement of the hand that brings a chat app's conversations into a backup. */
public enum ChatStep {
    COPY_HERE(
            "copy-here",
            "keeps its copy on this phone",
            "in the app: Copies, Where, choose This phone instead of the remote account"),
    WRITE_COPY("write-copy", "has written its copy", "in the app: Copies, Write one now"),
    /** Done on the bench, not on the phone. */
    CUSTOMER_KEY(
            "customer-key", "its copy opens with the customer's key", "enter the key that the customer keeps for it");

    private final String code;
    private final String done;
    private final String instruction;

    ChatStep(String code, String done, String instruction) {
        this.code = code;
        this.done = done;
        this.instruction = instruction;
    }

    @JsonValue
    public String code() {
        return code;
    }

    /** How it reads once it is done, behind the app's name. */
    public String done() {
        return done;
    }

    /** What the technician does next, behind the app's name. */
    public String instruction() {
        return instruction;
    }
}
