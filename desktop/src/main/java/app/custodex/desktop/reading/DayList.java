package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Lists.Sorting;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.KindGroup;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Thing;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.SelectionMode;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;

/** Things as rows of words, day by day or group by group. */
final class DayList implements RowsView {
    private static final double ROW = 34;

    private final Desk desk;
    private final TrayModel tray;
    private final ListView<Integer> list = new ListView<>();
    private final DateTimeFormatter dayFormat;
    private final DateTimeFormatter timeFormat;
    private Optional<Arrangement> shown = Optional.empty();
    /** By the row at which they begin. */
    private final Map<Integer, Section> sections = new HashMap<>();

    /** All that were made; the list uses them again and again. */
    private final Set<Cell> cells = Collections.newSetFromMap(new WeakHashMap<>());

    /**
     * A list.
     *
     * @param empty stands where there is nothing
     * @param chosen is told what is chosen; empty for nothing
     */
    DayList(Desk desk, TrayModel tray, Node empty, Consumer<Optional<Entry>> chosen) {
        this.desk = desk;
        this.tray = tray;
        desk.veil().down().addListener((o, was, is) -> list.refresh());
        tray.picked().addListener((o, was, is) -> list.refresh());
        var locale = desk.words().locale();
        dayFormat = DateTimeFormatter.ofLocalizedDate(FormatStyle.MEDIUM).localizedBy(locale);
        timeFormat = DateTimeFormatter.ofLocalizedTime(FormatStyle.SHORT).localizedBy(locale);
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
                .addListener((o, was, is) ->
                        chosen.accept(is == null ? Optional.empty() : shown.flatMap(rows -> rows.entry(is))));
    }

    @Override
    public Region node() {
        return list;
    }

    @Override
    public void show(Arrangement arrangement) {
        shown = Optional.of(arrangement);
        sections.clear();
        arrangement.sections().forEach(section -> sections.put(section.first(), section));
        list.setItems(Rows.of(arrangement.size()));
        list.scrollTo(0);
    }

    @Override
    public void clear() {
        shown = Optional.empty();
        list.setItems(FXCollections.observableArrayList());
    }

    @Override
    public void choose(int row) {
        list.getSelectionModel().clearAndSelect(row);
        list.scrollTo(Math.max(0, row - 4));
    }

    @Override
    public int present() {
        return list.getSelectionModel().getSelectedIndex();
    }

    @Override
    public BitSet selected() {
        var rows = new BitSet();
        list.getSelectionModel().getSelectedIndices().forEach(rows::set);
        return shown.map(all -> all.numbersOf(rows)).orElseGet(BitSet::new);
    }

    @Override
    public void arrived() {
        cells.forEach(Cell::fillIfAwaited);
    }

    @Override
    public void focus() {
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
            if (empty
                    || index == null
                    || shown.isEmpty()
                    || index >= shown.get().size()) {
                setGraphic(null);
                return;
            }
            var rows = shown.get();
            var spine = rows.spine();
            int place = rows.places()[index];
            boolean byTime = rows.byTime();
            boolean first = !byTime
                    || index == 0
                    || !spine.day(rows.places()[index - 1]).equals(spine.day(place));
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
                    rows.messages()[index] > 0
                            ? desk.words().count(rows.messages()[index], "message", "messages")
                            : spine.kind(place).code());
            boolean together = !sections.isEmpty();
            boolean byPerson = rows.order().sorting().equals(Optional.of(Sorting.PERSON));
            hide(kind, together);
            hide(who, together && byPerson);
            hide(section, !together);
            hide(sectionCount, !together);
            picked.setText(tray.has(rows.numbers()[index]) ? "✓" : "");
            rows.entry(index).ifPresentOrElse(there -> fill(there.thing()), this::awaited);
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
            if (awaiting && !isEmpty()) {
                shown.flatMap(rows -> rows.entry(getIndex())).ifPresent(there -> fill(there.thing()));
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
            var room = shown.orElseThrow().room();
            var words = new ThingWords(room.names());
            var zone = room.phone().phone().timeZone();
            time.setText(thing.moment().map(moment -> time(moment, zone)).orElse(""));
            if (shown.orElseThrow().order().sorting().equals(Optional.of(Sorting.MADE)) && thing instanceof Note note) {
                day.setText(note.made()
                        .map(made -> dayFormat.format(made.day(zone)))
                        .orElse("Not known"));
                time.setText(note.made().map(made -> time(made, zone)).orElse(""));
            }
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
