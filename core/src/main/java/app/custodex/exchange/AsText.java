package app.custodex.exchange;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import java.io.IOException;
import java.util.function.BiFunction;
import java.util.function.Function;

/** Writes and reads what is a text in JSON and more than that in Java. */
final class AsText {
    private AsText() {}

    static <T> StdSerializer<T> writer(Class<T> type, Function<T, String> text) {
        return new StdSerializer<>(type) {
            private static final long serialVersionUID = 1L;

            @Override
            public void serialize(T value, JsonGenerator out, SerializerProvider provider) throws IOException {
                out.writeString(text.apply(value));
            }
        };
    }

    /** @param value of the text, and of what the reader was told beside it */
    static <T> StdDeserializer<T> reader(Class<T> type, BiFunction<String, DeserializationContext, T> value) {
        return new StdDeserializer<>(type) {
            private static final long serialVersionUID = 1L;

            @Override
            public T deserialize(JsonParser in, DeserializationContext context) throws IOException {
                return value.apply(in.getText(), context);
            }
        };
    }
}
