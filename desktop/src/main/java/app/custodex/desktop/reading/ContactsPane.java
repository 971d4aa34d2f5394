package app.custodex.desktop.reading;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.reading.ReadingModel.Lens;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.link.Kind;
import app.custodex.model.Contact;
import app.custodex.search.ContactIndex;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.collections.FXCollections;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The contacts of a layer: groups, the list by name, and one contact in full or how those in the tray are taken out. */
final class ContactsPane extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");

    private static final double LETTER_HEIGHT = 20;

    private final Desk desk;
    private final ReadingModel model;
    private final VBox lenses = new VBox();
    private final TextField find = new TextField();
    private final Button order;
    private final Label count = Parts.text("", "lesser");
    private final ListView<Contact> list = new ListView<>();
    private final VBox letters = new VBox();
    private final StackPane right = new StackPane();
    private final ContactDetail detail;

    ContactsPane(Desk desk, ReadingModel model) {
        this.desk = desk;
        this.model = model;
        detail = new ContactDetail(desk, model);
        order = Parts.button("contacts-order", "A to Z", "", this::turnOrder);
        fill();
        model.layer().addListener((o, was, is) -> showLayer());
        model.contacts().addListener((o, was, is) -> {
            showLenses();
            // Nothing was shown before a layer without contacts, so no change of the list tells of it.
            if (model.hasNoContacts()) {
                showList(List.of());
            }
        });
        model.shown().addListener((o, was, is) -> showList(is));
        model.lens().addListener((o, was, is) -> showLenses());
        model.tray().picked().addListener((o, was, is) -> showPicked());
    }

    private void fill() {
        lenses.getStyleClass().add("split-left");
        lenses.setMinWidth(186);
        lenses.setMaxWidth(186);
        lenses.setStyle("-fx-padding: 10 0 10 0;");
        var lensScroll = new ScrollPane(lenses);
        lensScroll.setFitToWidth(true);
        lensScroll.setFitToHeight(true);
        lensScroll.setMinWidth(188);
        lensScroll.setMaxWidth(188);
        lensScroll.setFocusTraversable(false);

        find.setId("contacts-find");
        find.setPromptText("Find by name, number or anything else…");
        find.textProperty().addListener((o, was, is) -> model.type(is));
        HBox.setHgrow(find, Priority.ALWAYS);
        find.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.DOWN) {
                list.requestFocus();
                list.getSelectionModel().selectFirst();
            }
        });
        var search = new HBox(8, find, Parts.key("Ctrl+F"), order);
        search.setAlignment(Pos.CENTER_LEFT);
        search.setStyle("-fx-padding: 8 10 6 10;");
        count.setId("contacts-count");
        count.setStyle("-fx-padding: 0 10 6 12;");

        list.setId("contacts");
        list.setFixedCellSize(46);
        list.setCellFactory(view -> new ContactCell(model, desk.veil()));
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> showDetail(is));
        list.setOnKeyPressed(event -> {
            var chosen = list.getSelectionModel().getSelectedItem();
            if ((event.getCode() == KeyCode.T || event.getCode() == KeyCode.SPACE)
                    && chosen != null
                    && !event.isShortcutDown()) {
                model.pick(chosen, !model.isPicked(chosen));
                event.consume();
            }
        });
        HBox.setHgrow(list, Priority.ALWAYS);
        letters.setAlignment(Pos.TOP_CENTER);
        letters.setMinSize(24, 0);
        letters.setMaxWidth(24);
        letters.managedProperty().bind(Bindings.isNotEmpty(letters.getChildren()));
        var listRow = new HBox(list, letters);
        VBox.setVgrow(listRow, Priority.ALWAYS);
        var middle = new VBox(search, count, listRow);
        middle.getStyleClass().add("split-left");
        middle.setMinWidth(400);
        middle.setMaxWidth(400);

        right.getChildren().setAll(detail);
        right.setMinWidth(0);
        HBox.setHgrow(right, Priority.ALWAYS);
        getChildren().setAll(lensScroll, middle, right);
        getStyleClass().add("pane-border");
    }

    /** One that has grown is the same layer, in which one goes on. */
    private void showLayer() {
        if (model.layer().get().isEmpty()) {
            detail.show(Optional.empty());
            find.clear();
        }
        showLenses();
    }

    private void showLenses() {
        lenses.getChildren().clear();
        if (model.contacts().get().isEmpty()) {
            return;
        }
        lenses.getChildren().add(lensTitle("Contacts"));
        var contacts = model.contacts().get().get().ascending();
        lenses.getChildren().add(lens("lens-everyone", "Everyone", contacts.size(), new Lens.Everyone()));
        int photos = (int) contacts.stream().filter(Contact::hasPhoto).count();
        lenses.getChildren().add(lens("lens-photo", "With a photo", photos, new Lens.WithPhoto()));
        var groups = model.groups();
        if (!groups.isEmpty()) {
            lenses.getChildren().add(lensTitle("Groups"));
            groups.forEach(
                    (name, size) -> lenses.getChildren().add(lens("lens-group", name, size, new Lens.Group(name))));
        }
    }

    private static Label lensTitle(String words) {
        var title = Parts.text(words, "lesser");
        title.setStyle("-fx-padding: 8 12 4 14;");
        return title;
    }

    private Button lens(String id, String name, int size, Lens lens) {
        var label = id.equals("lens-group") ? desk.veil().line(name) : UserText.line(name);
        HBox.setHgrow(label, Priority.ALWAYS);
        var button = new Button();
        button.setId(id);
        button.getStyleClass().add("lens");
        button.setMaxWidth(Double.MAX_VALUE);
        var figure = Parts.text(desk.words().count(size), "lesser");
        figure.setMinWidth(USE_PREF_SIZE);
        var row = new HBox(8, label, figure);
        row.setAlignment(Pos.CENTER_LEFT);
        row.prefWidthProperty().bind(button.widthProperty().subtract(26));
        button.setGraphic(row);
        button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
        button.pseudoClassStateChanged(PRESENT, model.lens().get().equals(lens));
        button.setOnAction(event -> model.look(lens));
        return button;
    }

    /** Says so, and offers the layer that has them. */
    private Node noContacts() {
        var open = model.layer().get();
        var other = open.flatMap(phone -> desk.holdings().get().phones().stream()
                .filter(stored ->
                        stored.identity().identifier().equals(phone.phone().identifier()))
                .findFirst()
                .flatMap(stored -> stored.newestWith(Kind.CONTACTS))
                .filter(layer -> !phone.layer().equals(Optional.of(layer))));
        var sentence = Parts.sentence("There are no contacts in this layer.", "lesser");
        if (other.isEmpty()) {
            return sentence;
        }
        int number = other.get().number();
        var box = new VBox(
                8,
                sentence,
                Parts.button(
                        "layer-with-contacts",
                        "Read layer " + number + ", which has them",
                        "",
                        () -> desk.read(other.get().phone(), number, false)));
        box.setAlignment(Pos.CENTER);
        return box;
    }

    private void showList(List<Contact> contacts) {
        list.setItems(FXCollections.observableList(contacts));
        list.setPlaceholder(
                model.hasNoContacts() ? noContacts() : Parts.sentence("No contact has all of these words.", "lesser"));
        count.setText(desk.words().count(contacts.size(), "contact", "contacts"));
        if (!contacts.isEmpty()) {
            list.getSelectionModel().selectFirst();
            list.scrollTo(0);
        }
        showLetters(contacts);
    }

    /** The letters under which something stands, each leading there; off this thread, since a book may be large. */
    private void showLetters(List<Contact> contacts) {
        var all = model.contacts().get();
        letters.getChildren().clear();
        if (all.isEmpty() || contacts.size() < 20) {
            return;
        }
        desk.work().start("Letters", () -> letters(all.get(), contacts), found -> {
            if (list.getItems().size() == contacts.size()) {
                showLetterButtons(found);
            }
        });
    }

    private record Letter(String name, int first) {}

    private static List<Letter> letters(ContactIndex all, List<Contact> contacts) {
        var seen = new HashSet<String>();
        var letters = new ArrayList<Letter>();
        for (int i = 0; i < contacts.size(); i++) {
            var name = all.letter(contacts.get(i));
            if (seen.add(name)) {
                letters.add(new Letter(name, i));
            }
        }
        return letters;
    }

    private void showLetterButtons(List<Letter> found) {
        // As many as fit the height; in between, the list is scrolled.
        int room = Math.max(8, (int) (list.getHeight() / LETTER_HEIGHT));
        int step = Math.max(1, (found.size() + room - 1) / room);
        letters.getChildren().clear();
        for (int i = 0; i < found.size(); i += step) {
            var letter = found.get(i);
            var button = new Button();
            button.setGraphic(UserText.line(letter.name(), "lesser"));
            button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
            button.setAccessibleText("To " + letter.name());
            button.getStyleClass().add("letter");
            button.setFocusTraversable(false);
            button.setOnAction(event -> {
                list.scrollTo(letter.first());
                list.getSelectionModel().select(letter.first());
            });
            letters.getChildren().add(button);
        }
    }

    private void showDetail(@org.jspecify.annotations.Nullable Contact contact) {
        detail.show(Optional.ofNullable(contact));
    }

    private void turnOrder() {
        model.turnOrder();
        order.setText(model.descending() ? "Z to A" : "A to Z");
    }

    private void showPicked() {
        list.refresh();
        detail.refreshPick();
    }

    void focusFind() {
        find.requestFocus();
        find.selectAll();
    }

    void focusList() {
        list.requestFocus();
    }
}
