package app.custodex.tones;

import java.util.Locale;

/** What a phone plays a tone for. */
public enum ToneUse {
    RING("Ring"),
    MESSAGE("Message"),
    ALARM("Alarm");

    private final String label;

    ToneUse(String label) {
        this.label = label;
    }

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The words shown to people. */
    public String label() {
        return label;
    }
}
