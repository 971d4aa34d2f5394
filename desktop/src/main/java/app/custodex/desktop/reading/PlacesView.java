package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Places;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.map.MapPane;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Rest;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.ThingKind;
import app.custodex.places.Mercator;
import app.custodex.places.Outline;
import app.custodex.places.WorldMap;
import java.io.IOException;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Where pictures and tracks were taken: a map, and beside it the pictures of the place that is chosen on it, or of all that is in sight. */
final class PlacesView extends HBox {
    private static final double SHEET_WIDTH = 400;
    /** Of so many tracks, the newest, the way is drawn. */
    private static final int MOST_TRACKS = 50;

    private static final int MOST_POINTS = 20_000;

    private final Desk desk;
    private final TrayModel tray;
    private final Label count = Parts.text("", "lesser");
    private final UserText where;
    private final Label shownCount = Parts.text("", "lesser");
    private final VBox trackNames = new VBox(2);
    private final UserText what;
    private final Button pick = Parts.button("places-pick", "Put in tray", "Ctrl+T", this::pickAllShown);
    private final MapPane map;
    private final ContactSheet sheet;
    /** The pictures follow when the map rests. */
    private final Rest<Boolean> moved = new Rest<>(still -> showPictures());

    private Optional<RoomModel.Room> room = Optional.empty();
    private Optional<RoomModel.Answer> answer = Optional.empty();
    private Optional<WorldMap> world = Optional.empty();
    private Optional<Places> places = Optional.empty();
    /** The ways of tracks, by their numbers. */
    private Map<Integer, Track> tracks = Map.of();
    /** Which of the places are on the map, in the order of its points. */
    private int[] onMap = new int[0];
    /** The points that are chosen on it; none for all in sight. */
    private BitSet chosen = new BitSet();

    private Optional<Arrangement> shown = Optional.empty();
    private boolean fitted;

    private record Track(String name, List<Outline> way) {}

    /** @param closed is told that it is to be put away */
    PlacesView(Desk desk, TrayModel tray, FullView.Opener large, Runnable closed) {
        this.desk = desk;
        this.tray = tray;
        setId("places");
        getStyleClass().add("pane-border");
        map = new MapPane(new MapPane.Listener() {
            @Override
            public void chosen(BitSet points) {
                chosen = points;
                showPictures();
            }

            @Override
            public void moved() {
                if (chosen.isEmpty()) {
                    moved.take(true);
                }
            }
        });
        desk.veil().picture(map);
        sheet = new ContactSheet(desk, tray, this::describe, large);
        sheet.setId("places-sheet");
        where = desk.veil().line("", "heading");
        where.setId("places-where");
        what = desk.veil().paragraph("", "lesser");
        count.setId("places-count");
        count.setMinWidth(0);
        shownCount.setId("places-shown");
        getChildren().addAll(mapSide(closed), sheetSide());
    }

    private VBox mapSide(Runnable closed) {
        var fit = Parts.button("places-fit", "All of them", "0", map::fit);
        var head = new HBox(8, count, Parts.gap(), fit, Parts.button("places-close", "Close", "Esc", closed));
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 8 10 8 12;");
        var ground = new StackPane(map);
        VBox.setVgrow(ground, Priority.ALWAYS);
        var side = new VBox(head, Parts.rule(), ground);
        side.getStyleClass().add("split-left");
        side.setMinWidth(0);
        HBox.setHgrow(side, Priority.ALWAYS);
        return side;
    }

    private VBox sheetSide() {
        var words = new VBox(2, where, shownCount, trackNames);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        var head = new HBox(8, words, pick);
        head.setAlignment(Pos.TOP_LEFT);
        head.setStyle("-fx-padding: 8 10 8 12;");
        VBox.setVgrow(sheet, Priority.ALWAYS);
        what.setStyle("-fx-padding: 6 10 8 12;");
        var side = new VBox(head, Parts.rule(), sheet, Parts.rule(), what);
        side.setMinWidth(SHEET_WIDTH);
        side.setMaxWidth(SHEET_WIDTH);
        return side;
    }

