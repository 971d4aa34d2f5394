package app.custodex.link;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;

/**
 * A family of phones, or a kind of other source: what has to be done before it gives its files, in the order of doing it.
 */
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
                    ReadinessStep.ALLOW_COMPUTER)),
    /** A folder of this computer: a phone that the system mounted, a card, an unpacked archive. */
    FOLDER("folder", "Folder", List.of(ReadinessStep.REACH)),
    /** A ZIP or TAR archive. */
    ARCHIVE("archive", "Archive", List.of(ReadinessStep.REACH)),
    WEBDAV("webdav", "WebDAV address", List.of(ReadinessStep.REACH, ReadinessStep.CERTIFICATE, ReadinessStep.SIGN_IN)),
    /** A remote account that holds copies. */
    LOFT(
            "loft",
            "Loft account",
            List.of(ReadinessStep.REACH, ReadinessStep.SIGN_IN, ReadinessStep.CODE, ReadinessStep.CHOOSE_COPY)),
    /** What a maker's own program left on this computer. */
    CRATE("crate", "Maker's backup", List.of(ReadinessStep.REACH, ReadinessStep.PASSPHRASE));

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

    /** Whether files lie anywhere and are told apart by name and content, not by the folder that a system keeps them in. */
    public boolean plain() {
        return this == FOLDER || this == ARCHIVE || this == WEBDAV;
    }

    public List<ReadinessStep> steps() {
        return steps;
    }
}
