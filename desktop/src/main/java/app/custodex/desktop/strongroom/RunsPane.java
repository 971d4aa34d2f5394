package app.custodex.desktop.strongroom;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.UserText;
import app.custodex.docket.Docket;
import app.custodex.docket.Run;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** The result list: every backup that was started, by hand or by itself, and what came of it. */
final class RunsPane extends VBox {
    RunsPane(Desk desk) {
        super(8);
        var list = new ListView<Run>();
        desk.work()
                .start(
                        "The result list",
                        () -> desk.custodex().runs().all(),
                        runs -> list.setItems(FXCollections.observableList(runs)));
        list.setId("runs");
        list.setFixedCellSize(46);
        list.getStyleClass().add("pane-border");
        list.setPlaceholder(Parts.sentence("No backup was started yet.", "lesser"));
        list.setCellFactory(view -> new Cell(desk));
        VBox.setVgrow(list, Priority.ALWAYS);
        getChildren().add(list);
    }

    private static final class Cell extends ListCell<Run> {
        private final Desk desk;

        Cell(Desk desk) {
            this.desk = desk;
        }

        @Override
        protected void updateItem(@Nullable Run run, boolean empty) {
            super.updateItem(run, empty);
            if (empty || run == null) {
                setGraphic(null);
                return;
            }
            var words = desk.words();
            var who = new VBox(
                    1,
                    UserText.line(run.name(), "strong"),
                    Parts.text(
                            run.docket()
                                            .map(number -> "docket " + Docket.label(number))
                                            .orElse("no docket")
                                    + (run.automatic() ? ", by itself" : ", by hand"),
                            "lesser"));
            who.setAlignment(Pos.CENTER_LEFT);
            who.setMinWidth(260);
            who.setMaxWidth(260);
            var row = new HBox(12, column(170, words.moment(run.begun(), desk.now())), who, outcome(run));
            row.setAlignment(Pos.CENTER_LEFT);
            setGraphic(row);
        }

        private Node outcome(Run run) {
            var words = desk.words();
            if (run.problem().isPresent()) {
                return Parts.state(Mark.TROUBLE, run.problem().get().sentence());
            }
            var said = "layer " + run.layer().map(String::valueOf).orElse("–") + ", "
                    + words.count(run.newItems(), "new item", "new items") + ", " + words.bytes(run.newBytes())
                    + (run.missed() == 0 ? "" : ", " + words.count(run.missed()) + " not saved");
            if (run.sound().isEmpty()) {
                return Parts.state(Mark.NEVER, said + ", not read back");
            }
            return run.sound().get() && run.missed() == 0
                    ? Parts.state(Mark.DONE, said + ", checked")
                    : Parts.state(Mark.TROUBLE, said + (run.sound().get() ? ", checked" : ", damaged"));
        }

        private static Label column(double width, String words) {
            var label = Parts.text(words);
            label.setMinWidth(width);
            label.setPrefWidth(width);
            return label;
        }
    }
}
