package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Lists;
import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Lists.Sorting;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.Moment;
import app.custodex.model.Thing;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.SelectionMode;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;

/** Everything that is looked at, of all kinds together, day by day. However long it is, only what is in sight is read. */
final class DayBook extends VBox {
    private static final double ROW = 34;

    private final Desk desk;
    private final TrayModel tray;
    private final Consumer<Optional<Entry>> chosen;
    private final ListView<Integer> list = new ListView<>();
    private final Label count = Parts.text("", "lesser");
    private final Label empty = Parts.sentence("", "lesser");
    private final ComboBox<ListOrder> order = new ComboBox<>();
    private final DateTimeFormatter dayFormat;
    private final DateTimeFormatter timeFormat;
    private Optional<RoomModel.Room> room = Optional.empty();
    /** There is more of the same layer; shown with the next answer. */
    private Optional<RoomModel.Room> grown = Optional.empty();

    private Optional<RoomModel.Answer> answer = Optional.empty();
    private int[] places = new int[0];
    private int[] numbers = new int[0];
    private int[] messages = new int[0];
    private Optional<Pages> pages = Optional.empty();
    /** By the row at which they begin. */
    private final Map<Integer, Section> sections = new HashMap<>();

    /** All that were made; the list uses them again and again. */
    private final Set<Cell> cells = Collections.newSetFromMap(new WeakHashMap<>());

    private boolean offering;
    private int filling;
    /** What is to be chosen when it is shown. */
    private OptionalLong sought = OptionalLong.empty();

