package app.custodex.desktop.bench;

import app.custodex.app.Source;
import app.custodex.desktop.BayModel;
import app.custodex.desktop.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.link.PhoneIdentity;
import java.io.File;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;

/** What can be backed up from this bench: phones, folders, archives, web addresses, remote accounts. */
public final class SourcesView extends VBox {
    private final Desk desk;
    private final TextField place = new TextField();
    private final TextField name = new TextField();
    private final VBox known = new VBox();
    private Optional<List<Shown>> shown = Optional.empty();

    public SourcesView(Desk desk) {
        super(14);
        this.desk = desk;
        setId("sources");
        getStyleClass().add("place-ground");
        known.getStyleClass().add("card");
        var scroll = new ScrollPane(new VBox(14, form(), known));
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(Parts.text("Sources", "title"), scroll);
        desk.bays().addListener((ListChangeListener<BayModel>) change -> showKnown());
        desk.changes().addListener((o, was, is) -> refreshKnown());
        sceneProperty().addListener((o, was, is) -> refreshKnown());
        showKnown();
    }

    private Node form() {
        place.setId("source-place");
        place.setPromptText("/media/card, copy.zip, https://files.example.org/fenna/, loft:http://127.0.0.1:5000/");
        HBox.setHgrow(place, Priority.ALWAYS);
        name.setId("source-name");
        name.setPromptText("What to call it; may stay empty");
        var add = Parts.button("source-add", "Put it on the bench", "Enter", this::add, "main");
        place.setOnAction(event -> add());
        name.setOnAction(event -> add());
        var row = new HBox(
                8,
                place,
                Parts.button("source-folder", "Folder…", "", this::chooseFolder),
                Parts.button("source-archive", "Archive…", "", this::chooseArchive));
        var grid = Parts.facts(90);
        Parts.fact(grid, "Where it is", row);
        Parts.fact(grid, "Name", name);
        Label help = Parts.sentence(
                "A phone or a card that this computer shows as a folder, a ZIP or TAR archive, a WebDAV address over https, or a"
                        + " Loft account. It gets a bay of its own, with the same steps as a phone. Nothing is ever written there.",
                "lesser");
        var card = new VBox(12, Parts.text("Put a source on the bench", "heading"), help, grid, add);
        card.getStyleClass().add("card");
        return card;
    }

    private void add() {
        if (place.getText().isBlank()) {
            place.requestFocus();
            return;
        }
        desk.addSource(place.getText().strip(), name.getText().strip(), () -> {});
        place.clear();
        name.clear();
    }

    private void chooseFolder() {
        var chooser = new DirectoryChooser();
        chooser.setTitle("A folder to back up");
        put(chooser.showDialog(getScene().getWindow()));
    }

    private void chooseArchive() {
        var chooser = new FileChooser();
        chooser.setTitle("A ZIP or TAR archive to back up");
        put(chooser.showOpenDialog(getScene().getWindow()));
    }

    private void put(@Nullable File chosen) {
        if (chosen != null) {
            place.setText(chosen.getPath());
            name.requestFocus();
        }
    }

    private void refreshKnown() {
        if (getScene() != null) {
            showKnown();
        }
    }

    /** What a row tells of a bay. */
    private record Shown(BayModel bay, String name, String state, boolean copying) {}

    private Shown shown(BayModel bay) {
        return new Shown(
                bay,
                bay.phone().map(PhoneIdentity::name).orElse(bay.bay().source().name()),
                desk.state(bay).headline(),
                bay.progress().get().isPresent());
    }

    /** Rebuilt only when something in it is different: a button must not go away under the finger. */
    private void showKnown() {
        var now = desk.bays().stream().map(this::shown).toList();
        if (shown.equals(Optional.of(now))) {
            return;
        }
        shown = Optional.of(now);
        known.getChildren().setAll(Parts.text("On the bench", "heading"));
        if (desk.bays().isEmpty()) {
            known.getChildren().add(Parts.sentence("Nothing yet.", "lesser"));
        }
        now.forEach(row -> known.getChildren().add(row(row)));
    }

    private Node row(Shown row) {
        var bay = row.bay();
        var source = bay.bay().source();
        var title = UserText.line("Bay " + bay.number() + " · " + row.name(), "strong");
        var address = UserText.line(source.type().name().toLowerCase(Locale.ROOT) + " · " + place(source), "lesser");
        var words = new VBox(1, title, address);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        var state = Parts.text(row.state(), "lesser");
        state.setMinWidth(160);
        var line =
                new HBox(10, words, state, Parts.button("show-bay-" + bay.number(), "Show", "", () -> desk.show(bay)));
        if (source.type() != Source.Type.PHONE) {
            var off =
                    Parts.button("remove-bay-" + bay.number(), "Take off the bench", "", () -> desk.removeSource(bay));
            off.setDisable(row.copying());
            line.getChildren().add(off);
        }
        line.setAlignment(Pos.CENTER_LEFT);
        line.getStyleClass().add("table-row");
        return line;
    }

    private static String place(Source source) {
        return "file".equals(source.address().getScheme())
                ? source.address().getPath()
                : source.address().toString();
    }
}
