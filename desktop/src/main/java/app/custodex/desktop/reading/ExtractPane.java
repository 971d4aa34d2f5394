package app.custodex.desktop.reading;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.FolderOpener;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.docket.RouteStep;
import app.custodex.extract.ContactFormat;
import app.custodex.extract.ContactFormat.Version;
import app.custodex.extract.ExtractResult;
import app.custodex.model.Contact;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.RadioButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;

/** Takes contacts out into open files: which format, where to, and what was written. */
final class ExtractPane extends ScrollPane {
    private final Desk desk;
    private final ReadingModel model;
    private final Label title = Parts.text("", "title");
    private final Label which = Parts.text("", "lesser");
    private final ToggleGroup formats = new ToggleGroup();
    private final RadioButton vcard4 = format("format-vcard4", "vCard 4.0, keeps everything (RFC 6350)");
    private final RadioButton vcard3 = format("format-vcard3", "vCard 3.0, for older programs (RFC 2426)");
    private final RadioButton csv = format("format-csv", "CSV, a table (RFC 4180)");
    private final RadioButton html = format("format-html", "HTML, a page to read and print");
    private final CheckBox merged = new CheckBox();
    private final CheckBox fileEach = new CheckBox("One file a contact");
    private final CheckBox byteOrderMark = new CheckBox("Mark as UTF-8 for spreadsheets");
    private final CheckBox spreadsheetSafe = new CheckBox("Keep spreadsheets from running text as formulas");
    private final TextField folder = new TextField();
    private final Button start;
    private final Button stop;
    private final Label progress = Parts.text("", "lesser");
    private final VBox result = new VBox(8);
    private Optional<CancelToken> running = Optional.empty();

