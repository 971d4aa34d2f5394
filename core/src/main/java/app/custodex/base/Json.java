package app.custodex.base;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;

/** How Custodex writes JSON (RFC 8259): times as RFC 3339 text, absent values left out, unknown fields ignored. */
public final class Json {
    /** On one line. */
    public static final JsonMapper LINE = mapper();

    /** Indented, for files that people open. */
    public static final JsonMapper PAGE =
            mapper().rebuild().enable(SerializationFeature.INDENT_OUTPUT).build();

    private Json() {}

    private static JsonMapper mapper() {
        return JsonMapper.builder()
                .addModule(new JavaTimeModule())
                .addModule(new Jdk8Module())
                .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
                .disable(SerializationFeature.WRITE_DURATIONS_AS_TIMESTAMPS)
                .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .disable(JsonParser.Feature.AUTO_CLOSE_SOURCE)
                .serializationInclusion(JsonInclude.Include.NON_ABSENT)
                .build();
    }
}
