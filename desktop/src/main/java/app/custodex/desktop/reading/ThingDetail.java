package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.calendar.Occurrences;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.catalogue.SentIn;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.files.DocumentText;
import app.custodex.model.Alarm;
import app.custodex.model.Album;
import app.custodex.model.App;
import app.custodex.model.Attachment;
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
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** One thing in full, and where in the layer it was read, so that it can be defended later. */
final class ThingDetail extends VBox {
    private static final int OCCURRENCES = 12;
    private static final int MEMBERS = 200;
    private static final int MOST_SENT = 12;
    /** Of the text of a document; all of it can be read among the files. */
    private static final int MOST_TEXT = 20_000;

    private final Desk desk;
    private final Optional<TrayModel> tray;
    private final Consumer<RoomModel.Talk> openConversation;
    private final UserText title;
    private final VBox body = new VBox(12);
    private final MediaPreview media;
    /** In which conversations a file was sent or came. */
    private final VBox sentIn = new VBox(4);

    private final Button pick = Parts.button("thing-pick", "Put in tray", "T", this::togglePick);
    private Optional<OpenPhone> phone = Optional.empty();
    private Optional<Entry> shown = Optional.empty();

    /**
     * @param tray into which it can be put; empty for none
     * @param openConversation shows all of a conversation
     * @param large shows a picture or video large; empty where there is no such place
     * @param cut shows a recording to cut a tone out of it; empty where there is no such place
     */
    ThingDetail(
            Desk desk,
            Optional<TrayModel> tray,
            Consumer<RoomModel.Talk> openConversation,
            Optional<Consumer<Entry>> large,
            Optional<Consumer<Entry>> cut) {
        this.desk = desk;
        media = new MediaPreview(desk, large, cut);
        this.tray = tray;
        this.openConversation = openConversation;
        title = desk.veil().paragraph("", "heading");
        setId("thing-detail");
        title.setId("thing-title");
        title.setStyle("-fx-padding: 12 16 10 16;");
        body.setStyle("-fx-padding: 12 16 16 16;");
        var scroll = new ScrollPane(body);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        HBox.setHgrow(title, Priority.ALWAYS);
        var head = new HBox(title);
        head.setAlignment(Pos.CENTER_LEFT);
        tray.ifPresent(into -> {
            head.getChildren().add(pick);
            HBox.setMargin(pick, new Insets(0, 12, 0, 0));
            into.picked().addListener((o, was, is) -> showPick());
        });
        getChildren().addAll(head, Parts.rule(), scroll);
        setVisible(false);
    }

    /** Nothing of it is shown yet. */
    void enter(Optional<OpenPhone> newPhone) {
        phone = newPhone;
        show(Optional.empty());
    }

    /** What can be seen and heard of it. */
    MediaPreview media() {
        return media;
    }

    /** The same layer is open in another way; what is shown stays. */
    void goOnWith(OpenPhone newPhone) {
        phone = Optional.of(newPhone);
    }

    void show(Optional<Entry> entry) {
        if (shown.equals(entry) && entry.isPresent()) {
            return; // it was told once more
        }
        shown = entry;
        setVisible(entry.isPresent() && phone.isPresent());
        media.clear();
        body.getChildren().clear();
        if (isVisible()) {
            fill(entry.get());
        }
    }

    private void togglePick() {
        shown.ifPresent(entry -> tray.ifPresent(into -> into.toggle(entry.number())));
    }

    private void showPick() {
        boolean in = shown.filter(
                        entry -> tray.filter(into -> into.has(entry.number())).isPresent())
                .isPresent();
        pick.setText(in ? "Take out" : "Put in tray");
    }

