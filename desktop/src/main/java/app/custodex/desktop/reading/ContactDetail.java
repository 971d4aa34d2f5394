package app.custodex.desktop.reading;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Labelled;
import java.io.ByteArrayInputStream;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** One contact in full. */
final class ContactDetail extends VBox {
    private static final double PHOTO = 84;

    private final Desk desk;
    private final ReadingModel model;
    private final UserText title;
    private final UserText subtitle;
    private final ImageView photo = new ImageView();
    private final StackPane frame = new StackPane(photo);
    private final Button pick;
    private final ScrollPane scroll = new ScrollPane();
    private Optional<Contact> contact = Optional.empty();

    ContactDetail(Desk desk, ReadingModel model) {
        this.desk = desk;
        this.model = model;
        title = desk.veil().paragraph("", "title");
        subtitle = desk.veil().paragraph("", "lesser");
        desk.veil().picture(photo);
        setId("contact-detail");
        title.setId("contact-title");
        pick = Parts.button("contact-pick", "Put in tray", "T", this::togglePick);
        photo.setFitWidth(PHOTO);
        photo.setFitHeight(PHOTO);
        photo.setPreserveRatio(true);
        photo.setId("contact-photo");
        frame.getStyleClass().add("portrait-none");
        frame.setMinSize(PHOTO, PHOTO);
        frame.setMaxSize(PHOTO, PHOTO);
        var names = new VBox(4, title, subtitle);
        names.setMinWidth(0);
        names.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(names, Priority.ALWAYS);
        var head = new HBox(14, frame, names, pick);
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 14 18 12 18;");
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(head, Parts.rule(), scroll);
        setVisible(false);
    }

    void show(Optional<Contact> newContact) {
        contact = newContact;
        setVisible(contact.isPresent());
        contact.ifPresent(this::fill);
        refreshPick();
    }

    private void togglePick() {
        contact.ifPresent(c -> model.pick(c, !model.isPicked(c)));
    }

    void refreshPick() {
        contact.ifPresent(c -> pick.setText(model.isPicked(c) ? "Take out of tray" : "Put in tray"));
    }

    private void fill(Contact c) {
        title.setText(c.title());
        var work = c.organisation();
        subtitle.setText(String.join(
                " · ",
                Stream.of(
                                (c.name().phoneticGiven() + " " + c.name().phoneticFamily()).strip(),
                                work.title(),
                                work.role(),
                                work.department(),
                                work.name())
                        .filter(s -> !s.isBlank())
                        .toList()));
        photo.setImage(null);
        frame.setVisible(c.hasPhoto());
        frame.setManaged(c.hasPhoto());
        if (c.hasPhoto()) {
            loadPhoto(c);
        }
        var facts = Parts.facts(128);
        facts.setStyle("-fx-padding: 14 18 18 18;");
        c.nicknames().forEach(n -> Parts.fact(facts, "Nickname", desk.veil().paragraph(n)));
        for (var phone : c.phones()) {
            fact(facts, "Telephone", phone.label(), phone.written());
            if (!phone.e164().isEmpty() && !phone.e164().equals(phone.written())) {
                Parts.fact(facts, "", desk.veil().paragraph(phone.e164(), "lesser", "mono"));
            }
        }
        c.mails().forEach(m -> fact(facts, "Mail", m));
        c.chats().forEach(m -> fact(facts, "Chat", m));
        c.webs().forEach(m -> fact(facts, "Web", m));
        c.addresses().forEach(a -> fact(facts, "Address", a.label(), String.join("\n", a.lines())));
        c.birthday().ifPresent(day -> Parts.fact(facts, "Birthday", desk.veil().paragraph(day.iso())));
        c.anniversary()
                .ifPresent(day -> Parts.fact(facts, "Anniversary", desk.veil().paragraph(day.iso())));
        c.related().forEach(r -> fact(facts, "Related", r));
        if (!c.groups().isEmpty()) {
            Parts.fact(facts, "Groups", desk.veil().paragraph(String.join(", ", c.groups())));
        }
        c.notes().forEach(n -> Parts.fact(facts, "Note", desk.veil().paragraph(n)));
        c.extras().forEach(e -> Parts.fact(facts, e.name(), desk.veil().paragraph(e.value())));
        c.changed().ifPresent(at -> Parts.fact(facts, "Changed", desk.words().moment(at, desk.now()), "lesser"));
        scroll.setContent(facts);
        scroll.setVvalue(0);
    }

    private void fact(GridPane facts, String name, Labelled labelled) {
        fact(facts, name, labelled.label(), labelled.value());
    }

    private void fact(GridPane facts, String name, String label, String value) {
        var words = new VBox(desk.veil().paragraph(value));
        if (!label.isEmpty() && !label.toLowerCase(Locale.ROOT).equals(name.toLowerCase(Locale.ROOT))) {
            words.getChildren().add(desk.veil().paragraph(label, "lesser"));
        }
        Parts.fact(facts, name, words);
    }

    private void loadPhoto(Contact c) {
        var layer = model.layer().get();
        if (layer.isEmpty()) {
            return;
        }
        desk.work()
                .start(
                        "A contact's photo",
                        () -> layer.get()
                                .photo(c)
                                .map(bytes ->
                                        new Image(new ByteArrayInputStream(bytes), PHOTO * 2, PHOTO * 2, true, true)),
                        image -> {
                            if (contact.filter(shown -> shown.id().equals(c.id()))
                                    .isPresent()) {
                                image.filter(i -> !i.isError()).ifPresent(photo::setImage);
                            }
                        });
    }
}