    /** Shows the places of a layer. */
    void open(RoomModel.Room of, RoomModel.Answer first) {
        if (room.filter(before -> before == of).isPresent()) {
            show(first);
            map.requestFocus();
            return;
        }
        leave();
        room = Optional.of(of);
        sheet.of(Optional.of(of.phone()));
        answer = Optional.of(first);
        count.setText("Drawing the map…");
        desk.work().start("The map", () -> desk.custodex().map(desk.work()::tell), this::take);
        desk.work().start("Places", () -> of.phone().catalogue().places(), found -> {
            if (room.equals(Optional.of(of))) {
                places = Optional.of(found);
                answer.ifPresent(this::show);
            }
        });
        desk.work().start("Tracks", () -> tracks(of), found -> {
            if (room.equals(Optional.of(of))) {
                tracks = found;
                answer.ifPresent(this::show);
            }
        });
        map.requestFocus();
    }

    private void take(WorldMap newWorld) {
        world = Optional.of(newWorld);
        map.show(newWorld);
        showPictures();
    }

    private Map<Integer, Track> tracks(RoomModel.Room of) throws IOException {
        var spine = of.spine();
        var newest = IntStream.iterate(spine.size() - 1, place -> place >= 0, place -> place - 1)
                .filter(place -> spine.kind(place) == ThingKind.ROUTE)
                .limit(MOST_TRACKS)
                .mapToLong(spine::number)
                .toArray();
        var tracks = new TreeMap<Integer, Track>();
        for (var entry : of.phone().catalogue().read(newest)) {
            var item = entry.thing().id().item();
            try {
                var way = of.phone().way(item, MOST_POINTS).stream()
                        .map(Outline::through)
                        .toList();
                tracks.put((int) entry.number(), new Track(entry.thing().title(), way));
            } catch (IOException unreadable) {
                desk.work()
                        .tell(Problem.loss(
                                item, "The track can't be read, so its way is not drawn", "Check the layer"));
            }
        }
        return tracks;
    }

    /** Shows what was found of it. */
    void show(RoomModel.Answer newAnswer) {
        answer = Optional.of(newAnswer);
        if (places.isEmpty() || room.isEmpty()) {
            return;
        }
        var all = places.get();
        var wanted = numbers(newAnswer);
        onMap = IntStream.range(0, all.size())
                .filter(i -> wanted.get(all.number(i)))
                .toArray();
        chosen = new BitSet();
        map.show(
                Arrays.stream(onMap)
                        .mapToDouble(i -> Mercator.x(all.place(i).longitude()))
                        .toArray(),
                Arrays.stream(onMap)
                        .mapToDouble(i -> Mercator.y(all.place(i).latitude()))
                        .toArray(),
                tracks.entrySet().stream()
                        .filter(track -> wanted.get(track.getKey()))
                        .flatMap(track -> track.getValue().way().stream())
                        .toList());
        if (!fitted && onMap.length > 0) {
            fitted = true;
            map.fit();
        }
        int taken = newAnswer.seen().of(ThingKind.PICTURE) + newAnswer.seen().of(ThingKind.VIDEO);
        count.setText(
                all.size() == 0
                        ? "No picture and no track in this layer says where it was taken."
                        : desk.words().count(onMap.length, "thing says", "things say") + " where; "
                                + desk.words().count(taken, "picture or video", "pictures and videos") + " in all");
        showPictures();
    }

    private BitSet numbers(RoomModel.Answer of) {
        var spine = room.orElseThrow().spine();
        var numbers = new BitSet();
        for (int place : of.seen().places()) {
            numbers.set(spine.number(place));
        }
        return numbers;
    }

