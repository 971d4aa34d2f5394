package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.ZoneText;
import app.custodex.model.Alarm;
import app.custodex.model.Album;
import app.custodex.model.App;
import app.custodex.model.Attachment;
import app.custodex.model.Bookmark;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.KindGroup;
import app.custodex.model.Mail;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.PageVisit;
import app.custodex.model.Party;
import app.custodex.model.Playlist;
import app.custodex.model.Task;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.Voicemail;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Which columns a table of things has: as many as that group of things needs, and at the end where each was read from. */
final class Columns {
    private final Batch batch;
    private final ZoneId zone;
    private final List<Column> columns = new ArrayList<>();
    private final Map<ThingId, String> conversations = new HashMap<>();

    private Columns(Batch batch) {
        this.batch = batch;
        zone = batch.material().zone();
    }

    static List<Column> of(Batch batch) {
        return of(batch, Chosen.USUAL);
    }

    /** @param chosen may say which columns are wanted */
    static List<Column> of(Batch batch, Chosen chosen) {
        var made = new Columns(batch);
        made.fill(chosen);
        return List.copyOf(made.columns);
    }

    private void fill(Chosen chosen) {
        switch (batch.group()) {
            case CONTACTS -> columns.addAll(ContactColumns.of(batch, chosen));
            case MESSAGES, CONVERSATIONS -> messages();
            case CALLS -> calls();
            case VOICEMAIL -> voicemail();
            case PICTURES -> pictures();
            case MUSIC -> sound();
            case EVENTS -> events();
            case NOTES -> notes();
            case WEB -> web();
            case BOOKS -> books();
            case APPS -> apps();
            case OTHER -> others();
        }
        if (batch.group() != KindGroup.CONTACTS) { // their tables are read again by address books
            text("Account", Thing::account);
            text("Source", thing -> thing.id().text());
        }
    }

    private void text(String title, Function<Thing, String> value) {
        columns.add(Column.text(title, value));
    }

    private void cell(String title, Function<Thing, Cell> value) {
        columns.add(new Column(title, value));
    }

    /** A time with its distance from UTC, for the hour that comes twice in autumn. */
    private void when(String title, Function<Thing, Optional<Moment>> moment) {
        cell(
                title + " (" + ZoneText.of(zone) + ")",
                thing -> moment.apply(thing).<Cell>map(this::when).orElse(Cell.EMPTY));
        text(
                title + " (offset)",
                thing -> moment.apply(thing)
                        .map(at -> at instanceof Moment.At
                                ? ZoneText.of(zone.getRules().getOffset(at.instant(zone)))
                                : "")
                        .orElse(""));
    }

    private Cell when(Moment moment) {
        return moment instanceof Moment.Day day
                ? new Cell.Text(day.date().toString())
                : new Cell.When(LocalDateTime.ofInstant(moment.instant(zone), zone));
    }

    private void length(Function<Thing, Duration> length) {
        cell("Length", thing -> {
            var duration = length.apply(thing);
            return duration.isZero() ? Cell.EMPTY : new Cell.Length(duration);
        });
    }

    private void kind() {
        text("Kind", thing -> singular(thing.kind().code()));
    }

    static String singular(String code) {
        return code.substring(0, 1).toUpperCase(Locale.ROOT) + code.substring(1);
    }

    private String name(Optional<Party> party, Thing in) {
        return party.map(known -> batch.material().names().of(known, in)).orElse("");
    }

    private String names(List<Party> people, Thing in) {
        return people.stream()
                .map(party -> batch.material().names().of(party, in))
                .collect(Collectors.joining(", "));
    }

    private static String addresses(List<Party> people) {
        return people.stream()
                .map(Party::reach)
                .filter(address -> !address.isBlank())
                .collect(Collectors.joining(", "));
    }

    private static String files(List<Attachment> files) {
        return files.stream().map(Attachment::title).collect(Collectors.joining("\n"));
    }

