package app.custodex.desktop.bench;

import app.custodex.app.Source;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.link.MakerBackups;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import java.io.File;
import java.util.HashMap;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
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
    private final VBox left = new VBox(8);
    private final Map<BayModel, Row> rows = new HashMap<>();

    public SourcesView(Desk desk) {
        super(14);
        this.desk = desk;
        setId("sources");
        getStyleClass().add("place-ground");
        known.getStyleClass().add("card");
        left.getStyleClass().add("card");
        var scroll = new ScrollPane(new VBox(14, form(), left, known));
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(Parts.text("Sources", "title"), scroll);
        desk.bays().addListener((ListChangeListener<BayModel>) change -> showKnown());
        desk.changes().addListener((o, was, is) -> refreshKnown());
        sceneProperty().addListener((o, was, is) -> {
            refreshKnown();
            if (is != null) {
                look();
            }
        });
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
        var row = Parts.row(
                place,
                Parts.button("source-folder", "Folder…", "", this::chooseFolder),
                Parts.button("source-archive", "Archive…", "", this::chooseArchive));
        var grid = Parts.facts(90);
        Parts.fact(grid, "Where it is", row);
        Parts.fact(grid, "Name", name);
        Label help = Parts.sentence(
                "A phone or a card that this computer shows as a folder, a ZIP or TAR archive, a WebDAV address over https, a"
                        + " Loft account, or what a maker's own program left on a computer. It gets a bay of its own, with the same steps as a phone. Nothing is ever written there.",
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
        desk.addSource(place.getText().strip(), name.getText().strip(), () -> {
            place.clear();
            name.clear();
        });
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

    private void look() {
        desk.work()
                .start("Makers' backups on this computer", () -> desk.custodex().makerBackups(), this::showLeft);
    }

    /** What makers' own programs left on this computer; out of sight where there is nothing of the kind. */
    private void showLeft(MakerBackups there) {
        boolean any = !there.found().isEmpty() || !there.problems().isEmpty();
        left.setVisible(any);
        left.setManaged(any);
        left.getChildren().setAll(Parts.text("Makers' backups on this computer", "heading"));
        int number = 0;
        for (var found : there.found()) {
            left.getChildren().add(left(found, ++number));
        }
        for (var problem : there.problems()) {
            left.getChildren().add(UserText.paragraph(problem.sentence(), "lesser"));
        }
    }

    private Node left(MakerBackups.Found found, int number) {
        var label = found.label();
        var facts = Stream.of(
                        label.model(),
                        label.system(),
                        label.serial(),
                        desk.words().bytes(found.bytes()),
                        label.sealed() ? "under a passphrase" : "")
                .filter(fact -> !fact.isEmpty())
                .collect(Collectors.joining(" · "));
        var words = new VBox(
                1,
                UserText.line(label.name() + ", " + desk.words().moment(label.made(), desk.now()), "strong"),
                UserText.line(facts, "lesser"));
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        var put = Parts.button(
                "put-maker-backup-" + number,
                "Put it on the bench",
                "",
                () -> desk.addSource(found.folder().toString(), "", () -> {}));
        var row = new HBox(10, words, put);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("table-row");
        return row;
    }

    /** One row a bay, made once: a button must not go away under the finger. */
    private void showKnown() {
        rows.keySet().retainAll(desk.bays());
        known.getChildren().setAll(Parts.text("On the bench", "heading"));
        if (desk.bays().isEmpty()) {
            known.getChildren().add(Parts.sentence("Nothing yet.", "lesser"));
        }
        for (var bay : desk.bays()) {
            known.getChildren().add(rows.computeIfAbsent(bay, Row::new));
        }
        refreshKnown();
    }

    private void refreshKnown() {
        if (getScene() != null) {
            rows.values().forEach(Row::refresh);
        }
    }

    private final class Row extends HBox {
        private final BayModel bay;
        private final UserText title = UserText.line("", "strong");
        private final Label state = Parts.text("", "lesser");
        private final Button off;

        Row(BayModel bay) {
            super(10);
            this.bay = bay;
            var source = bay.bay().source();
            var address = UserText.line(source.type().label() + " · " + place(source), "lesser");
            var words = new VBox(1, title, address);
            words.setMinWidth(0);
            HBox.setHgrow(words, Priority.ALWAYS);
            state.setMinWidth(160);
            off = Parts.button("remove-bay-" + bay.number(), "Take off the bench", "", () -> desk.removeSource(bay));
            var show = Parts.button("show-bay-" + bay.number(), "Show", "", () -> desk.show(bay));
            off.setVisible(!bay.isPhone());
            getChildren().addAll(words, state, show, off);
            setAlignment(Pos.CENTER_LEFT);
            getStyleClass().add("table-row");
        }

        private void refresh() {
            var name = bay.phone()
                    .map(PhoneIdentity::name)
                    .or(() -> bay.status().get().map(PhoneStatus::model).filter(model -> bay.isPhone()))
                    .orElse(bay.bay().source().name());
            title.setText("Bay " + bay.number() + " · " + name);
            state.setText(desk.state(bay).headline());
            off.setDisable(bay.progress().get().isPresent());
        }
    }

    private static String place(Source source) {
        return "file".equals(source.address().getScheme())
                ? source.address().getPath()
                : source.address().toString();
    }
}
