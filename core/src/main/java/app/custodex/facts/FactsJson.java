package app.custodex.facts;

import app.custodex.base.Json;
import app.custodex.model.Moment;
import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import com.fasterxml.jackson.databind.json.JsonMapper;

/** How facts travel between the two processes. */
final class FactsJson {
    static final JsonMapper MAPPER =
            Json.LINE.rebuild().addMixIn(Moment.class, MomentAsText.class).build();

    private FactsJson() {}

    /** Moments go as the text that they have themselves. */
    private interface MomentAsText {
        @JsonValue
        String text();

        @JsonCreator
        static Moment parse(String text) {
            return Moment.parse(text);
        }
    }
}
