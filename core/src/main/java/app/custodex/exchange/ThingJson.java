package app.custodex.exchange;

import app.custodex.base.Json;
import app.custodex.base.Timestamps;
import app.custodex.model.Alarm;
import app.custodex.model.Album;
import app.custodex.model.App;
import app.custodex.model.Bookmark;
import app.custodex.model.Call;
import app.custodex.model.Contact;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.Mail;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.PageVisit;
import app.custodex.model.Playlist;
import app.custodex.model.Task;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.ObjectReader;
import com.fasterxml.jackson.databind.ObjectWriter;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.cfg.MutableConfigOverride;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import java.io.IOException;
import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/** Things as JSON, short: nothing that is empty is written, and the item that a thing was read from only where it is another one. */
public final class ThingJson {
    /** The item that ids belong to unless they say another one. */
    private static final String ITEM = "item";

    private static final int MILLI = 1_000_000;

    private static final JsonMapper MAPPER = mapper(
            JsonInclude.Include.NON_DEFAULT,
            new SimpleModule()
                    .addSerializer(ThingId.class, new IdWriter())
                    .addDeserializer(ThingId.class, new IdReader())
                    .addSerializer(Instant.class, new InstantWriter())
                    .addDeserializer(Instant.class, new InstantReader())
                    .addSerializer(Moment.class, new MomentWriter())
                    .addDeserializer(Moment.class, new MomentReader()));

    private static final Map<ThingKind, ObjectReader> READERS = readers();
    private static final ObjectWriter WRITER = MAPPER.writer();

    private ThingJson() {}

    /**
     * @param written what of a thing
     * @param forms how identifiers and moments are written
     */
    static JsonMapper mapper(JsonInclude.Include written, SimpleModule forms) {
        return Json.LINE
                .rebuild()
                .serializationInclusion(written)
                .withConfigOverride(List.class, ThingJson::absentIsEmpty)
                .withConfigOverride(String.class, ThingJson::absentIsEmpty)
                .addModule(forms)
                .build();
    }

    private static void absentIsEmpty(MutableConfigOverride type) {
        type.setSetterInfo(JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY));
    }

    private static Map<ThingKind, ObjectReader> readers() {
        var readers = new EnumMap<ThingKind, ObjectReader>(ThingKind.class);
        for (var kind : ThingKind.values()) {
            readers.put(kind, MAPPER.readerFor(typeOf(kind)));
        }
        return readers;
    }

    static Class<? extends Thing> typeOf(ThingKind kind) {
        return switch (kind) {
            case CONTACT -> Contact.class;
            case CONVERSATION -> Conversation.class;
            case MESSAGE -> Message.class;
            case MAIL -> Mail.class;
            case PLAYLIST -> Playlist.class;
            case ALBUM -> Album.class;
            case ALARM -> Alarm.class;
            case APP -> App.class;
            case CALL -> Call.class;
            case VOICEMAIL -> Voicemail.class;
            case EVENT -> Event.class;
            case TASK -> Task.class;
            case NOTE -> Note.class;
            case BOOKMARK -> Bookmark.class;
            case VISIT -> PageVisit.class;
            case PICTURE, VIDEO, FILM, TRACK, PODCAST, MEMO, RINGTONE, DOCUMENT, ROUTE, FILE -> MediaFile.class;
        };
    }

    public static byte[] write(Thing thing) throws IOException {
        return WRITER.withAttribute(ITEM, thing.id().item()).writeValueAsBytes(thing);
    }

    /** @param item that it was read from */
    public static Thing read(ThingKind kind, String item, byte[] json) throws IOException {
        var reader = READERS.get(kind);
        if (reader == null) {
            throw new IOException("a thing of no kind");
        }
        return reader.withAttribute(ITEM, item).readValue(json);
    }

    private static final class IdWriter extends StdSerializer<ThingId> {
        private static final long serialVersionUID = 1L;

        IdWriter() {
            super(ThingId.class);
        }

        @Override
        public void serialize(ThingId id, JsonGenerator out, SerializerProvider provider) throws IOException {
            if (id.item().equals(provider.getAttribute(ITEM))) {
                out.writeString(id.key());
            } else {
                out.writeStartArray();
                out.writeString(id.item());
                out.writeString(id.key());
                out.writeEndArray();
            }
        }
    }

    private static final class IdReader extends StdDeserializer<ThingId> {
        private static final long serialVersionUID = 1L;

        IdReader() {
            super(ThingId.class);
        }

        @Override
        public ThingId deserialize(JsonParser in, DeserializationContext context) throws IOException {
            if (in.currentToken() == JsonToken.VALUE_STRING) {
                return new ThingId(String.valueOf(context.getAttribute(ITEM)), in.getText());
            }
            var both = in.readValueAs(String[].class);
            return new ThingId(both[0], both[1]);
        }
    }

    /** Whether the number of its milliseconds says all of it. */
    private static boolean isWhole(Instant instant) {
        return instant.getNano() % MILLI == 0 && Math.abs(instant.getEpochSecond()) < Long.MAX_VALUE / 1_000;
    }

    /** As the number of milliseconds where that is exact: to write and read a time as text takes longer than the rest of a short thing. */
    private static final class InstantWriter extends StdSerializer<Instant> {
        private static final long serialVersionUID = 1L;

        InstantWriter() {
            super(Instant.class);
        }

        @Override
        public void serialize(Instant instant, JsonGenerator out, SerializerProvider provider) throws IOException {
            if (isWhole(instant)) {
                out.writeNumber(instant.toEpochMilli());
            } else {
                out.writeString(instant.toString());
            }
        }
    }

    private static final class InstantReader extends StdDeserializer<Instant> {
        private static final long serialVersionUID = 1L;

        InstantReader() {
            super(Instant.class);
        }

        @Override
        public Instant deserialize(JsonParser in, DeserializationContext context) throws IOException {
            return in.currentToken() == JsonToken.VALUE_NUMBER_INT
                    ? Instant.ofEpochMilli(in.getLongValue())
                    : Timestamps.parse(in.getText());
        }
    }

    private static final class MomentWriter extends StdSerializer<Moment> {
        private static final long serialVersionUID = 1L;

        MomentWriter() {
            super(Moment.class);
        }

        @Override
        public void serialize(Moment moment, JsonGenerator out, SerializerProvider provider) throws IOException {
            if (moment instanceof Moment.At(var instant, var zone) && zone.isEmpty() && isWhole(instant)) {
                out.writeNumber(instant.toEpochMilli()); // what most moments are, and by far the fastest
                return;
            }
            out.writeString(moment.text());
        }
    }

    private static final class MomentReader extends StdDeserializer<Moment> {
        private static final long serialVersionUID = 1L;

        MomentReader() {
            super(Moment.class);
        }

        @Override
        public Moment deserialize(JsonParser in, DeserializationContext context) throws IOException {
            if (in.currentToken() == JsonToken.VALUE_NUMBER_INT) {
                return Moment.at(Instant.ofEpochMilli(in.getLongValue()));
            }
            return Moment.parse(in.getText());
        }
    }
}
