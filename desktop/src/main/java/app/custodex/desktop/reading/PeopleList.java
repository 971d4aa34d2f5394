package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.InTouch;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.desktop.ui.Veil;
import app.custodex.desktop.ui.Words;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** The people of a layer, each with a small line of when they were in touch. Choosing one shows what they are in, over all apps. */
final class PeopleList extends VBox {
    private static final int BARS = 36;
    private static final double LINE = 14;

    private final Words words;
    private final Veil veil;
    private final Consumer<Optional<InTouch>> choose;
    private final ListView<InTouch> list = new ListView<>();
    private final Label count = Parts.text("", "lesser");
    private final Label nobody = Parts.sentence("", "lesser");
    private final Button order;
    private List<InTouch> people = List.of();
    private boolean mostOften;
    private int first;
    private int last;
    private boolean showing;

    PeopleList(Desk desk, Consumer<Optional<InTouch>> choose) {
        this.words = desk.words();
        this.veil = desk.veil();
        veil.down().addListener((o, was, is) -> list.refresh());
        this.choose = choose;
        order = Parts.button("people-order", "Most recent", "", this::turn, "row-button");
        list.setId("people");
        list.setFixedCellSize(66);
        list.setCellFactory(view -> new Cell());
        list.setPlaceholder(nobody);
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> {
            if (!showing) {
                choose.accept(Optional.ofNullable(is));
            }
        });
        list.setOnKeyPressed(event -> {
            if (event.getCode() == javafx.scene.input.KeyCode.ESCAPE) {
                list.getSelectionModel().clearSelection();
                event.consume();
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        var head = new HBox(8, Parts.text("People", "strong"), count, Parts.gap(), order);
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 8 10 8 12;");
        getChildren().addAll(head, Parts.rule(), list);
    }

    void enter(Optional<RoomModel.Room> room) {
        people = room.map(RoomModel.Room::people).orElse(List.of());
        nobody.setText(room.isPresent() ? "Nothing with a date has a person in it." : "");
        first = people.stream().mapToInt(who -> who.days()[0]).min().orElse(0);
        last = people.stream().mapToInt(InTouch::last).max().orElse(0);
        sort();
    }

    /** Follows what is looked at. */
    void show(Optional<InTouch> chosen) {
        showing = true;
        chosen.ifPresentOrElse(
                who -> list.getSelectionModel().select(who),
                () -> list.getSelectionModel().clearSelection());
        showing = false;
    }

    private void turn() {
        mostOften = !mostOften;
        order.setText(mostOften ? "Most often" : "Most recent");
        sort();
    }

    private void sort() {
        var chosen = list.getSelectionModel().getSelectedItem();
        var by = mostOften ? Comparator.comparingLong(InTouch::all) : Comparator.comparingInt(InTouch::last);
        showing = true;
        list.setItems(FXCollections.observableList(people.stream()
                .sorted(by.reversed().thenComparing(who -> who.person().name()))
                .toList()));
        if (chosen != null) {
            list.getSelectionModel().select(chosen);
        }
        showing = false;
        count.setText(words.count(people.size()));
    }

    private final class Cell extends ListCell<InTouch> {
        private final UserText name = veil.line("", "strong");
        private final Label things = Parts.text("", "lesser");
        private final Pane line = new Pane();
        private final VBox all = new VBox(2, name, line, things);

        Cell() {
            line.setMinHeight(LINE);
            line.setMaxHeight(LINE);
            for (int i = 0; i < BARS; i++) {
                var bar = new Region();
                bar.setManaged(false);
                bar.getStyleClass().add("touch-bar");
                line.getChildren().add(bar);
            }
            line.widthProperty().addListener((o, was, is) -> place());
            all.setAlignment(Pos.CENTER_LEFT);
            all.setMinWidth(0);
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable InTouch who, boolean empty) {
            super.updateItem(who, empty);
            if (empty || who == null) {
                setGraphic(null);
                return;
            }
            var shown = who.person().name();
            name.setText(shown);
            things.setText(
                    (who.person().contact() ? "" : "not in contacts · ") + words.count(who.all(), "thing", "things"));
            setAccessibleText(veil.words(shown) + ", " + things.getText());
            place();
            setGraphic(all);
        }

        private void place() {
            var who = getItem();
            if (who == null || line.getWidth() <= 0) {
                return;
            }
            var counts = new int[BARS];
            int most = 1;
            for (int i = 0; i < who.days().length; i++) {
                int bar = (int) ((long) (who.days()[i] - first) * BARS / (last - first + 1L));
                counts[bar] += who.things()[i];
                most = Math.max(most, counts[bar]);
            }
            double width = line.getWidth() / BARS;
            for (int i = 0; i < BARS; i++) {
                double height = counts[i] == 0 ? 0 : Math.max(1, Math.round(LINE * counts[i] / most));
                line.getChildren()
                        .get(i)
                        .resizeRelocate(
                                Math.round(i * width), LINE - height, Math.max(1, Math.floor(width) - 1), height);
            }
        }
    }
}
