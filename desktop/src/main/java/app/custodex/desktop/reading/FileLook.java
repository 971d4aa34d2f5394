package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.base.SafeNames;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.files.DocumentText;
import app.custodex.files.FolderTree.Item;
import app.custodex.files.RawContent;
import app.custodex.model.MediaFile;
import app.custodex.model.ThingId;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.collections.FXCollections;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;

/** What stands in one file: its text, its bytes, its picture or sound, or its tables. */
final class FileLook extends VBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    /** So much of a file is shown as text or bytes. */
    private static final int MOST = 1 << 20;

    private static final Set<String> VIDEOS = Set.of(".mp4", ".mov", ".3gp", ".webm");
    private static final Set<String> SEEN = Set.of(
            ".jpg", ".jpeg", ".png", ".gif", ".webp", ".heic", ".tif", ".tiff", ".bmp", ".mp4", ".mov", ".3gp",
            ".webm");
    private static final Set<String> HEARD =
            Set.of(".mp3", ".m4a", ".aac", ".amr", ".opus", ".ogg", ".flac", ".wav", ".m4r");

    /** Documents whose text has marks in it that nobody wants to read. */
    private static final Set<String> LAID_OUT = Set.of(".rtf", ".html", ".htm");

    /** Ways to look at it. */
    private enum Way {
        PAGES("Pages"),
        TEXT("Text"),
        BYTES("Bytes"),
        MEDIA("Picture or sound"),
        TABLES("Tables");

        private final String label;

        Way(String label) {
            this.label = label;
        }
    }

    private final Desk desk;
    private final UserText name;
    private final UserText path;
    private final Label facts = Parts.sentence("", "lesser");
    private final Label about = Parts.sentence("", "lesser");
    private final HBox ways = new HBox(6);
    private final Map<Way, Button> buttons = new EnumMap<>(Way.class);
    private final StackPane content = new StackPane();
    private final ListView<String> text = new ListView<>();
    private final ListView<String> bytes = new ListView<>();
    private final MediaPreview media;
    private final DatabaseLook database;
    private final DocumentPages pages;
    private final Button takeOut = Parts.button("file-take-out", "Take out…", "", this::takeOut, "row-button");
    private Optional<Shown> shown = Optional.empty();
    private int question;

    /**
     * @param beginning of the file
     * @param document its paragraphs, when it is a document
     */
    private record Shown(
            OpenPhone phone,
            Item item,
            byte[] beginning,
            Optional<RawContent.Decoded> text,
            List<DocumentText.Paragraph> document) {}

    FileLook(Desk desk) {
        super(8);
        this.desk = desk;
        name = desk.veil().line("", "heading");
        path = desk.veil().line("", "lesser", "mono");
        media = new MediaPreview(desk, Optional.empty(), Optional.empty());
        database = new DatabaseLook(desk);
        pages = new DocumentPages(desk);
        setId("file-look");
        setStyle("-fx-padding: 12 16 12 16;");
        setMinWidth(0);
        name.setId("file-name");
        facts.setId("file-facts");
        about.setId("file-about");
        about.managedProperty().bind(about.textProperty().isNotEmpty());
        text.setId("file-text");
        text.getStyleClass().add("plain-rows");
        text.setFixedCellSize(24);
        text.setCellFactory(list -> new Line());
        bytes.setId("file-bytes");
        bytes.getStyleClass().addAll("mono", "plain-rows");
        bytes.setFixedCellSize(22);
        for (var way : Way.values()) {
            var button = Parts.button(
                    "look-" + way.name().toLowerCase(Locale.ROOT),
                    way.label,
                    "",
                    () -> look(way),
                    "row-button",
                    "scope");
            buttons.put(way, button);
        }
        ways.setAlignment(Pos.CENTER_LEFT);
        desk.veil().picture(content);
        VBox.setVgrow(content, Priority.ALWAYS);
        getChildren().addAll(name, path, facts, ways, about, content);
        clear();
    }

    /** Shows nothing, and stops what plays. */
    void clear() {
        question++;
        media.clear();
        database.clear();
        shown = Optional.empty();
        text.setItems(FXCollections.observableArrayList());
        bytes.setItems(FXCollections.observableArrayList());
        name.setOpenText("Choose a file at the left.");
        path.setText("");
        facts.setText("");
        about.setText("");
        ways.getChildren().clear();
        content.getChildren().clear();
    }

    void show(OpenPhone phone, Item item) {
        clear();
        int mine = question;
        name.setText(item.path().name());
        path.setText(item.path().text());
        facts.setText(
                desk.words().bytes(item.bytes()) + ", changed " + desk.words().moment(item.modified(), desk.now()));
        desk.work()
                .start(
                        "A file",
                        () -> {
                            var beginning = phone.beginning(item.path().text(), MOST);
                            return new Shown(phone, item, beginning, RawContent.text(beginning), document(phone, item));
                        },
                        found -> {
                            if (mine == question) {
                                take(found);
                            }
                        });
    }

    /** What was read of a document when the layer was. */
    private static List<DocumentText.Paragraph> document(OpenPhone phone, Item item) throws IOException {
        return phone.catalogue()
                .find(new ThingId(item.path().text(), ""))
                .map(Entry::thing)
                .filter(MediaFile.class::isInstance)
                .map(thing -> DocumentText.paragraphs(((MediaFile) thing).text()))
                .orElse(List.of());
    }

    private void take(Shown found) {
        shown = Optional.of(found);
        boolean isDatabase = RawContent.isDatabase(found.beginning());
        var ending = found.item().path().ending();
        boolean isMedia = SEEN.contains(ending) || HEARD.contains(ending);
        boolean isDocument = !found.document().isEmpty();
        if (isDocument) {
            ways.getChildren().add(button(Way.PAGES));
        }
        if (isDatabase) {
            ways.getChildren().add(button(Way.TABLES));
        }
        if (isMedia) {
            ways.getChildren().add(button(Way.MEDIA));
        }
        if (found.text().isPresent()) {
            ways.getChildren().add(button(Way.TEXT));
        }
        ways.getChildren().addAll(button(Way.BYTES), Parts.gap());
        if (!isDatabase) { // it is taken out above its tables, where it can be chosen in which form
            ways.getChildren().add(takeOut);
        }
        boolean isLaidOut = isDocument && (found.text().isEmpty() || LAID_OUT.contains(ending));
        look(
                isLaidOut
                        ? Way.PAGES
                        : isDatabase
                                ? Way.TABLES
                                : isMedia ? Way.MEDIA : found.text().isPresent() ? Way.TEXT : Way.BYTES);
    }

    private Button button(Way way) {
        return Optional.ofNullable(buttons.get(way)).orElseThrow();
    }

    private void look(Way way) {
        buttons.forEach((each, button) -> button.pseudoClassStateChanged(PRESENT, each == way));
        media.clear();
        shown.ifPresent(file -> {
            var part = file.item().bytes() > file.beginning().length
                    ? "The first " + desk.words().bytes(file.beginning().length) + " of it. "
                    : "";
            about.setText(
                    switch (way) {
                        case TEXT -> part + file.text().map(FileLook::encoding).orElse("");
                        case BYTES -> part;
                        case MEDIA ->
                            VIDEOS.contains(file.item().path().ending())
                                    ? "Its first picture. Videos play in the reading room, among the pictures."
                                    : "";
                        case TABLES -> "";
                        case PAGES -> "Its words, as they are found. To see how it is laid out, take it out.";
                    });
            content.getChildren().setAll(node(way, file));
        });
    }

    private static String encoding(RawContent.Decoded decoded) {
        return decoded.guessed()
                ? "Taken to be in " + decoded.encoding() + "; the file does not say so."
                : "In " + decoded.encoding() + ".";
    }

    private Node node(Way way, Shown file) {
        return switch (way) {
            case PAGES -> {
                pages.show(file.document());
                yield pages;
            }
            case TEXT -> {
                var words = file.text().map(RawContent.Decoded::text).orElse("");
                text.setItems(FXCollections.observableList(RawContent.lines(words)));
                yield text;
            }
            case BYTES -> {
                List<String> lines = RawContent.hex(file.beginning());
                bytes.setItems(FXCollections.observableList(lines));
                yield bytes;
            }
            case MEDIA -> {
                media.show(
                        file.phone(),
                        file.item().path().text(),
                        SEEN.contains(file.item().path().ending()));
                var scroll = new ScrollPane(media);
                scroll.setFitToWidth(true);
                yield scroll;
            }
            case TABLES -> {
                database.show(file.phone(), file.item().path());
                yield database;
            }
        };
    }

    /** Asks where to, and writes the file there as it is. */
    private void takeOut() {
        shown.ifPresent(file -> {
            var chooser = new FileChooser();
            chooser.setTitle("Where to write the file");
            chooser.setInitialFileName(SafeNames.of(file.item().path().name(), "file"));
            Optional.ofNullable(chooser.showSaveDialog(getScene().getWindow()))
                    .ifPresent(target -> takeOut(file, target.toPath()));
        });
    }

    private void takeOut(Shown file, Path target) {
        desk.work()
                .start(
                        target.toString(),
                        () -> {
                            file.phone()
                                    .outgoing()
                                    .takeOut(new ThingId(file.item().path().text(), ""), target);
                            return target;
                        },
                        written -> desk.work()
                                .tell(Problem.note(
                                        written.toString(),
                                        "The file was written, byte for byte",
                                        "It is the same as in the layer")));
    }

    /** A line of text, in whatever scripts. */
    private final class Line extends ListCell<String> {
        private final UserText words = desk.veil().line("");

        Line() {
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable String line, boolean empty) {
            super.updateItem(line, empty);
            words.setText(line == null ? "" : line);
            setGraphic(empty ? null : words);
        }
    }
}
