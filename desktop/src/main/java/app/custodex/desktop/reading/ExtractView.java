package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.app.Settings;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.InWords;
import app.custodex.desktop.ui.Parts;
import app.custodex.docket.RouteStep;
import app.custodex.extract.Delivery;
import app.custodex.extract.Extraction;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import app.custodex.seal.Passphrase;
import java.time.Duration;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.PauseTransition;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Takes things out into open files: in which format each group of them, where to, what it will look like, and what was written. */
final class ExtractView extends HBox {
    private static final double LEFT_WIDTH = 560;

    private final Desk desk;
    private final TrayModel tray;
    private final Label title = Parts.text("", "title");
    private final Label which = Parts.text("", "lesser");
    private final VBox rows = new VBox();
    private final CheckBox merged = new CheckBox();
    private final HandOutAs handOut = new HandOutAs();
    private final ColumnSets columnSets;
    private final FolderField folder;
    private final ComboBox<ZoneId> zone = new ComboBox<>();
    private final Button start = Parts.button("extract-start", "Write the files", "Ctrl+Enter", this::start, "main");
    private final Button stop = Parts.button("extract-stop", "Stop", "", this::stop);
    private final Label progress = Parts.text("", "lesser");
    private final Label room = Parts.sentence("", "lesser");
    /** Runs while somebody types where to write. */
    private final PauseTransition settled = new PauseTransition(javafx.util.Duration.millis(400));

    private final ExtractedFiles result;
    private final ExtractPreview preview;
    private final List<ExtractRow> groups = new ArrayList<>();
    private Optional<OpenPhone> phone = Optional.empty();
    private Map<KindGroup, long[]> numbers = Map.of();
    private Optional<CancelToken> running = Optional.empty();
    private int measured;
    /** How often it was opened or left. */
    private int opened;