    private void fill(Entry entry) {
        showPick();
        var thing = entry.thing();
        var words = new ThingWords(phone.orElseThrow().names());
        var who = words.who(thing);
        title.setText(
                thing instanceof Message || thing instanceof Call || thing instanceof Voicemail
                        ? who.isEmpty() ? "Unknown" : who
                        : words.what(thing));
        text(thing)
                .filter(text -> !text.isBlank())
                .ifPresent(text -> body.getChildren().add(desk.veil().paragraph(text)));
        body.getChildren().add(media);
        media.show(phone.orElseThrow(), entry);
        var facts = Parts.facts(104);
        thing.moment().ifPresent(moment -> Parts.fact(facts, thing instanceof Note ? "Changed" : "When", when(moment)));
        if (!who.isEmpty() && !(thing instanceof Message)) {
            Parts.fact(facts, "With", desk.veil().paragraph(String.join(", ", words.people(thing))));
        }
        facts(thing, facts, words);
        if (!thing.account().isEmpty()) {
            Parts.fact(facts, "Account, app", desk.veil().paragraph(thing.account()));
        }
        for (var attachment : thing.attachments()) {
            Parts.fact(facts, "Attachment", desk.veil().paragraph(attachment(attachment)));
        }
        body.getChildren().add(facts);
        members(thing);
        thing.within()
                .ifPresent(of -> body.getChildren()
                        .add(Parts.button(
                                "thing-conversation", "Show the conversation", "", () -> conversationOf(entry))));
        if (thing instanceof MediaFile) {
            body.getChildren().add(sentIn);
            lookWhereSent(entry);
        }
        if (thing instanceof Conversation conversation) {
            body.getChildren()
                    .add(Parts.button(
                            "thing-conversation",
                            "Show the conversation",
                            "",
                            () -> openConversation.accept(new RoomModel.Talk(conversation, Optional.empty()))));
        }
        source(entry);
    }

    /** A file that was sent or came leads to the message. */
    private void lookWhereSent(Entry entry) {
        sentIn.getChildren().clear();
        var in = phone.orElseThrow();
        desk.work()
                .start("Conversations", () -> in.sentIn().of(entry.thing().id().item()), found -> {
                    if (shown.equals(Optional.of(entry))) {
                        found.stream().limit(MOST_SENT).forEach(this::offer);
                    }
                });
    }

    private void offer(SentIn.Sent sent) {
        var button = Parts.button(
                "thing-sent-in",
                "Show the message",
                "",
                () -> openConversation.accept(
                        new RoomModel.Talk(sent.conversation(), Optional.of((long) sent.message()))),
                "row-button");
        button.setMinWidth(USE_PREF_SIZE);
        var name = desk.veil().line("In a conversation with " + sent.title(), "lesser");
        HBox.setHgrow(name, Priority.ALWAYS);
        sentIn.getChildren().add(Parts.row(name, button));
    }

    private static Optional<String> text(Thing thing) {
        return switch (thing) {
            case Message message -> Optional.of(message.text());
            case Mail mail -> Optional.of(mail.text());
            case Note note -> Optional.of(note.text());
            case Event event -> Optional.of(event.description());
            case Task task -> Optional.of(task.description());
            case MediaFile file -> Optional.of(DocumentText.beginning(file.text(), MOST_TEXT));
            default -> Optional.empty();
        };
    }

