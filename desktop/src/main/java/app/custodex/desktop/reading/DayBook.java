package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Folds;
import app.custodex.catalogue.Lists;
import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Lists.Sorting;
import app.custodex.catalogue.Spine.Seen;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;

/**
 * Everything that is looked at, of all kinds together, day by day; pictures alone as a contact sheet, or as rows too. However long it is,
 * only what is in sight is read.
 */
final class DayBook extends VBox {
    private final Desk desk;
    private final Consumer<Optional<Entry>> chosen;
    private final DayList list;
    private final ContactSheet sheet;
    private final StackPane views = new StackPane();
    private final SheetControls controls;
    private final Label count = Parts.text("", "lesser");
    private final Label empty = Parts.sentence("", "lesser");
    private final ComboBox<ListOrder> order = new ComboBox<>();
    private Optional<RoomModel.Room> room = Optional.empty();
    /** There is more of the same layer; shown with the next answer. */
    private Optional<RoomModel.Room> grown = Optional.empty();

    private Optional<RoomModel.Answer> answer = Optional.empty();
    /** All that was found, in its order. */
    private Optional<Arrangement> whole = Optional.empty();
    /** What of it is shown. */
    private Optional<Arrangement> arranged = Optional.empty();

    private Optional<Folds> folds = Optional.empty();
    private boolean foldsAsked;
    private boolean offering;
    private int filling;
    /** What is to be chosen when it is shown. */
    private OptionalLong sought = OptionalLong.empty();

    /**
     * Shows nothing yet.
     *
     * @param chosen is told what is chosen; empty for nothing
     * @param large shows a picture or video large
     */
    DayBook(Desk desk, TrayModel tray, Consumer<Optional<Entry>> chosen, FullView.Opener large) {
        this.desk = desk;
        this.chosen = chosen;
        list = new DayList(desk, tray, empty, chosen);
        sheet = new ContactSheet(desk, tray, chosen, large);
        controls = new SheetControls(sheet, this::switchView);
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
        count.setMinWidth(0);
        VBox.setVgrow(views, Priority.ALWAYS);
        views.getChildren().setAll(list.node());
        var head = new HBox(10, count, Parts.gap(), controls, order);
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 6 10 6 12;");
        getChildren().addAll(head, Parts.rule(), views);
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
        forget();
        list.clear();
        sheet.clear();
        sheet.of(newRoom.map(RoomModel.Room::phone));
        count.setText("");
    }

    private void forget() {
        whole = Optional.empty();
        arranged = Optional.empty();
        folds = Optional.empty();
        foldsAsked = false;
    }

    /** Which pictures stand behind others is looked for once a layer. */
    private void lookForFolds(RoomModel.Room in) {
        if (!foldsAsked) {
            foldsAsked = true;
            desk.work().start("Pictures", in.phone().catalogue()::folds, found -> {
                if (whole.filter(now -> now.room() == in).isPresent()) {
                    folds = Optional.of(found);
                    switchView();
                }
            });
        }
    }

