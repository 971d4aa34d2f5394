package app.custodex.link;

import com.fasterxml.jackson.annotation.JsonValue;

/** Why a phone does not give a kind that it holds. */
public enum Withheld {
    /** It leaves the phone only when the copy will be sealed. */
    SEALED_ONLY("sealed-only"),
    /** Private to the apps, unless the owner has opened the phone. */
    OUT_OF_REACH("out-of-reach"),
    /** A chat app keeps it elsewhere and has not written a copy of it on the phone. */
    NOT_WRITTEN("not-written");

    private final String code;

    Withheld(String code) {
        this.code = code;
    }

    @JsonValue
    public String code() {
        return code;
    }
}
