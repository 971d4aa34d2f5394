package app.custodex.desktop.bench;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.link.PhoneIdentity;
import app.custodex.strongroom.LayerChange;
import java.util.Locale;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import org.jspecify.annotations.Nullable;

/** Each item that came, changed or went in a layer. */
public final class ChangeList extends ListView<LayerChange> {
    public ChangeList(Desk desk, PhoneIdentity phone, int layer) {
        setId("changes");
        setFixedCellSize(28);
        getStyleClass().add("pane-border");
        setPlaceholder(Parts.text("Comparing…", "lesser"));
        setCellFactory(view -> new Cell(desk));
        desk.work()
                .start(
                        "Changes of layer " + layer,
                        () -> desk.custodex().strongroom().changes(phone.identifier(), layer),
                        found -> {
                            setPlaceholder(Parts.text("Nothing was added, changed or deleted.", "lesser"));
                            setItems(FXCollections.observableList(found));
                        });
    }

    private static final class Cell extends ListCell<LayerChange> {
        private final Desk desk;

        Cell(Desk desk) {
            this.desk = desk;
        }

        @Override
        protected void updateItem(@Nullable LayerChange change, boolean empty) {
            super.updateItem(change, empty);
            if (empty || change == null) {
                setGraphic(null);
                return;
            }
            var path = desk.veil().line(change.path().text());
            HBox.setHgrow(path, Priority.ALWAYS);
            var row = new HBox(
                    10,
                    column(70, change.what().name().toLowerCase(Locale.ROOT)),
                    column(150, change.kind().label()),
                    path,
                    Parts.text(size(change), "lesser"));
            row.setAlignment(Pos.CENTER_LEFT);
            setGraphic(row);
        }

        private String size(LayerChange change) {
            var words = desk.words();
            return switch (change.what()) {
                case ADDED -> words.bytes(change.after());
                case CHANGED -> words.bytes(change.before()) + " → " + words.bytes(change.after());
                case GONE -> words.bytes(change.before());
            };
        }

        private static Label column(double width, String words) {
            var label = Parts.text(words, "lesser");
            label.setMinWidth(width);
            label.setPrefWidth(width);
            return label;
        }
    }
}
