package app.custodex.cli;

import app.custodex.catalogue.Catalogue;
import app.custodex.model.Alarm;
import app.custodex.model.Album;
import app.custodex.model.App;
import app.custodex.model.Call;
import app.custodex.model.Contact;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Playlist;
import app.custodex.model.Thing;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.stream.Collectors;

/** A thing on one line: its kind, when, who, and what, between tabs, and the id by which it is shown. */
final class ThingLine {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT);

    private ThingLine() {}

    static String of(Thing thing, ZoneId phone, Catalogue.Names names) {
        return String.join(
                "\t",
                thing.kind().code(),
                thing.moment().map(moment -> time(moment, phone)).orElse(""),
                who(thing, names),
                Output.oneLine(what(thing)),
                Output.oneLine(thing.id().text()));
    }

    /** By the phone's clock. */
    static String time(Moment moment, ZoneId phone) {
        return switch (moment) {
            case Moment.At at -> TIME.format(at.instant().atZone(at.zone().orElse(phone)));
            case Moment.Floating floating -> TIME.format(floating.local());
            case Moment.Day day -> day.date().toString();
        };
    }

    private static String who(Thing thing, Catalogue.Names names) {
        if (thing instanceof Message message && message.sent()) {
            return "(owner)";
        }
        return Output.oneLine(
                thing.people().stream().map(party -> names.of(party, thing)).collect(Collectors.joining(", ")));
    }

    private static String what(Thing thing) {
        return switch (thing) {
            case Contact contact ->
                contact.title()
                        + contact.phones().stream()
                                .map(phone -> " " + (phone.e164().isEmpty() ? phone.written() : phone.e164()))
                                .collect(Collectors.joining());
            case Call call ->
                word(call.outcome()) + ", " + word(call.medium()) + ", "
                        + call.length().toSeconds() + " s";
            case Conversation conversation -> conversation.name();
            case Event event -> event.title() + (event.place().isEmpty() ? "" : ", " + event.place());
            case MediaFile media ->
                media.title() + ", " + (media.bytes() > 0 ? media.bytes() + " bytes" : "in the cloud only");
            case Album album -> album.title() + ", " + album.pictures().size() + " in it";
            case Playlist playlist ->
                playlist.title() + ", " + playlist.tracks().size() + " in it";
            case Alarm alarm ->
                alarm.title() + ", " + alarm.time() + " "
                        + (alarm.days().isEmpty()
                                ? "once"
                                : alarm.days().stream().map(ThingLine::word).collect(Collectors.joining(" ")))
                        + (alarm.active() ? "" : ", off");
            case App app ->
                app.title() + " " + app.version() + ", " + app.bytes() + " bytes, "
                        + app.data().label();
            default -> thing.title();
        };
    }

    private static String word(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }
}
