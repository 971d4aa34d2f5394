package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Names;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.PageVisit;
import app.custodex.model.Task;
import app.custodex.model.Thing;
import app.custodex.model.Voicemail;
import app.custodex.search.Marks.Mark;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;

/** What is said of a thing on one line. */
record ThingWords(Names names) {
    /** Of more, only one is named. */
    private static final int NAMED = 2;

    /** Who it is from or with; empty for what has nobody in it. */
    String who(Thing thing) {
        if (thing.outgoing().orElse(false) && thing instanceof Message) {
            return "Sent";
        }
        var people = people(thing);
        return people.size() > NAMED
                ? people.getFirst() + " and " + (people.size() - 1) + " more"
                : String.join(" and ", people);
    }

    /** Writes both; what tells nothing private can be seen whether or not the curtain is down. */
    void show(Thing thing, UserText who, UserText what) {
        show(thing, who, what, what(thing), text -> List.of());
    }

    /**
     * The same, with words that are marked.
     *
     * @param found what is to be shown of a thing that says something private
     */
    void show(Thing thing, UserText who, UserText what, String found, Function<String, List<Mark>> marks) {
        if (thing instanceof Message && thing.outgoing().orElse(false)) {
            who.setOpenText("Sent");
        } else {
            who.setText(who(thing), marks.apply(who(thing)));
        }
        if (thing instanceof Call || thing instanceof Voicemail) {
            what.setOpenText(what(thing));
        } else {
            what.setText(found, marks.apply(found));
        }
    }

    /** Everybody in it, each once. */
    List<String> people(Thing thing) {
        return thing.people().stream()
                .map(party -> names.of(party, thing))
                .distinct()
                .toList();
    }

    /** What it says, or what it is. */
    String what(Thing thing) {
        return switch (thing) {
            case Message message -> message(message);
            case Call call -> call(call);
            case Voicemail voicemail ->
                "Voicemail" + (voicemail.length().isZero() ? "" : ", " + length(voicemail.length()));
            case Event event -> event.place().isBlank() ? event.title() : event.title() + ", " + event.place();
            case Task task -> task.title() + (task.done().isPresent() ? ", done" : "");
            case PageVisit visit -> visit.title() + ", " + visit.address();
            case Conversation conversation -> names.title(conversation);
            default -> thing.title();
        };
    }

    private static String message(Message message) {
        var text = message.text().isBlank() ? message.title() : message.text();
        return !message.deleted() ? text : message.text().isBlank() ? "Taken back" : "Taken back: " + text;
    }

    private static String call(Call call) {
        var outcome = call.outcome().name().toLowerCase(Locale.ROOT);
        var medium = switch (call.medium()) {
            case VOICE -> "Call";
            case VIDEO -> "Video call";
            case APP -> "App call";
        };
        return medium + ", " + outcome + (call.length().isZero() ? "" : ", " + length(call.length()));
    }

    /** Degrees, with the letter of the half of the globe. */
    static String place(MediaFile.Place place) {
        return String.format(
                Locale.ROOT,
                "%.5f° %s, %.5f° %s",
                Math.abs(place.latitude()),
                place.latitude() < 0 ? "S" : "N",
                Math.abs(place.longitude()),
                place.longitude() < 0 ? "W" : "E");
    }

    /** "0:38", "1:02:14". */
    static String length(Duration length) {
        long seconds = length.toSeconds();
        var minutesAndSeconds = (seconds / 60 % 60) + ":" + (seconds % 60 < 10 ? "0" : "") + seconds % 60;
        return seconds < 3600
                ? minutesAndSeconds
                : seconds / 3600 + ":" + (seconds / 60 % 60 < 10 ? "0" : "") + minutesAndSeconds;
    }
}
