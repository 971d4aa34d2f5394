package app.custodex.link;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;

/** A family of phones: what has to be done on the phone before it gives its files, in the order of doing it. */
public enum Family {
    OSTREL("ostrel", "Ostrel", List.of(ReadinessStep.UNLOCK, ReadinessStep.TRUST)),
    PELLOW(
            "pellow",
            "Pellow",
            List.of(
                    ReadinessStep.UNLOCK,
                    ReadinessStep.MAKER_MENU,
                    ReadinessStep.CABLE_ACCESS,
                    ReadinessStep.CABLE_MODE,
                    ReadinessStep.ALLOW_COMPUTER));

    private final String code;
    private final String label;
    private final List<ReadinessStep> steps;

    Family(String code, String label, List<ReadinessStep> steps) {
        this.code = code;
        this.label = label;
        this.steps = steps;
    }

    @JsonValue
    public String code() {
        return code;
    }

    public String label() {
        return label;
    }

    public List<ReadinessStep> steps() {
        return steps;
    }
}