    private Arrangement folded(Arrangement all) {
        return folds.filter(any -> !any.folded().isEmpty())
                .map(any -> all.without(
                        any.folded(), new Pages(all.room().phone().catalogue(), desk.work(), this::arrived)))
                .orElse(all);
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
            seekPresent();
            room = grown;
            grown = Optional.empty();
            sheet.of(room.map(RoomModel.Room::phone));
            forget(); // of the one before
        }
        fill();
    }

    /** What is chosen stays so, as long as it is still among what is shown. */
    private void seekPresent() {
        int row = view().present();
        if (sought.isEmpty()) {
            arranged.filter(rows -> row >= 0 && row < rows.size()).ifPresent(rows -> seek(rows.numbers()[row]));
        }
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
            show(by, rows, List.of(), new int[rows.length]);
            return;
        }
        var locale = desk.words().locale();
        desk.work().start("List", () -> order(in, seen, by.sorting().get(), locale), found -> {
            if (mine == filling) {
                show(by, found.rows(), found.by().sections(), found.by().messages());
            }
        });
    }

    /** @param rows the places of all things, in the order of time */
    private record Found(int[] rows, Lists.Arranged by) {}

    private Found order(RoomModel.Room in, int[] seen, Sorting sorting, Locale locale) throws IOException {
        var wanted = Arrays.stream(seen).map(in.spine()::number).toArray();
        var catalogue = in.phone().catalogue();
        var by = sorting == Sorting.PLACE
                ? catalogue.byPlace(
                        wanted, desk.custodex().map(desk.work()::tell).towns()::nameOf, locale)
                : catalogue.arranged(wanted, sorting, locale);
        var places = new int[Arrays.stream(wanted).max().orElse(0) + 1];
        for (int place : seen) {
            places[in.spine().number(place)] = place;
        }
        return new Found(
                Arrays.stream(by.numbers()).map(number -> places[number]).toArray(), by);
    }

    private void show(ListOrder by, int[] places, List<Section> sections, int[] messages) {
        var in = room.orElseThrow();
        var numbers = Arrays.stream(places).map(in.spine()::number).toArray();
        var pages = new Pages(in.phone().catalogue(), desk.work(), this::arrived);
        seekPresent();
        whole = Optional.of(new Arrangement(in, by, places, numbers, sections, messages, pages));
        showView();
        // What is in two albums stands in the list twice.
        var seen = answer.orElseThrow().seen();
        count.setText(desk.words().count(seen.places().length, "thing", "things") + total(sections) + size(seen));
    }

    /** The view that suits what is shown. */
    private RowsView view() {
        return views.getChildren().contains(sheet.node()) ? sheet : list;
    }

    /** The same in the other view, at the same place. */
    private void switchView() {
        var before = arranged.flatMap(rows -> {
            int row = view().present();
            return row >= 0 && row < rows.size() ? Optional.of(rows.numbers()[row]) : Optional.empty();
        });
        boolean focused = view().node().isFocused();
        showView();
        before.flatMap(number -> arranged.flatMap(rows -> rows.rowOf(number))).ifPresent(this::choose);
        if (focused) {
            view().focus();
        }
    }

    private void showView() {
        if (whole.isEmpty()) {
            return;
        }
        boolean pictures = answer.orElseThrow().asked().groups().equals(Set.of(KindGroup.PICTURES));
        controls.offer(pictures);
        boolean asSheet = pictures && controls.asSheet() && whole.get().size() > 0;
        if (asSheet) {
            lookForFolds(whole.get().room());
        }
        arranged = asSheet && controls.folding() ? whole.map(this::folded) : whole;
        controls.offerFolding(folds.filter(any -> !any.folded().isEmpty()).isPresent());
        sheet.fold(controls.folding() ? folds : Optional.empty());
        views.getChildren().setAll(asSheet ? sheet.node() : list.node());
        view().show(arranged.get());
        sought.stream()
                .boxed()
                .flatMap(number -> arranged.get().rowOf(number).stream())
                .forEach(view()::choose);
        sought = OptionalLong.empty();
    }

    /** How long all of it is. */
    private static String total(List<Section> in) {
        var all = in.stream().map(Section::length).reduce(Duration.ZERO, Duration::plus);
        return all.isZero() ? "" : ", " + ThingWords.length(all) + " in all";
    }

    /** How large the files of one group of kinds are, where that is what it is about. */
    private String size(Seen seen) {
        var groups = answer.orElseThrow().asked().groups();
        long bytes = groups.stream()
                .flatMap(group -> group.kinds().stream())
                .mapToLong(seen::bytesOf)
                .sum();
        return bytes == 0 ? "" : ", " + desk.words().bytes(bytes);
    }

    private void arrived() {
        view().arrived();
        arranged.flatMap(rows -> rows.entry(view().present())).ifPresent(entry -> chosen.accept(Optional.of(entry)));
    }

    /** The numbers of all rows, in their order. */
    int[] rows() {
        return arranged.map(rows -> rows.numbers().clone()).orElseGet(() -> new int[0]);
    }

    /** What is shown. */
    Optional<Arrangement> arranged() {
        return arranged;
    }

    /** Chooses a row; one that is not there is left alone. */
    void choose(int row) {
        if (arranged.filter(rows -> row >= 0 && row < rows.size()).isPresent()) {
            view().choose(row);
        }
    }

    /** Chooses a thing, if it is in the list. */
    void chooseThing(long number) {
        arranged.flatMap(rows -> rows.rowOf(number)).ifPresent(this::choose);
    }

    /** @return false at the end of the list */
    boolean chooseNext() {
        int next = view().present() + 1;
        choose(next);
        return arranged.filter(rows -> next < rows.size()).isPresent();
    }

    void focusList() {
        view().focus();
    }
}