    /** @param closed is told that it is to be put away */
    ExtractView(Desk desk, TrayModel tray, Runnable closed) {
        this.desk = desk;
        this.tray = tray;
        preview = new ExtractPreview(desk);
        result = new ExtractedFiles(desk);
        folder = new FolderField(desk, "extract", "Where to write the files");
        columnSets = new ColumnSets(desk);
        setId("extract");
        getStyleClass().add("pane-border");
        title.setId("extract-title");
        title.setMinWidth(USE_PREF_SIZE);
        which.setMinWidth(0);
        merged.setId("extract-merged");
        merged.setSelected(true);
        merged.setOnAction(event -> look());
        zone.setId("extract-zone");
        zone.setConverter(new InWords<>(value -> zoneWords(value)));
        zone.valueProperty().addListener((o, was, is) -> look());
        stop.setVisible(false);
        stop.managedProperty().bind(stop.visibleProperty());
        getChildren().addAll(left(closed), right());
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                closed.run();
                event.consume();
            } else if (event.getCode() == KeyCode.ENTER && event.isShortcutDown()) {
                start();
                event.consume();
            }
        });
    }

    private VBox left(Runnable closed) {
        var head = new HBox(10, title, which, Parts.gap(), Parts.button("extract-close", "Close", "Esc", closed));
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 8 10 8 12;");
        var scroll = new ScrollPane(rows);
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var times = Parts.row(Parts.text("Times in", "lesser"), zone, Parts.gap(), progress, stop, start);
        room.setId("extract-room");
        handOut.onChange(this::measure);
        folder.onChange(settled::playFromStart);
        settled.setOnFinished(event -> measure());
        var foot = new VBox(8, handOut, folder, room, times);
        foot.setStyle("-fx-padding: 10 12 10 12;");
        var left = new VBox(head, Parts.rule(), scroll, Parts.rule(), foot);
        left.getStyleClass().add("split-left");
        left.setMinWidth(LEFT_WIDTH);
        left.setMaxWidth(LEFT_WIDTH);
        return left;
    }

    private VBox right() {
        VBox.setVgrow(preview, Priority.ALWAYS);
        var right = new VBox(10, result, preview);
        result.managedProperty().bind(result.visibleProperty());
        preview.managedProperty().bind(preview.visibleProperty());
        preview.visibleProperty().bind(result.visibleProperty().not());
        VBox.setVgrow(result, Priority.ALWAYS);
        right.setStyle("-fx-padding: 10 14 10 14;");
        HBox.setHgrow(right, Priority.ALWAYS);
        right.setMinWidth(0);
        return right;
    }

    /**
     * Shows how things can be taken out.
     *
     * @param picked their numbers
     * @param inTray whether they were picked, or are what the list shows
     */
    void open(OpenPhone of, BitSet picked, boolean inTray) {
        if (running.isPresent() && phone.equals(Optional.of(of))) {
            return; // it goes on behind, and shows where it is
        }
        leave();
        phone = Optional.of(of);
        title.setText("Extract");
        which.setText("…");
        zone.getItems().setAll(zones(of));
        zone.setValue(of.phone().timeZone());
        int mine = opened;
        desk.work()
                .start(
                        "Extract",
                        () -> new Found(of.groups(picked), desk.custodex().settings()),
                        found -> {
                            if (mine == opened) { // it may have been opened anew meanwhile, and must not have its rows
                                // twice
                                take(found, inTray);
                            }
                        });
    }

    /** @param settings with how each group was written last */
    private record Found(Map<KindGroup, long[]> groups, Settings settings) {}

    private String zoneWords(ZoneId of) {
        return desk.words().zone(of, desk.now());
    }

    private static List<ZoneId> zones(OpenPhone of) {
        var zones = new ArrayList<>(List.of(of.phone().timeZone()));
        for (var more : List.of(ZoneId.systemDefault(), ZoneId.of("UTC"))) {
            if (!zones.contains(more)) {
                zones.add(more);
            }
        }
        return zones;
    }

    private void take(Found found, boolean inTray) {
        numbers = found.groups();
        long all = numbers.values().stream().mapToLong(each -> each.length).sum();
        title.setText("Extract " + desk.words().count(all, "thing", "things"));
        which.setText(inTray ? "in the tray" : "in the list; nothing is in the tray");
        handOut.restore(found.settings().handOutAs());
        columnSets.take(found.settings().columnSets());
        numbers.forEach((group, own) -> {
            var before = found.settings().formats().getOrDefault(group.code(), "");
            var row = new ExtractRow(group, desk.words().count(own.length), before, columnSets, this::look);
            groups.add(row);
            if (group == KindGroup.CONTACTS) {
                offerMerged(row);
            }
            rows.getChildren().addAll(row, Parts.rule());
        });
        start.setDisable(groups.isEmpty());
        look();
        start.requestFocus();
    }

    private void offerMerged(ExtractRow row) {
        int apart = contacts(false).size();
        int asOne = contacts(true).size();
        merged.setText("Merged as settled under Twins: " + desk.words().count(asOne) + " instead of "
                + desk.words().count(apart));
        if (asOne < apart) {
            row.add(merged);
        }
    }

    private List<Contact> contacts(boolean asOne) {
        var apart = phone.map(open -> open.contacts(numbers.getOrDefault(KindGroup.CONTACTS, new long[0])))
                .orElse(List.of());
        return asOne ? tray.merged(apart) : apart;
    }

    private List<Extraction.Order> orders() {
        return groups.stream()
                .filter(row -> row.format().isPresent())
                .map(this::order)
                .toList();
    }

    private Extraction.Order order(ExtractRow row) {
        var order = Extraction.Order.of(
                row.group(),
                numbers.getOrDefault(row.group(), new long[0]),
                row.format().orElseThrow(),
                row.chosen());
        return row.group() == KindGroup.CONTACTS ? order.with(contacts(merged.isSelected())) : order;
    }

    /** Shows what would be written. */
    private void look() {
        result.clear();
        start.setDisable(orders().isEmpty() || running.isPresent());
        phone.ifPresent(of -> Optional.ofNullable(zone.getValue()).ifPresent(in -> preview.show(of, orders(), in)));
        measure();
    }

    /** Says how much room is needed and how much there is, before anything is written. */
    private void measure() {
        var target = folder.folder();
        if (phone.isEmpty() || target.isEmpty()) {
            room.setText("");
            return;
        }
        var of = phone.get();
        var orders = orders();
        var form = handOut.form();
        int mine = ++measured;
        desk.work().start("Extract", () -> of.outgoing().room(orders, form, target.get()), found -> {
            if (mine == measured) {
                var words = (found.needed() > 0 ? "At least " + desk.words().bytes(found.needed()) + ". " : "")
                        + about(found.about())
                        + desk.words().bytes(found.free()) + " free there. Nothing is overwritten.";
                room.setText(found.trouble().map(Problem::sentence).orElse(words));
            }
        });
    }

    /** What takes a moment only is not worth a word. */
    private static String about(Duration time) {
        if (time.toSeconds() < 5) {
            return "";
        }
        return time.toSeconds() < 90
                ? "About " + time.toSeconds() / 5 * 5 + " s. "
                : "About " + Math.round(time.toSeconds() / 60.0) + " min. ";
    }

    private void stop() {
        running.ifPresent(CancelToken::cancel);
    }

    private void start() {
        if (phone.isEmpty() || running.isPresent() || orders().isEmpty()) {
            return;
        }
        var typed = folder.folderOrTell();
        if (typed.isEmpty()) {
            return;
        }
        var target = typed.get();
        var of = phone.get();
        var orders = orders();
        long all = orders.stream().mapToLong(Extraction.Order::count).sum();
        var in = zone.getValue();
        Delivery delivery;
        try {
            delivery = handOut.delivery();
        } catch (ProblemException e) {
            desk.work().tell(e.problem());
            return;
        }
        var remembered = new HashMap<String, String>();
        groups.forEach(row -> remembered.put(row.group().code(), row.typed()));
        var cancel = new CancelToken();
        running = Optional.of(cancel);
        start.setDisable(true);
        stop.setVisible(true);
        result.clear();
        var done = new AtomicInteger();
        var ticker = new Timeline(new KeyFrame(
                javafx.util.Duration.millis(200),
                event -> progress.setText(
                        desk.words().count(done.get()) + " of " + desk.words().count(all))));
        ticker.setCycleCount(Animation.INDEFINITE);
        ticker.play();
        desk.work()
                .start(
                        "Extract",
                        () -> {
                            var written = of.outgoing().extract(orders, in, delivery, target, done::set, cancel);
                            var formats =
                                    new HashMap<>(desk.custodex().settings().formats());
                            formats.putAll(remembered);
                            desk.custodex().remember(formats, delivery.form().code());
                            return written;
                        },
                        written -> {
                            if (phone.equals(Optional.of(of))) {
                                result.show(of, written, target);
                            }
                            desk.stepDone(of.phone(), RouteStep.EXTRACT);
                        },
                        () -> {
                            delivery.passphrase().ifPresent(Passphrase::close);
                            ticker.stop();
                            progress.setText(
                                    cancel.isCancelled() ? "Stopped; files that were complete are there." : "");
                            running = Optional.empty();
                            start.setDisable(orders().isEmpty());
                            stop.setVisible(false);
                        });
    }

    /** Forgets the layer that is no longer open. What is being written goes on. */
    void leave() {
        opened++;
        phone = Optional.empty();
        numbers = Map.of();
        groups.clear();
        rows.getChildren().clear();
        result.clear();
        preview.clear();
        start.setDisable(true);
    }
}
