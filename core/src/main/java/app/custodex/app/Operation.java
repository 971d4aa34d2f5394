package app.custodex.app;

/** What is done to a customer's data. */
public enum Operation {
    COPY("copied"),
    READ("read"),
    EXTRACT("extracted"),
    PRINT("printed");

    private final String done;

    Operation(String done) {
        this.done = done;
    }

    /** As in "nothing may be copied". */
    String done() {
        return done;
    }
}