    private void facts(Thing thing, GridPane facts, ThingWords words) {
        switch (thing) {
            case Message message -> message(message, facts, words);
            case Contact contact -> contact(contact, facts);
            case Call call -> Parts.fact(facts, "Call", words.what(call));
            case Voicemail voicemail -> {
                Parts.fact(facts, "Length", ThingWords.length(voicemail.length()));
                Parts.fact(facts, "Heard", voicemail.heard() ? "yes" : "not yet");
            }
            case Event event -> event(event, facts);
            case Task task -> {
                text(facts, "List", task.calendar());
                task.done().ifPresent(done -> Parts.fact(facts, "Done", when(done)));
            }
            case Note note -> {
                text(facts, "Folder", note.folder());
                note.made().ifPresent(made -> Parts.fact(facts, "Made", when(made)));
            }
            case Bookmark bookmark -> {
                text(facts, "Address", bookmark.address());
                text(facts, "Folder", bookmark.folder());
                text(facts, "Kept", bookmark.later() ? "for reading later" : "");
            }
            case PageVisit visit -> text(facts, "Address", visit.address());
            case Mail mail ->
                text(
                        facts,
                        "From",
                        mail.sender()
                                .map(party -> words.names().of(party, mail))
                                .orElse(""));
            case MediaFile file -> file(file, facts);
            case App app -> {
                text(facts, "Version", app.version());
                text(facts, "Identifier", app.identifier());
                Parts.fact(
                        facts,
                        "Size",
                        app.bytes() == 0 ? "not known" : desk.words().bytes(app.bytes()));
                Parts.fact(facts, "Its data", app.data().label());
            }
            case Alarm alarm -> {
                Parts.fact(facts, "Rings", alarm.time() + (alarm.days().isEmpty() ? ", once" : days(alarm)));
                Parts.fact(facts, "Switched on", alarm.active() ? "yes" : "no");
                text(facts, "Sound", alarm.sound());
            }
            case Conversation conversation -> {
                text(facts, "Service", conversation.service());
                Parts.fact(facts, "Group", conversation.group() ? "yes" : "no");
            }
            case Album album -> Parts.fact(facts, "For", album.use().label());
            default -> {}
        }
    }

    /** How somebody is reached; all of it stands among the contacts. */
    private void contact(Contact contact, GridPane facts) {
        contact.phones().forEach(phone -> text(facts, "Telephone", phone.written()));
        contact.mails().forEach(mail -> text(facts, "Mail", mail.value()));
        contact.chats().forEach(chat -> text(facts, "Chat", chat.value()));
        contact.notes().forEach(note -> text(facts, "Note", note));
    }

    private static String days(Alarm alarm) {
        return alarm.days().stream()
                .map(day -> day.name().charAt(0) + day.name().substring(1, 3).toLowerCase(Locale.ROOT))
                .collect(Collectors.joining(", ", " on ", ""));
    }

    private void message(Message message, GridPane facts, ThingWords words) {
        text(facts, "Service", message.service());
        if (message.sent()) {
            Parts.fact(facts, "State", message.state().name().toLowerCase(Locale.ROOT));
        }
        message.edited().ifPresent(at -> Parts.fact(facts, "Edited", when(at)));
        if (message.deleted()) {
            Parts.fact(facts, "Taken back", "yes");
        }
        for (var reaction : message.reactions()) {
            var by = reaction.who()
                    .map(party -> words.names().of(party, message))
                    .orElse("the owner");
            Parts.fact(facts, "Reaction", desk.veil().paragraph(reaction.sign() + "  " + by));
        }
        var catalogue = phone.orElseThrow().catalogue();
        message.replyTo()
                .ifPresent(to -> desk.work()
                        .start(
                                "Reply",
                                () -> catalogue.find(to),
                                found -> found.filter(any -> shown.filter(
                                                        now -> now.thing().equals(message))
                                                .isPresent())
                                        .ifPresent(answered -> Parts.fact(
                                                facts,
                                                "Answers",
                                                desk.veil().paragraph(words.what(answered.thing()), "lesser")))));
    }

    private void event(Event event, GridPane facts) {
        text(facts, "Calendar", event.calendar());
        text(facts, "Place", event.place());
        event.ends().ifPresent(ends -> Parts.fact(facts, "Ends", when(ends)));
        if (Occurrences.severalOf(event)) {
            desk.work().start("Occurrences", () -> occurrences(event), times -> {
                if (shown.filter(now -> now.thing().equals(event)).isPresent()) {
                    Parts.fact(facts, "Takes place", times);
                }
            });
        }
    }

    private String occurrences(Event event) throws IOException {
        var in = phone.orElseThrow();
        var others = new ArrayList<Event>();
        in.catalogue()
                .forEach(
                        in.catalogue().find(Filter.EVERYTHING.of(ThingKind.EVENT), Order.AS_KEPT),
                        each -> others.add((Event) each.thing()));
        var times = new Occurrences(event, in.phone().timeZone())
                .between(Instant.EPOCH, Instant.MAX, OCCURRENCES + 1, others);
        return times.stream().limit(OCCURRENCES).map(this::when).collect(Collectors.joining("\n"))
                + (times.size() > OCCURRENCES ? "\n…" : "");
    }