    static String word(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private String conversation(Message message) {
        return conversations.computeIfAbsent(message.conversation(), id -> {
            try {
                return batch.material()
                        .catalogue()
                        .find(id)
                        .filter(found -> found.thing() instanceof Conversation)
                        .map(found -> batch.material().names().title((Conversation) found.thing()))
                        .orElse("");
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    private void messages() {
        when("Time", Thing::moment);
        text("Conversation", thing -> thing instanceof Message message ? conversation(message) : thing.title());
        text(
                "Direction",
                thing -> thing.outgoing().map(out -> out ? "sent" : "received").orElse(""));
        text("From", thing -> switch (thing) {
            case Message message -> message.sent() ? "(owner of the phone)" : name(message.sender(), thing);
            case Mail mail -> name(mail.sender(), thing);
            default -> "";
        });
        text("From address", thing -> switch (thing) {
            case Message message -> addresses(message.sender().stream().toList());
            case Mail mail -> addresses(mail.sender().stream().toList());
            default -> "";
        });
        text("To", thing -> thing instanceof Mail mail ? names(mail.receivers(), thing) : "");
        text("Text", thing -> switch (thing) {
            case Message message -> message.text();
            case Mail mail -> mail.text();
            default -> "";
        });
        text("Attachments", thing -> {
            thing.attachments().forEach(any -> batch.leftOut("attachments, which are named only"));
            return files(thing.attachments());
        });
        text("Service", thing -> thing instanceof Message message ? message.service() : "");
        text(
                "State",
                thing -> thing instanceof Message message && message.state() != Message.State.UNKNOWN
                        ? word(message.state())
                        : "");
        text(
                "Changed",
                thing -> thing instanceof Message message
                        ? message.edited().map(at -> when(at).text()).orElse("")
                        : "");
        text("Taken back", thing -> thing instanceof Message message && message.deleted() ? "yes" : "");
        text(
                "Reactions",
                thing -> thing instanceof Message message
                        ? message.reactions().stream()
                                .map(reaction -> reaction.sign() + " "
                                        + (reaction.who().isEmpty()
                                                ? "(owner of the phone)"
                                                : name(reaction.who(), thing)))
                                .collect(Collectors.joining(", "))
                        : "");
        text(
                "Answers",
                thing -> thing instanceof Message message
                        ? message.replyTo().map(ThingId::text).orElse("")
                        : "");
    }

    private void calls() {
        when("Time", Thing::moment);
        text("With", thing -> names(thing.people(), thing));
        text("Number", thing -> addresses(thing.people()));
        text("Call", thing -> thing instanceof Call call ? word(call.outcome()) : "");
        text("By", thing -> thing instanceof Call call ? word(call.medium()) : "");
        length(thing -> thing instanceof Call call ? call.length() : Duration.ZERO);
    }

    private void voicemail() {
        when("Time", Thing::moment);
        text("From", thing -> names(thing.people(), thing));
        text("Number", thing -> addresses(thing.people()));
        length(thing -> thing instanceof Voicemail mail ? mail.length() : Duration.ZERO);
        text("Heard", thing -> thing instanceof Voicemail mail && mail.heard() ? "yes" : "");
        text("Recording", thing -> files(thing.attachments()));
    }

    private void file() {
        cell("Bytes", thing -> new Cell.Number(thing.bytes()));
        text("File", thing -> thing.id().item());
    }

    private void facts(String... names) {
        for (var name : names) {
            text(
                    name,
                    thing -> thing instanceof MediaFile file ? file.fact(name).orElse("") : "");
        }
    }

    private void coordinate(String title, Function<MediaFile.Place, Double> value) {
        cell(
                title,
                thing -> thing instanceof MediaFile file
                        ? file.place()
                                .<Cell>map(place -> new Cell.Fraction(value.apply(place)))
                                .orElse(Cell.EMPTY)
                        : Cell.EMPTY);
    }

    private void pictures() {
        when("Time", Thing::moment);
        kind();
        text("Name", Thing::title);
        coordinate("Latitude", MediaFile.Place::latitude);
        coordinate("Longitude", MediaFile.Place::longitude);
        length(Columns::length);
        facts("Camera", "Width", "Height");
        text(
                "Sent in",
                thing -> batch.material().sentIn().of(thing.id().item()).stream()
                        .map(sent -> sent.title())
                        .distinct()
                        .collect(Collectors.joining(", ")));
        file();
    }

    private static Duration length(Thing thing) {
        return thing instanceof MediaFile file ? file.length().orElse(Duration.ZERO) : Duration.ZERO;
    }

    private void sound() {
        kind();
        text("Title", Thing::title);
        facts("Artist", "Album", "Genre", "Track", "Year");
        length(Columns::length);
        when("Time", Thing::moment);
        file();
    }

    private void events() {
        kind();
        when("Begins or due", Thing::moment);
        when("Ends", thing -> thing instanceof Event event ? event.ends() : Optional.empty());
        text("Title", Thing::title);
        text("Place", thing -> thing instanceof Event event ? event.place() : "");
        text("Calendar", thing -> switch (thing) {
            case Event event -> event.calendar();
            case Task task -> task.calendar();
            default -> "";
        });
        text("Description", thing -> switch (thing) {
            case Event event -> event.description();
            case Task task -> task.description();
            default -> "";
        });
        text("Comes again (RFC 5545)", thing -> thing instanceof Event event ? event.rule() : "");
        text("With", thing -> names(thing.people(), thing));
        text(
                "Alarms before",
                thing -> thing instanceof Event event
                        ? event.alarms().stream()
                                .map(alarm -> new Cell.Length(alarm).text())
                                .collect(Collectors.joining(", "))
                        : "");
        when("Done", thing -> thing instanceof Task task ? task.done() : Optional.empty());
    }

    private void notes() {
        when("Changed", Thing::moment);
        when("Made", thing -> thing instanceof Note note ? note.made() : Optional.empty());
        text("Folder", thing -> thing instanceof Note note ? note.folder() : "");
        text("Title", Thing::title);
        text("Text", thing -> thing instanceof Note note ? note.text() : "");
        text("Attachments", thing -> {
            thing.attachments().forEach(any -> batch.leftOut("attachments, which are named only"));
            return files(thing.attachments());
        });
    }

    private void web() {
        kind();
        when("Time", Thing::moment);
        text("Title", Thing::title);
        text("Address", thing -> switch (thing) {
            case Bookmark bookmark -> bookmark.address();
            case PageVisit visit -> visit.address();
            default -> "";
        });
        text("Folder", thing -> thing instanceof Bookmark bookmark ? bookmark.folder() : "");
        text("For later", thing -> thing instanceof Bookmark bookmark && bookmark.later() ? "yes" : "");
    }

    private void books() {
        text("Title", Thing::title);
        facts("Author");
        when("Time", Thing::moment);
        file();
    }

    private void apps() {
        kind();
        text("Name", Thing::title);
        text("Identifier", thing -> thing instanceof App app ? app.identifier() : "");
        text("Version", thing -> thing instanceof App app ? app.version() : "");
        cell("Bytes", thing -> thing instanceof App app && app.bytes() > 0 ? new Cell.Number(app.bytes()) : Cell.EMPTY);
        when("Installed", Thing::moment);
        text("Its data", thing -> thing instanceof App app ? app.data().label() : "");
        text("Rings at", thing -> thing instanceof Alarm alarm ? alarm.time().toString() : "");
        text(
                "Rings on",
                thing -> thing instanceof Alarm alarm
                        ? alarm.days().stream().map(Columns::word).collect(Collectors.joining(", "))
                        : "");
        text("Switched on", thing -> thing instanceof Alarm alarm && alarm.active() ? "yes" : "");
    }

    private void others() {
        kind();
        text("Name", Thing::title);
        when("Time", Thing::moment);
        text("Holds", thing -> switch (thing) {
            case Album album -> files(album.pictures());
            case Playlist playlist -> files(playlist.tracks());
            default -> "";
        });
        cell("Bytes", thing -> thing.bytes() > 0 ? new Cell.Number(thing.bytes()) : Cell.EMPTY);
    }

    /** The row of a thing. */
    static List<Cell> row(List<Column> columns, Thing thing) {
        return columns.stream().map(column -> column.cell().apply(thing)).toList();
    }

    /** The headings. */
    static Stream<String> titles(List<Column> columns) {
        return columns.stream().map(Column::title);
    }
}
