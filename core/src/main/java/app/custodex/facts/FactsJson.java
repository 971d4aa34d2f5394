package app.custodex.facts;

import app.custodex.base.Json;
import app.custodex.model.Moment;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import java.io.IOException;

/** How facts travel between the two processes. */
final class FactsJson {
    static final JsonMapper MAPPER = Json.LINE
            .rebuild()
            .addModule(new SimpleModule()
                    .addSerializer(Moment.class, new Writer())
                    .addDeserializer(Moment.class, new Reader()))
            .build();

    private FactsJson() {}

    private static final class Writer extends StdSerializer<Moment> {
        private static final long serialVersionUID = 1L;

        Writer() {
            super(Moment.class);
        }

        @Override
        public void serialize(Moment moment, JsonGenerator out, SerializerProvider provider) throws IOException {
            out.writeString(moment.text());
        }
    }

    private static final class Reader extends StdDeserializer<Moment> {
        private static final long serialVersionUID = 1L;

        Reader() {
            super(Moment.class);
        }

        @Override
        public Moment deserialize(JsonParser in, DeserializationContext context) throws IOException {
            return Moment.parse(in.getText());
        }
    }
}