    private void file(MediaFile file, GridPane facts) {
        if (file.bytes() > 0) {
            Parts.fact(facts, "File", desk.words().bytes(file.bytes()));
        }
        file.length().ifPresent(length -> Parts.fact(facts, "Length", ThingWords.length(length)));
        file.place().ifPresent(place -> text(facts, "Place", ThingWords.place(place)));
        file.facts().forEach(fact -> text(facts, fact.name(), fact.value()));
    }

    private void text(GridPane facts, String name, String value) {
        if (!value.isBlank()) {
            Parts.fact(facts, name, desk.veil().paragraph(value));
        }
    }

    /** What belongs to an album or a playlist. */
    private void members(Thing thing) {
        List<Attachment> members = switch (thing) {
            case Album album -> album.pictures();
            case Playlist playlist -> playlist.tracks();
            default -> List.of();
        };
        members.stream()
                .limit(MEMBERS)
                .forEach(member -> body.getChildren().add(desk.veil().line(attachment(member), "lesser")));
        if (members.size() > MEMBERS) {
            body.getChildren()
                    .add(Parts.text("and " + desk.words().count(members.size() - (long) MEMBERS) + " more", "lesser"));
        }
    }

    private static String attachment(Attachment attachment) {
        return attachment.title() + (attachment.there() ? "" : " (not on the phone any more)");
    }

    private String when(Moment moment) {
        var format = DateTimeFormatter.ofLocalizedDateTime(FormatStyle.FULL, FormatStyle.SHORT)
                .localizedBy(desk.words().locale());
        return switch (moment) {
            case Moment.At(Instant instant, Optional<ZoneId> zone) -> {
                var in = zone.orElse(phone.orElseThrow().phone().timeZone());
                yield format.format(instant.atZone(in)) + " (" + desk.words().zone(in, instant) + ")";
            }
            case Moment.Floating floating -> format.format(floating.local()) + ", by the clock on the wall";
            case Moment.Day day ->
                DateTimeFormatter.ofLocalizedDate(FormatStyle.FULL)
                        .localizedBy(desk.words().locale())
                        .format(day.date());
        };
    }

    /** Of a message, what it is part of. */
    private void conversationOf(Entry entry) {
        var in = phone.orElseThrow();
        entry.thing()
                .within()
                .ifPresent(
                        id -> desk.work()
                                .start(
                                        "Conversation",
                                        () -> in.catalogue().find(id),
                                        found -> found.map(Entry::thing)
                                                .filter(Conversation.class::isInstance)
                                                .map(Conversation.class::cast)
                                                .ifPresentOrElse(
                                                        of -> openConversation.accept(
                                                                new RoomModel.Talk(of, Optional.of(entry.number()))),
                                                        () -> desk.work()
                                                                .tell(
                                                                        Problem.note(
                                                                                "Conversation",
                                                                                "The conversation of this message is not in the layer",
                                                                                "Look for its other messages by its words or people")))));
    }

    private void source(Entry entry) {
        var source = Parts.facts(104);
        source.setStyle("-fx-padding: 8 0 0 0;");
        Parts.fact(source, "Read from", desk.veil().paragraph(entry.thing().id().item(), "lesser", "mono"));
        if (!entry.thing().id().key().isEmpty()) {
            Parts.fact(
                    source,
                    "Row or part",
                    desk.veil().paragraph(entry.thing().id().key(), "lesser", "mono"));
        }
        Parts.fact(
                source,
                "Layer",
                phone.flatMap(OpenPhone::layer)
                        .map(layer -> String.valueOf(layer.number()))
                        .orElse("none, read from the phone itself"),
                "lesser");
        body.getChildren().addAll(Parts.rule(), source);
    }
}
