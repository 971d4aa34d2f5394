package app.custodex.strongroom;

import app.custodex.base.Problem;
import app.custodex.base.Timestamps;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonSerializer;
import com.fasterxml.jackson.databind.SerializerProvider;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/**
 * An item as JSON, field by field: layers of a hundred thousand unchanged items are read and written in the time that the phone
 * needs to list them, which binding by reflection does not reach. What is empty is left out; unknown fields are passed over.
 */
final class ItemJson {
    private ItemJson() {}

    private static final Map<String, Kind> KINDS = new HashMap<>();

    static {
        for (var kind : Kind.values()) {
            KINDS.put(kind.code(), kind);
        }
    }

    /** What many items of a list share; given to a reader as an attribute, it is kept once. */
    static final class Shared {
        private final Map<String, String> contents = new HashMap<>();
        private ManifestItem.Origin origin = new ManifestItem.Origin("", Instant.EPOCH);
        private String read = "";

        private String content(String name) {
            return contents.computeIfAbsent(name, n -> n);
        }

        private ManifestItem.Origin origin(String source, String time) {
            if (!time.equals(read) || !source.equals(origin.source())) {
                origin = new ManifestItem.Origin(source, Timestamps.parse(time));
                read = time;
            }
            return origin;
        }
    }

    /** Writes an item. */
    static final class Writer extends JsonSerializer<ManifestItem> {
        @Override
        public void serialize(ManifestItem item, JsonGenerator json, SerializerProvider provider) throws IOException {
            json.writeStartObject();
            json.writeStringField("path", item.path().text());
            if (item.type() != ManifestItem.Type.FILE) {
                json.writeStringField("type", item.type().code());
            }
            json.writeStringField("kind", item.kind().code());
            json.writeNumberField("size", item.size());
            json.writeStringField("modified", item.modified().toString());
            if (!item.etag().isEmpty()) {
                json.writeStringField("etag", item.etag());
            }
            if (!item.digest().isEmpty()) {
                json.writeStringField("digest", item.digest());
            }
            if (item.place().isPresent()) {
                json.writeObjectFieldStart("place");
                json.writeStringField("content", item.place().get().content());
                json.writeNumberField("offset", item.place().get().offset());
                json.writeEndObject();
            }
            if (item.target().isPresent()) {
                json.writeStringField("target", item.target().get());
            }
            if (item.problem().isPresent()) {
                provider.defaultSerializeField("problem", item.problem().get(), json);
            }
            if (item.origin().isPresent()) {
                json.writeObjectFieldStart("origin");
                json.writeStringField("source", item.origin().get().source());
                json.writeStringField("read", item.origin().get().read().toString());
                json.writeEndObject();
            }
            json.writeEndObject();
        }
    }

    /** Reads an item. */
    static final class Reader extends JsonDeserializer<ManifestItem> {
        @Override
        public ManifestItem deserialize(JsonParser json, DeserializationContext context) throws IOException {
            var shared = context.getAttribute(Shared.class) instanceof Shared given ? given : new Shared();
            try {
                return item(json, context, shared);
            } catch (IllegalArgumentException | DateTimeException e) {
                throw JsonMappingException.from(json, "This describes no item", e);
            }
        }

        private static ManifestItem item(JsonParser json, DeserializationContext context, Shared shared)
                throws IOException {
            var path = PhonePath.ROOT;
            var type = ManifestItem.Type.FILE;
            var kind = Kind.OTHER;
            long size = 0;
            var modified = Instant.EPOCH;
            var etag = "";
            var digest = "";
            Optional<ManifestItem.Place> place = Optional.empty();
            Optional<String> target = Optional.empty();
            Optional<Problem> problem = Optional.empty();
            Optional<ManifestItem.Origin> origin = Optional.empty();
            for (var name = json.nextFieldName(); name != null; name = json.nextFieldName()) {
                json.nextToken();
                switch (name) {
                    case "path" -> path = new PhonePath(json.getText());
                    case "type" -> type = type(json.getText());
                    case "kind" -> kind = kind(json.getText());
                    case "size" -> size = json.getLongValue();
                    case "modified" -> modified = Timestamps.parse(json.getText());
                    case "etag" -> etag = json.getText();
                    case "digest" -> digest = json.getText();
                    case "place" -> place = Optional.of(place(json, shared));
                    case "target" -> target = Optional.of(json.getText());
                    case "problem" -> problem = Optional.of(context.readValue(json, Problem.class));
                    case "origin" -> origin = Optional.of(origin(json, shared));
                    default -> json.skipChildren();
                }
            }
            if (json.currentToken() != JsonToken.END_OBJECT || path.equals(PhonePath.ROOT)) {
                throw new IllegalArgumentException("an item without its path");
            }
            if (target.isPresent()) {
                type = ManifestItem.Type.LINK; // Custodex 0.1 did not say it
            }
            return new ManifestItem(path, type, kind, size, modified, etag, digest, place, target, problem, origin);
        }

        private static ManifestItem.Type type(String code) {
            for (var type : ManifestItem.Type.values()) {
                if (type.code().equals(code)) {
                    return type;
                }
            }
            throw new IllegalArgumentException("not a type: " + code);
        }

        private static Kind kind(String code) {
            var kind = KINDS.get(code);
            if (kind == null) {
                throw new IllegalArgumentException("not a kind: " + code);
            }
            return kind;
        }

        private static ManifestItem.Place place(JsonParser json, Shared shared) throws IOException {
            var content = "";
            long offset = 0;
            for (var name = json.nextFieldName(); name != null; name = json.nextFieldName()) {
                json.nextToken();
                switch (name) {
                    case "content" -> content = shared.content(json.getText());
                    case "offset" -> offset = json.getLongValue();
                    default -> json.skipChildren();
                }
            }
            return new ManifestItem.Place(content, offset);
        }

        private static ManifestItem.Origin origin(JsonParser json, Shared shared) throws IOException {
            var source = "";
            var read = "";
            for (var name = json.nextFieldName(); name != null; name = json.nextFieldName()) {
                json.nextToken();
                switch (name) {
                    case "source" -> source = json.getText();
                    case "read" -> read = json.getText();
                    default -> json.skipChildren();
                }
            }
            return shared.origin(source, read);
        }
    }
}
