package app.custodex.exchange;

import app.custodex.base.Json;
import app.custodex.model.Attachment;
import app.custodex.model.Moment;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.DateTimeException;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * Things as JSON lines, for other programs and for reading again: a head, a line a thing, and an end that says how many there are.
 * docs/things.md describes the form.
 */
public final class ThingLines {
    private static final int FORM = 1;

    /** The file that things are read from, while they are. */
    private static final String FILE = "file";

    /** Whether a file of the phone lies where it is read. */
    private static final String THERE = "there";

    private static final JsonMapper MAPPER = ThingJson.mapper(
            JsonInclude.Include.NON_EMPTY,
            new SimpleModule()
                    .addSerializer(AsText.writer(ThingId.class, ThingId::text))
                    .addDeserializer(
                            ThingId.class,
                            AsText.reader(
                                    ThingId.class,
                                    (text, context) -> new ThingId(String.valueOf(context.getAttribute(FILE)), text)))
                    .addSerializer(AsText.writer(Moment.class, Moment::text))
                    .addDeserializer(Moment.class, AsText.reader(Moment.class, (text, context) -> Moment.parse(text)))
                    .addDeserializer(Attachment.class, new AttachmentReader()));

    private ThingLines() {}

    /**
     * Of one line.
     *
     * @param form of the file, from 1
     * @param phone what its owner calls it
     */
    private record Head(int form, String phone, String zone) {}

    /** The first line. */
    public static String head(String phone, String zone) throws IOException {
        return Json.LINE.writeValueAsString(Map.of("things", new Head(FORM, phone, zone)));
    }

    /** A thing's line. */
    public static String line(Thing thing) throws IOException {
        var line = MAPPER.createObjectNode();
        line.put("kind", thing.kind().code());
        line.set("thing", tree(thing));
        return Json.LINE.writeValueAsString(line);
    }

    /** A thing without its kind, as part of something else. */
    public static ObjectNode tree(Thing thing) {
        return MAPPER.valueToTree(thing);
    }

    /** The last line. */
    public static String end(long things) throws IOException {
        return Json.LINE.writeValueAsString(Map.of("end", things));
    }

    /** What a line holds. */
    public sealed interface Line {
        /** @param newer whether a later program wrote it in a form that is not known here */
        record Start(boolean newer) implements Line {}

        record Item(Thing thing) implements Line {}

        record End(long things) implements Line {}
    }

    /**
     * Understands a line.
     *
     * @param file that it stands in; what it holds is known by it from now on
     * @param there whether a file of the phone, by its path, lies where this one does
     * @return empty when it is none of these
     */
    public static Optional<Line> read(String line, String file, Predicate<String> there) {
        try {
            var tree = Json.LINE.readTree(line);
            if (tree.path("things").isObject()) {
                return Optional.of(new Line.Start(tree.at("/things/form").asInt() > FORM));
            }
            if (tree.path("end").isIntegralNumber()) {
                return Optional.of(new Line.End(tree.path("end").asLong()));
            }
            var kind = Arrays.stream(ThingKind.values())
                    .filter(any -> any.code().equals(tree.path("kind").asText()))
                    .findFirst();
            if (kind.isEmpty() || !tree.path("thing").isObject()) {
                return Optional.empty();
            }
            Thing thing = MAPPER.readerFor(ThingJson.typeOf(kind.get()))
                    .withAttribute(FILE, file)
                    .withAttribute(THERE, there)
                    .readValue(tree.get("thing"));
            return isWhole(thing) && thing.kind() == kind.get() ? Optional.of(new Line.Item(thing)) : Optional.empty();
        } catch (IOException | IllegalArgumentException | DateTimeException | NullPointerException strange) {
            return Optional.empty(); // records refuse what has no meaning
        }
    }

    /** Whether nothing is missing that every thing of its kind has. */
    private static boolean isWhole(Thing thing) {
        return Arrays.stream(thing.getClass().getRecordComponents()).allMatch(part -> {
            try {
                return part.getAccessor().invoke(thing) != null;
            } catch (ReflectiveOperationException e) {
                throw new IllegalArgumentException(e);
            }
        });
    }

    /** An attachment stays with its name; whether its file is there is another matter in another place. */
    private static final class AttachmentReader extends StdDeserializer<Attachment> {
        private static final long serialVersionUID = 1L;

        AttachmentReader() {
            super(Attachment.class);
        }

        @Override
        @SuppressWarnings("unchecked")
        public Attachment deserialize(JsonParser in, DeserializationContext context) throws IOException {
            JsonNode tree = in.readValueAsTree();
            var written = new Attachment(
                    tree.path("item").asText(),
                    tree.path("name").asText(),
                    tree.path("type").asText());
            var there = (Predicate<String>) context.getAttribute(THERE);
            return written.there() && there.test(written.item())
                    ? written
                    : new Attachment("", written.title(), written.type());
        }
    }
}