    /** @param chosen is told what is chosen; empty for nothing */
    DayBook(Desk desk, TrayModel tray, Consumer<Optional<Entry>> chosen) {
        this.desk = desk;
        this.tray = tray;
        this.chosen = chosen;
        desk.veil().down().addListener((o, was, is) -> list.refresh());
        tray.picked().addListener((o, was, is) -> list.refresh());
        var locale = desk.words().locale();
        dayFormat = DateTimeFormatter.ofLocalizedDate(FormatStyle.MEDIUM).localizedBy(locale);
        timeFormat = DateTimeFormatter.ofLocalizedTime(FormatStyle.SHORT).localizedBy(locale);
        order.setId("day-book-order");
        order.getStyleClass().add("small-choice");
        order.setAccessibleText("Order");
        order.setConverter(new StringConverter<>() {
            @Override
            public String toString(@Nullable ListOrder of) {
                return of == null ? "" : of.label();
            }

            @Override
            public ListOrder fromString(String label) {
                return ListOrder.NEWEST;
            }
        });
        order.getItems().setAll(ListOrder.NEWEST);
        order.setValue(ListOrder.NEWEST);
        order.valueProperty().addListener((o, was, is) -> {
            if (!offering && is != null) {
                fill();
            }
        });
        count.setId("day-book-count");
        list.setId("day-book");
        list.setFixedCellSize(ROW);
        list.setCellFactory(view -> {
            var cell = new Cell();
            cells.add(cell);
            return cell;
        });
        list.setPlaceholder(empty);
        list.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
        list.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.T && !event.isShortcutDown()) {
                tray.toggle(selected());
                event.consume();
            }
        });
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
        filling++; // what is being put in order for another layer is not shown here
        if (room.isPresent() && newRoom.isPresent()) {
            grown = newRoom;
            return;
        }
        room = newRoom;
        grown = Optional.empty();
        answer = Optional.empty();
        places = new int[0];
        messages = new int[0];
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
        if (grown.isPresent()) {
            int row = list.getSelectionModel().getSelectedIndex();
            if (row >= 0 && row < numbers.length && sought.isEmpty()) {
                seek(numbers[row]);
            }
            room = grown;
            grown = Optional.empty();
            places = new int[0]; // of the one before
        }
        fill();
    }

    /** Offers the orders that suit what is shown; one that still does stays. */
    private void offer(Set<KindGroup> groups) {
        var orders = ListOrder.of(groups);
        if (!orders.equals(order.getItems())) {
            var before = order.getValue();
            offering = true;
            order.getItems().setAll(orders);
            order.setValue(orders.contains(before) ? before : ListOrder.NEWEST);
            offering = false;
        }
    }

    private void fill() {
        if (room.isEmpty() || answer.isEmpty()) {
            return;
        }
        say(
                room.get().spine().size() == 0
                        ? "There is nothing in this layer that can be read."
                        : "Nothing matches the dates, kinds, person and words that are chosen.");
        offer(answer.get().asked().groups());
        int mine = ++filling;
        var in = room.get();
        var by = order.getValue();
        var seen = answer.get().seen().places();
        if (by.sorting().isEmpty()) {
            var rows = new int[seen.length];
            for (int i = 0; i < seen.length; i++) {
                rows[i] = by.oldestFirst() ? seen[i] : seen[seen.length - 1 - i];
            }
            show(rows, List.of(), new int[rows.length]);
            return;
        }
        var locale = desk.words().locale();
        desk.work().start("List", () -> arranged(in, seen, by.sorting().get(), locale), found -> {
            if (mine == filling) {
                show(found.rows(), found.by().sections(), found.by().messages());
            }
        });
    }

    /** @param rows the places of all things, in the order of time */
    private record Found(int[] rows, Lists.Arranged by) {}

    private static Found arranged(RoomModel.Room in, int[] seen, Sorting sorting, Locale locale) throws IOException {
        var wanted = Arrays.stream(seen).map(in.spine()::number).toArray();
        var by = in.phone().catalogue().arranged(wanted, sorting, locale);
        var places = new int[Arrays.stream(wanted).max().orElse(0) + 1];
        for (int place : seen) {
            places[in.spine().number(place)] = place;
        }
        return new Found(
                Arrays.stream(by.numbers()).map(number -> places[number]).toArray(), by);
    }

    /**
     * Shows a list.
     *
     * @param rows the places of its things in the order of time
     * @param newMessages that each conversation among them has, where that is known
     */
    private void show(int[] rows, List<Section> in, int[] newMessages) {
        messages = newMessages;
        sections.clear();
        in.forEach(section -> sections.put(section.first(), section));
        places = rows;
        numbers = Arrays.stream(rows).map(room.orElseThrow().spine()::number).toArray();
        pages = Optional.of(new Pages(room.get().phone().catalogue(), desk.work(), this::arrived));
        list.setItems(Rows.of(places.length));
        list.scrollTo(0);
        choose();
        // What is in two albums stands in the list twice.
        int things = answer.orElseThrow().seen().places().length;
        count.setText(desk.words().count(things, "thing", "things") + total(in));
    }

    /** How long all of it is. */
    private static String total(List<Section> in) {
        var all = in.stream().map(Section::length).reduce(Duration.ZERO, Duration::plus);
        return all.isZero() ? "" : ", " + ThingWords.length(all) + " in all";
    }

    private void choose() {
        for (int i = 0; i < numbers.length && sought.isPresent(); i++) {
            if (numbers[i] == sought.getAsLong()) {
                sought = OptionalLong.empty();
                list.getSelectionModel().clearAndSelect(i);
                list.scrollTo(Math.max(0, i - 4));
            }
        }
        sought = OptionalLong.empty();
    }

    private void arrived() {
        cells.forEach(Cell::fillIfAwaited);
        var selection = list.getSelectionModel();
        int row = selection.getSelectedIndex();
        if (selection.getSelectedIndices().size() == 1) {
            chosen.accept(entry(row));
        }
    }

    /** The numbers of the rows that are selected. */
    private BitSet selected() {
        var selected = new BitSet();
        list.getSelectionModel().getSelectedIndices().forEach(row -> selected.set(numbers[row]));
        return selected;
    }

    private Optional<Entry> entry(int row) {
        return pages.flatMap(read -> row < numbers.length ? read.get(row, numbers) : Optional.empty());
    }

    /** The numbers of all rows, in their order. */
    int[] rows() {
        return numbers.clone();
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
        private final Label picked = fixed(14, "picked");
        private final Label kind = Parts.text("", "lesser");
        private final UserText section = desk.veil().line("", "strong");
        private final Label sectionCount = fixed(86, "lesser");
        private boolean awaiting;
        private final HBox row = new HBox(8, section, sectionCount, day, time, who, rail, what, picked, kind);

        Cell() {
            who.setMinWidth(120);
            who.setPrefWidth(120);
            who.setMaxWidth(120);
            section.setMinWidth(110);
            section.setPrefWidth(110);
            section.setMaxWidth(110);
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
            boolean byTime = order.getValue().sorting().isEmpty();
            boolean first =
                    !byTime || index == 0 || !spine.day(places[index - 1]).equals(spine.day(place));
            day.setText(
                    first
                            ? spine.day(place)
                                    .map(date -> dayFormat.format(LocalDate.ofEpochDay(date)))
                                    .orElse(byTime ? "No date" : "")
                            : "");
            var begins = Optional.ofNullable(sections.get(index));
            section.setText(begins.map(Section::name).orElse(""));
            sectionCount.setText(begins.map(this::figures).orElse(""));
            var group = KindGroup.of(spine.kind(place));
            var tint = "tint-" + group.code();
            if (!rail.getStyleClass().contains(tint)) { // a style class that is set anew is worked out anew
                rail.getStyleClass().setAll("rail", "tint", tint);
            }
            kind.setText(
                    messages[index] > 0
                            ? desk.words().count(messages[index], "message", "messages")
                            : spine.kind(place).code());
            boolean together = !sections.isEmpty();
            boolean byPerson = order.getValue().sorting().equals(Optional.of(Sorting.PERSON));
            hide(kind, together);
            hide(who, together && byPerson);
            hide(section, !together);
            hide(sectionCount, !together);
            picked.setText(tray.has(numbers[index]) ? "✓" : "");
            var entry = entry(index);
            entry.ifPresentOrElse(there -> fill(there.thing()), this::awaited);
            setGraphic(row);
        }

        private static void hide(Node part, boolean hidden) {
            part.setVisible(!hidden);
            part.setManaged(!hidden);
        }

        private String figures(Section of) {
            return desk.words().count(of.count())
                    + (of.length().isZero() ? "" : " · " + ThingWords.length(of.length()));
        }

        /** Shows what has been read meanwhile. */
        void fillIfAwaited() {
            if (awaiting && !isEmpty() && getIndex() >= 0 && getIndex() < numbers.length) {
                entry(getIndex()).ifPresent(there -> fill(there.thing()));
            }
        }

        /** Until it is read. */
        private void awaited() {
            awaiting = true;
            time.setText("");
            who.setText("");
            what.setOpenText("…");
        }

        private void fill(Thing thing) {
            awaiting = false;
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
                    thing.kind().code() + (picked.getText().isEmpty() ? "" : ", in the tray")));
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
