package app.custodex.docket;

/** The steps of a docket, in the order in which the work is done. */
public enum RouteStep {
    CHECK_IN("Check in"),
    BACK_UP("Back up"),
    READ("Read"),
    EXTRACT("Extract");

    private final String label;

    RouteStep(String label) {
        this.label = label;
    }

    public String label() {
        return label;
    }
}
