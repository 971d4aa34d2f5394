package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.Moment;
import app.custodex.model.Thing;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.AbstractList;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Everything that is looked at, of all kinds together, day by day. However long it is, only what is in sight is read. */
final class DayBook extends VBox {
    private static final double ROW = 34;

    private final Desk desk;
    private final ListView<Integer> list = new ListView<>();
    private final Label count = Parts.text("", "lesser");
    private final Label empty = Parts.sentence("", "lesser");
    private final Button order;
    private final DateTimeFormatter dayFormat;
    private final DateTimeFormatter timeFormat;
    private Optional<RoomModel.Room> room = Optional.empty();
    private Optional<RoomModel.Answer> answer = Optional.empty();
    private int[] places = new int[0];
    private int[] numbers = new int[0];
    private Optional<Pages> pages = Optional.empty();
    private boolean oldestFirst;
    /** What is to be chosen when it is shown. */
    private OptionalLong sought = OptionalLong.empty();

    /** @param chosen is told what is chosen; empty for nothing */
    DayBook(Desk desk, Consumer<Optional<Entry>> chosen) {
        this.desk = desk;
        var locale = desk.words().locale();
        dayFormat = DateTimeFormatter.ofLocalizedDate(FormatStyle.MEDIUM).localizedBy(locale);
        timeFormat = DateTimeFormatter.ofLocalizedTime(FormatStyle.SHORT).localizedBy(locale);
        order = Parts.button("day-book-order", "Newest first", "", this::turn, "row-button");
        count.setId("day-book-count");
        list.setId("day-book");
        list.setFixedCellSize(ROW);
        list.setCellFactory(view -> new Cell());
        list.setPlaceholder(empty);
        list.getSelectionModel()
                .selectedItemProperty()
                .addListener((o, was, is) -> chosen.accept(is == null ? Optional.empty() : entry(is)));
        VBox.setVgrow(list, Priority.ALWAYS);
        var head = new HBox(10, count, Parts.gap(), order);
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 6 10 6 12;");
        getChildren().addAll(head, Parts.rule(), list);
    }

    void enter(Optional<RoomModel.Room> newRoom) {
        room = newRoom;
        answer = Optional.empty();
        places = new int[0];
        list.setItems(FXCollections.observableArrayList());
        count.setText("");
    }

    /** Chooses a thing when the next answer is shown. */
    void seek(long number) {
        sought = OptionalLong.of(number);
    }

    /** Why nothing is shown. */
    void say(String why) {
        empty.setText(why);
    }

    void show(RoomModel.Answer newAnswer) {
        answer = Optional.of(newAnswer);
        fill();
    }

    private void turn() {
        oldestFirst = !oldestFirst;
        order.setText(oldestFirst ? "Oldest first" : "Newest first");
        fill();
    }

    private void fill() {
        if (room.isEmpty() || answer.isEmpty()) {
            return;
        }
        say(
                room.get().spine().size() == 0
                        ? "There is nothing in this layer that can be read."
                        : "Nothing matches the dates, kinds, person and words that are chosen.");
        var seen = answer.get().seen().places();
        places = new int[seen.length];
        numbers = new int[seen.length];
        for (int i = 0; i < seen.length; i++) {
            places[i] = oldestFirst ? seen[i] : seen[seen.length - 1 - i];
            numbers[i] = room.get().spine().number(places[i]);
        }
        pages = Optional.of(new Pages(room.get(), desk.work(), this::arrived));
        int size = places.length;
        list.setItems(FXCollections.observableList(new AbstractList<>() {
            @Override
            public Integer get(int row) {
                return row;
            }

            @Override
            public int size() {
                return size;
            }
        }));
        list.scrollTo(0);
        choose();
        count.setText(desk.words().count(size, "thing", "things"));
    }

    private void choose() {
        for (int i = 0; i < numbers.length && sought.isPresent(); i++) {
            if (numbers[i] == sought.getAsLong()) {
                sought = OptionalLong.empty();
                list.getSelectionModel().select(i);
                list.scrollTo(Math.max(0, i - 4));
            }
        }
        sought = OptionalLong.empty();
    }

    private void arrived() {
        list.refresh();
        var selection = list.getSelectionModel();
        int row = selection.getSelectedIndex();
        if (row >= 0) {
            selection.clearSelection();
            selection.select(row);
        }
    }

    private Optional<Entry> entry(int row) {
        return pages.flatMap(read -> row < numbers.length ? read.get(row, numbers) : Optional.empty());
    }

    void focusList() {
        list.requestFocus();
        if (list.getSelectionModel().isEmpty()) {
            list.getSelectionModel().selectFirst();
        }
    }

    private final class Cell extends ListCell<Integer> {
        private final Label day = fixed(94, "strong");
        private final Label time = fixed(62, "lesser", "mono");
        private final UserText who = desk.veil().line("", "who");
        private final Region rail = new Region();
        private final UserText what = desk.veil().line("");
        private final Label kind = Parts.text("", "lesser");
        private final HBox row = new HBox(8, day, time, who, rail, what, kind);

        Cell() {
            who.setMinWidth(120);
            who.setPrefWidth(120);
            who.setMaxWidth(120);
            rail.getStyleClass().add("rail");
            rail.setMinSize(2, 20);
            rail.setMaxSize(2, 20);
            HBox.setHgrow(what, Priority.ALWAYS);
            kind.setMinWidth(Region.USE_PREF_SIZE);
            row.setAlignment(Pos.CENTER_LEFT);
            row.setMinWidth(0);
            setPrefWidth(0);
            setText(null);
        }

        private static Label fixed(double width, String... classes) {
            var label = Parts.text("", classes);
            label.setMinWidth(width);
            label.setMaxWidth(width);
            return label;
        }

        @Override
        protected void updateItem(@Nullable Integer index, boolean empty) {
            super.updateItem(index, empty);
            if (empty || index == null || room.isEmpty() || index >= places.length) {
                setGraphic(null);
                return;
            }
            var spine = room.get().spine();
            int place = places[index];
            boolean first = index == 0 || !spine.day(places[index - 1]).equals(spine.day(place));
            day.setText(
                    first
                            ? spine.day(place)
                                    .map(date -> dayFormat.format(LocalDate.ofEpochDay(date)))
                                    .orElse("No date")
                            : "");
            var group = KindGroup.of(spine.kind(place));
            rail.getStyleClass().setAll("rail", "tint", "tint-" + group.code());
            kind.setText(spine.kind(place).code());
            var entry = entry(index);
            entry.ifPresentOrElse(there -> fill(there.thing()), this::awaited);
            setGraphic(row);
        }

        /** Until it is read. */
        private void awaited() {
            time.setText("");
            who.setText("");
            what.setOpenText("…");
        }

        private void fill(Thing thing) {
            var words = new ThingWords(room.orElseThrow().names());
            var zone = room.orElseThrow().phone().phone().timeZone();
            time.setText(thing.moment().map(moment -> time(moment, zone)).orElse(""));
            words.show(thing, who, what);
            setAccessibleText(String.join(
                    ", ",
                    day.getText(),
                    time.getText(),
                    who.getAccessibleText(),
                    what.getAccessibleText(),
                    thing.kind().code()));
        }

        private String time(Moment moment, ZoneId zone) {
            return switch (moment) {
                case Moment.At(Instant instant, Optional<ZoneId> own) ->
                    timeFormat.format(instant.atZone(own.orElse(zone)));
                case Moment.Floating floating -> timeFormat.format(floating.local());
                case Moment.Day whole -> "all day";
            };
        }
    }
}