    /** The pictures of what is chosen, or of all that is in sight. */
    private void showPictures() {
        if (room.isEmpty() || answer.isEmpty() || places.isEmpty()) {
            return;
        }
        var in = room.get();
        var points = chosen.isEmpty() ? map.inSight() : chosen;
        var numbers = new BitSet();
        points.stream()
                .filter(point -> point < onMap.length)
                .forEach(point -> numbers.set(places.get().number(onMap[point])));
        var seen = answer.get().seen().places();
        var rows = IntStream.iterate(seen.length - 1, i -> i >= 0, i -> i - 1)
                .map(i -> seen[i])
                .filter(place -> numbers.get(in.spine().number(place)))
                .filter(place -> KindGroup.PICTURES.kinds().contains(in.spine().kind(place)))
                .toArray();
        var rowNumbers = Arrays.stream(rows).map(in.spine()::number).toArray();
        var pages = new Pages(in.phone().catalogue(), desk.work(), sheet::arrived);
        var arrangement =
                new Arrangement(in, ListOrder.NEWEST, rows, rowNumbers, List.of(), new int[rows.length], pages);
        shown = Optional.of(arrangement);
        sheet.show(arrangement);
        where.setText(chosen.isEmpty() ? "In sight" : name(points));
        shownCount.setText(desk.words().count(rows.length, "picture or video", "pictures and videos"));
        trackNames
                .getChildren()
                .setAll(tracks.entrySet().stream()
                        .filter(track -> numbers.get(track.getKey()))
                        .map(track ->
                                desk.veil().line("Track: " + track.getValue().name(), "lesser"))
                        .collect(Collectors.toList()));
        pick.setDisable(rows.length == 0 && trackNames.getChildren().isEmpty());
        what.setText("");
    }

    private Place middle(BitSet points) {
        double latitude = points.stream()
                .mapToDouble(point -> places.orElseThrow().place(onMap[point]).latitude())
                .average()
                .orElse(0);
        double longitude = points.stream()
                .mapToDouble(point -> places.orElseThrow().place(onMap[point]).longitude())
                .average()
                .orElse(0);
        return new Place(latitude, longitude);
    }

    private String name(BitSet points) {
        return world.map(map -> map.towns().nameOf(middle(points))).orElse("");
    }

    private void describe(Optional<Entry> entry) {
        what.setText(entry.map(of -> of.thing().title()
                        + of.thing()
                                .moment()
                                .map(moment -> " · "
                                        + desk.words()
                                                .when(
                                                        moment,
                                                        room.orElseThrow()
                                                                .phone()
                                                                .phone()
                                                                .timeZone()))
                                .orElse(""))
                .orElse(""));
    }

    /** Puts everything that is chosen on the map, or in sight of it, into the tray: the tracks too. */
    void pickAllShown() {
        if (places.isEmpty()) {
            return;
        }
        var points = chosen.isEmpty() ? map.inSight() : chosen;
        var numbers = new BitSet();
        points.stream().forEach(point -> numbers.set(places.get().number(onMap[point])));
        tray.put(numbers);
    }

    /** Goes on with a picture that was looked at large. */
    void choose(Optional<Entry> picture) {
        picture.flatMap(entry -> shown.flatMap(rows -> rows.rowOf(entry.number())))
                .ifPresent(sheet::choose);
        sheet.requestFocus();
    }

    void focusMap() {
        map.requestFocus();
    }

    /** Forgets the layer that is no longer open. */
    void leave() {
        room = Optional.empty();
        answer = Optional.empty();
        places = Optional.empty();
        tracks = Map.of();
        onMap = new int[0];
        chosen = new BitSet();
        shown = Optional.empty();
        fitted = false;
        moved.drop();
        map.show(new double[0], new double[0], List.of());
        sheet.clear();
        sheet.of(Optional.<OpenPhone>empty());
        where.setText("");
        what.setText("");
        count.setText("");
        shownCount.setText("");
        trackNames.getChildren().clear();
    }
}
