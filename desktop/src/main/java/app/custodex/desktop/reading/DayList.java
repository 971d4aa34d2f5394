package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Lists.Sorting;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.LongList;
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
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.scene.text.Text;

/** Things as rows of words, day by day or group by group. */
final class DayList implements RowsView {
    private static final double ROW = 34;

    private final Desk desk;
    private final TrayModel tray;
    private final LongList list;
    private final DateTimeFormatter dayFormat;
    private final DateTimeFormatter timeFormat;
    private Optional<Arrangement> shown = Optional.empty();
    /** By the row at which they begin. */
    private final Map<Integer, Section> sections = new HashMap<>();

    /**
     * A list.
     *
     * @param empty stands where there is nothing
     * @param chosen is told what is chosen; empty for nothing
     */
    DayList(Desk desk, TrayModel tray, Node empty, Consumer<Optional<Entry>> chosen) {
        this.desk = desk;
        this.tray = tray;
        list = new LongList(ROW, DayRow::new, empty);
        desk.veil().down().addListener((o, was, is) -> list.refresh());
        tray.picked().addListener((o, was, is) -> list.refresh());
        var locale = desk.words().locale();
        dayFormat = DateTimeFormatter.ofLocalizedDate(FormatStyle.MEDIUM).localizedBy(locale);
        timeFormat = DateTimeFormatter.ofLocalizedTime(FormatStyle.SHORT).localizedBy(locale);
        list.setId("day-book");
        list.setAccessibleText("Day book");
        list.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.T && !event.isShortcutDown()) {
                tray.toggle(selected());
                event.consume();
            }
        });
        list.whenChosen(() -> chosen.accept(shown.flatMap(rows -> rows.entry(list.present()))));
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
        list.setRows(arrangement.size());
    }

    @Override
    public void clear() {
        shown = Optional.empty();
        list.setRows(0);
    }

    @Override
    public void choose(int row) {
        list.choose(row);
    }

    @Override
    public int present() {
        return list.present();
    }

    @Override
    public BitSet selected() {
        return shown.map(all -> all.numbersOf(list.selected())).orElseGet(BitSet::new);
    }

    @Override
    public void arrived() {
        list.inSight().forEach(row -> ((DayRow) row).fillIfAwaited());
    }

    @Override
    public void focus() {
        list.requestFocus();
        if (list.present() < 0) {
            list.choose(0);
        }
    }

    /** Laid out by hand: nested panes measure each text several times, and that is most of the work while a list moves. */
    private final class DayRow extends LongList.Row {
        private static final double GAP = 8;
        private static final double SECTION = 110;
        private static final double COUNT = 86;
        private static final double DAY = 94;
        private static final double TIME = 62;
        private static final double WHO = 120;
        private static final double RAIL = 2;
        private static final double RAIL_HEIGHT = 20;
        private static final double PICKED = 14;

        private final Text day = Parts.run("strong");
        private final Text time = Parts.run("lesser", "mono");
        private final UserText who = desk.veil().line("", "who");
        /** One a group: to give one another colour is to work out its style anew. */
        private final Map<KindGroup, Region> rails = new EnumMap<>(KindGroup.class);

        private final UserText what = desk.veil().line("");
        private final Text picked = Parts.run("picked");
        private final Text kind = Parts.run("lesser");
        private final UserText section = desk.veil().line("", "strong");
        private final Text sectionCount = Parts.run("lesser");
        private boolean awaiting;

        DayRow() {
            getChildren().addAll(section, sectionCount, day, time, who, what, picked, kind);
        }

        @Override
        protected void show(int row) {
            var rows = shown.orElseThrow();
            var spine = rows.spine();
            int place = rows.places()[row];
            boolean byTime = rows.byTime();
            boolean first =
                    !byTime || row == 0 || !spine.day(rows.places()[row - 1]).equals(spine.day(place));
            day.setText(
                    first
                            ? spine.day(place)
                                    .map(date -> dayFormat.format(LocalDate.ofEpochDay(date)))
                                    .orElse(byTime ? "No date" : "")
                            : "");
            var begins = Optional.ofNullable(sections.get(row));
            section.setText(begins.map(Section::name).orElse(""));
            sectionCount.setText(begins.map(this::figures).orElse(""));
            showRail(KindGroup.of(spine.kind(place)));
            kind.setText(
                    rows.messages()[row] > 0
                            ? desk.words().count(rows.messages()[row], "message", "messages")
                            : spine.kind(place).code());
            boolean together = !sections.isEmpty();
            kind.setVisible(!together);
            who.setVisible(!together || !rows.order().sorting().equals(Optional.of(Sorting.PERSON)));
            section.setVisible(together);
            sectionCount.setVisible(together);
            picked.setText(tray.has(rows.numbers()[row]) ? "✓" : "");
            rows.entry(row).ifPresentOrElse(there -> fill(there.thing()), this::awaited);
            requestLayout();
        }

        private void showRail(KindGroup group) {
            rails.computeIfAbsent(group, this::rail);
            rails.forEach((of, rail) -> rail.setVisible(of == group));
        }

        private Region rail(KindGroup group) {
            var rail = new Region();
            rail.getStyleClass().addAll("rail", "tint", "tint-" + group.code());
            rail.setManaged(false);
            getChildren().add(rail);
            rail.applyCss();
            return rail;
        }

        @Override
        protected void layoutChildren() {
            double middle = Math.round(getHeight() / 2);
            double x = snappedLeftInset();
            if (section.isVisible()) {
                x = across(section, x, SECTION);
                x = at(sectionCount, x, middle, COUNT);
            }
            x = at(day, x, middle, DAY);
            x = at(time, x, middle, TIME);
            if (who.isVisible()) {
                x = across(who, x, WHO);
            }
            for (var rail : rails.values()) {
                rail.resizeRelocate(x, middle - RAIL_HEIGHT / 2, RAIL, RAIL_HEIGHT);
            }
            x += RAIL + GAP;
            double right = getWidth() - snappedRightInset();
            if (kind.isVisible()) {
                right -= Math.ceil(kind.getLayoutBounds().getWidth());
                at(kind, right, middle, 0);
                right -= GAP;
            }
            right -= PICKED;
            at(picked, right, middle, PICKED);
            across(what, x, Math.max(0, right - GAP - x));
        }

        /** @return where the next one begins */
        private double at(Text text, double x, double middle, double width) {
            text.setX(x);
            text.setY(middle);
            return x + width + GAP;
        }

        private double across(UserText text, double x, double width) {
            text.resizeRelocate(x, 0, width, getHeight());
            return x + width + GAP;
        }

        private String figures(Section of) {
            return desk.words().count(of.count())
                    + (of.length().isZero() ? "" : " · " + ThingWords.length(of.length()));
        }

        /** Shows what has been read meanwhile. */
        void fillIfAwaited() {
            if (awaiting) {
                shown.flatMap(rows -> rows.entry(row())).ifPresent(there -> fill(there.thing()));
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