    ExtractPane(Desk desk, ReadingModel model, Runnable close) {
        this.desk = desk;
        this.model = model;
        setId("extract");
        setFitToWidth(true);
        setFocusTraversable(false);
        title.setId("extract-title");
        title.setMinWidth(USE_PREF_SIZE);
        which.setMinWidth(0);
        vcard4.setSelected(true);
        merged.setId("extract-merged");
        merged.setSelected(true);
        merged.setOnAction(event -> refresh());
        merged.managedProperty().bind(merged.visibleProperty());
        fileEach.setId("extract-file-each");
        byteOrderMark.setId("extract-byte-order-mark");
        spreadsheetSafe.setId("extract-spreadsheet-safe");
        fileEach.disableProperty()
                .bind(vcard4.selectedProperty().or(vcard3.selectedProperty()).not());
        byteOrderMark.disableProperty().bind(csv.selectedProperty().not());
        spreadsheetSafe.disableProperty().bind(csv.selectedProperty().not());
        folder.setId("extract-folder");
        folder.setText(desk.custodex().home().root().resolve("handed out").toString());
        HBox.setHgrow(folder, Priority.ALWAYS);
        start = Parts.button("extract-start", "Write the files", "Enter", this::start, "main");
        // Not the default button: Enter in the list or the find field must not write files.
        setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ENTER) {
                start();
                event.consume();
            }
        });
        stop = Parts.button("extract-stop", "Stop", "", () -> running.ifPresent(CancelToken::cancel));
        stop.setVisible(false);
        result.setId("extract-result");
        var head = new HBox(
                10, title, which, Parts.gap(), Parts.button("extract-close", "Back to the contact", "Esc", close));
        head.setAlignment(Pos.CENTER_LEFT);
        var where = Parts.row(folder, Parts.button("extract-choose", "Choose…", "", this::choose), start);
        stop.managedProperty().bind(stop.visibleProperty());
        var below =
                Parts.row(Parts.text("Nothing that is there is overwritten.", "lesser"), Parts.gap(), progress, stop);
        var body = new VBox(
                10,
                head,
                merged,
                Parts.text("As", "heading"),
                vcard4,
                vcard3,
                indented(fileEach),
                csv,
                indented(byteOrderMark),
                indented(spreadsheetSafe),
                html,
                Parts.text("Into the folder", "heading"),
                where,
                below,
                result);
        body.setStyle("-fx-padding: 14 18 14 18;");
        setContent(body);
        refresh();
    }

    private RadioButton format(String id, String words) {
        var button = new RadioButton(words);
        button.setId(id);
        button.setToggleGroup(formats);
        return button;
    }

    private static HBox indented(CheckBox box) {
        var indented = new HBox(box);
        indented.setStyle("-fx-padding: 0 0 0 24;");
        return indented;
    }

    void refresh() {
        int apart = model.toExtract().size();
        int asOne = model.toExtractMerged().size();
        merged.setVisible(asOne < apart);
        merged.setText("Merged as settled under Twins: " + desk.words().count(asOne) + " instead of "
                + desk.words().count(apart));
        title.setText("Extract " + desk.words().count(chosen().size(), "contact", "contacts"));
        which.setText(model.picksContacts() ? "in the tray" : "in the list; none is in the tray");
    }

    private List<Contact> chosen() {
        return merged.isSelected() ? model.toExtractMerged() : model.toExtract();
    }

    /** Called when the pane comes up. */
    void begin() {
        result.getChildren().clear();
        progress.setText("");
        vcard4.requestFocus();
    }

    private void choose() {
        var chooser = new DirectoryChooser();
        chooser.setTitle("Where to write the files");
        var current = Path.of(folder.getText()).toFile();
        if (current.isDirectory()) {
            chooser.setInitialDirectory(current);
        }
        Optional.ofNullable(chooser.showDialog(getScene().getWindow()))
                .ifPresent(chosen -> folder.setText(chosen.getPath()));
    }

    private ContactFormat format() {
        var chosen = formats.getSelectedToggle();
        if (chosen == csv) {
            return new ContactFormat.Csv(byteOrderMark.isSelected(), spreadsheetSafe.isSelected());
        }
        if (chosen == html) {
            return new ContactFormat.Html();
        }
        return new ContactFormat.Vcard(chosen == vcard3 ? Version.V3 : Version.V4, fileEach.isSelected());
    }

    private void start() {
        var layer = model.layer().get();
        if (layer.isEmpty() || running.isPresent()) {
            return;
        }
        Path target;
        try {
            target = Path.of(folder.getText().strip()).toAbsolutePath();
        } catch (InvalidPathException e) {
            desk.work().tell(Problem.failure(folder.getText(), "This is not a folder name", "Choose a folder"));
            return;
        }
        var contacts = chosen();
        var format = format();
        var cancel = new CancelToken();
        running = Optional.of(cancel);
        start.setDisable(true);
        stop.setVisible(true);
        result.getChildren().clear();
        var done = new AtomicInteger();
        var ticker = new Timeline(new KeyFrame(
                javafx.util.Duration.millis(200),
                event -> progress.setText(
                        desk.words().count(done.get()) + " of " + desk.words().count(contacts.size()))));
        ticker.setCycleCount(Animation.INDEFINITE);
        ticker.play();
        var phone = layer.get().phone();
        desk.work()
                .start(
                        "Extract contacts",
                        () -> layer.get().extract(contacts, format, target, done::set, cancel),
                        written -> {
                            show(written, target);
                            desk.stepDone(phone, RouteStep.EXTRACT);
                        },
                        () -> {
                            ticker.stop();
                            progress.setText(
                                    cancel.isCancelled() ? "Stopped; files that were complete are there." : "");
                            running = Optional.empty();
                            start.setDisable(false);
                            stop.setVisible(false);
                        });
    }

    private void show(ExtractResult written, Path target) {
        var words = desk.words().count(written.contacts(), "contact", "contacts") + " in "
                + desk.words().count(written.files().size(), "file", "files");
        var head = new HBox(
                10,
                Parts.state(Mark.DONE, words),
                Parts.gap(),
                Parts.button(
                        "extract-show-folder",
                        "Open the folder",
                        "",
                        () -> desk.work().start("Open the folder", () -> FolderOpener.open(target), opened -> {})));
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("sealed-card");
        result.getChildren().setAll(head, list("extract-files", written.files(), Path::toString));
        if (!written.problems().isEmpty()) {
            result.getChildren()
                    .addAll(
                            Parts.text("Worth knowing", "heading"),
                            list("extract-problems", written.problems(), Problem::sentence));
        }
    }

    private <T> ListView<T> list(String id, List<T> items, Function<T, String> words) {
        var list = new ListView<>(FXCollections.observableList(items));
        list.setId(id);
        list.setFixedCellSize(30);
        list.setPrefHeight(Math.min(6, items.size()) * 30 + 2);
        list.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(T item, boolean empty) {
                super.updateItem(item, empty);
                setGraphic(empty || item == null ? null : desk.veil().line(words.apply(item)));
            }
        });
        return list;
    }
}
