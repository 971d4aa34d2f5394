package app.custodex.desktop.bench;

import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import java.time.LocalDateTime;
import java.util.Comparator;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** What is on the bench while no phone is in: what to do first, and every docket, what was promised first at the top. */
final class DocketList extends VBox {
    private static final double ROW = 54;

    private final Desk desk;
    private final ListView<Docket> list = new ListView<>();
    private final Label none = Parts.sentence("There is no docket yet.", "lesser");

    DocketList(Desk desk) {
        super(12);
        this.desk = desk;
        setId("docket-list");
        var first = new VBox(
                6,
                Parts.text("No phone is in", "heading"),
                Parts.sentence(
                        "1. Plug a phone in, or choose Add a source above for a folder, an archive or an account."),
                Parts.sentence("2. Write its docket: whose it is, what is wanted, and that the customer consents."),
                Parts.sentence("3. Back it up. From then on it can be read without the phone: Ctrl+R."));
        first.getStyleClass().add("card");
        list.setId("dockets");
        list.setFixedCellSize(ROW);
        list.setPlaceholder(none);
        list.setCellFactory(view -> new Cell());
        list.getStyleClass().add("pane-border");
        list.setOnMouseClicked(event -> {
            if (event.getClickCount() == 2) {
                read();
            }
        });
        list.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ENTER) {
                read();
                event.consume();
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        HBox.setHgrow(this, Priority.ALWAYS);
        getChildren().addAll(first, Parts.text("Dockets", "heading"), list);
    }

    /** Looks at the dockets anew. */
    void refresh() {
        desk.work()
                .start(
                        "Dockets",
                        () -> desk.custodex().dockets().all().stream()
                                .sorted(Comparator.comparing((Docket docket) ->
                                                docket.promised().orElse(LocalDateTime.MAX))
                                        .thenComparing(Docket::number, Comparator.reverseOrder()))
                                .toList(),
                        found -> list.setItems(FXCollections.observableList(found)));
    }

    /** Opens the newest layer of the docket's phone. */
    private void read() {
        Optional.ofNullable(list.getSelectionModel().getSelectedItem())
                .ifPresent(docket -> docket.phone()
                        .flatMap(phone -> desk.holdings().get().phone(phone.identifier()))
                        .ifPresentOrElse(
                                stored -> desk.read(
                                        stored.identity(), stored.newest().number(), false),
                                () -> desk.work()
                                        .tell(Problem.note(
                                                "Docket " + docket.label(),
                                                "Nothing of its phone is stored",
                                                "Plug the phone in and back it up"))));
    }

    private final class Cell extends ListCell<Docket> {
        private final Label number = Parts.text("", "mono", "lesser");
        private final UserText who = UserText.line("", "strong");
        private final UserText reason = UserText.line("", "lesser");
        private final Label promised = Parts.text("");
        private final Label done = Parts.text("", "lesser");
        private final HBox row;

        Cell() {
            number.setMinWidth(48);
            var words = new VBox(2, who, reason);
            words.setMinWidth(0);
            words.setAlignment(Pos.CENTER_LEFT);
            HBox.setHgrow(words, Priority.ALWAYS);
            var right = new VBox(2, promised, done);
            right.setAlignment(Pos.CENTER_RIGHT);
            right.setMinWidth(USE_PREF_SIZE);
            row = new HBox(12, number, words, right);
            row.setAlignment(Pos.CENTER_LEFT);
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable Docket docket, boolean empty) {
            super.updateItem(docket, empty);
            if (empty || docket == null) {
                setGraphic(null);
                return;
            }
            number.setText(docket.label());
            who.setText(docket.customer()
                    + docket.phone().map(phone -> " · " + phone.name()).orElse(""));
            reason.setText(docket.reason());
            boolean late = docket.promised()
                    .filter(at -> at.isBefore(
                            LocalDateTime.ofInstant(desk.now(), desk.words().zone())))
                    .isPresent();
            promised.setText(docket.promised()
                    .map(at -> (late ? "was promised by " : "promised by ")
                            + desk.words().local(at))
                    .orElse("nothing promised"));
            promised.getStyleClass().setAll("label", late ? "mark-hand-words" : "lesser");
            done.setText(done(docket));
            setAccessibleText(String.join(
                    ", ",
                    "docket " + docket.label(),
                    who.getText(),
                    reason.getText(),
                    promised.getText(),
                    done.getText()));
            setGraphic(row);
        }

        private String done(Docket docket) {
            var steps = docket.done().keySet().stream().sorted().toList();
            return steps.isEmpty()
                    ? "consent is missing"
                    : steps.stream().map(RouteStep::label).collect(Collectors.joining(" ✓  ", "", " ✓"));
        }
    }
}
