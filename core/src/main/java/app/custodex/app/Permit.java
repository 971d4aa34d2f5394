package app.custodex.app;

import app.custodex.link.PhoneIdentity;
import java.time.Instant;

/** That something may be done to the data of a phone; given by the {@link ConsentGate} alone. */
public final class Permit {
    private final Operation operation;
    private final Mandate mandate;
    private final PhoneIdentity phone;
    private final Instant given;

    Permit(Operation operation, Mandate mandate, PhoneIdentity phone, Instant given) {
        this.operation = operation;
        this.mandate = mandate;
        this.phone = phone;
        this.given = given;
    }

    public Operation operation() {
        return operation;
    }

    public Mandate mandate() {
        return mandate;
    }

    public PhoneIdentity phone() {
        return phone;
    }

    /** UTC. */
    public Instant given() {
        return given;
    }
}
