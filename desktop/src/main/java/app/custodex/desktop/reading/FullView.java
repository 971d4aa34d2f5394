package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.Decoded;
import app.custodex.desktop.media.FilmView;
import app.custodex.desktop.media.Pixels;
import app.custodex.desktop.media.PlayerBar;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Picture;
import app.custodex.media.UnplayableException;
import app.custodex.model.MediaFile;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Optional;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** A picture or video as large as the room, and the next one, and the one before. */
final class FullView extends BorderPane {
    private static final Logger LOG = LoggerFactory.getLogger(FullView.class);
    /** Pixels along the longer side of what is decoded first; a larger one comes when somebody looks closer. */
    private static final int FIRST = 1600;

    private static final int FILM_WIDTH = 1280;
    private static final int FILM_HEIGHT = 720;
    private static final Duration STEP = Duration.ofMillis(40);

    /** Shows one of a list large. */
    interface Opener {
        /** @param numbers of the list, in the catalogue */
        void open(OpenPhone phone, int[] numbers, int row);
    }

    private final Desk desk;
    private final TrayModel tray;
    private final Runnable closed;
    private final UserText name;
    private final Label number = Parts.text("", "lesser");
    private final Label facts = Parts.sentence("", "lesser");
    private final UserText where;
    private final ZoomPane zoom = new ZoomPane(this::lookCloser);
    private final Label trouble = Parts.sentence("", "lesser");
    private final VBox below = new VBox(6);
    private final Button before = Parts.button("full-before", "Previous", "←", () -> go(-1));
    private final Button after = Parts.button("full-after", "Next", "→", () -> go(1));
    private final Button pick = Parts.button("full-pick", "Put in tray", "T", this::togglePick);
    private Optional<OpenPhone> phone = Optional.empty();
    private int[] numbers = new int[0];
    private Optional<Entry> shown = Optional.empty();
    private Optional<PlayerBar> player = Optional.empty();
    private Optional<FilmView> film = Optional.empty();
    private int row;
    private int question;
    private boolean whole;
    private Optional<Picture> decoded = Optional.empty();
    /** The conversation in which it was sent or came. */
    private Optional<String> sentIn = Optional.empty();

    /** @param closed is told that it is to be put away */
    FullView(Desk desk, TrayModel tray, Runnable closed) {
        this.desk = desk;
        this.tray = tray;
        this.closed = closed;
        name = desk.veil().line("", "heading");
        where = desk.veil().line("", "lesser");
        setId("full-view");
        getStyleClass().add("pane-border");
        name.setId("full-name");
        facts.setId("full-facts");
        number.setId("full-number");
        number.setMinWidth(USE_PREF_SIZE);
        trouble.setId("full-trouble");
        var zooming = Parts.row(
                Parts.button("full-smaller", "−", "", () -> zoom.zoomBy(1 / ZoomPane.STEP), "row-button"),
                Parts.button("full-larger", "+", "", () -> zoom.zoomBy(ZoomPane.STEP), "row-button"),
                Parts.button("full-pixels", "Pixel by pixel", "1", zoom::pixelByPixel),
                Parts.button("full-fit", "Fit", "0", zoom::fit),
                Parts.button("full-turn", "Turn", "R", zoom::turn));
        zooming.setMinWidth(USE_PREF_SIZE);
        name.setMinWidth(60);
        var head = new HBox(
                10,
                name,
                number,
                Parts.gap(),
                zooming,
                before,
                after,
                pick,
                Parts.button("full-close", "Close", "Esc", this::close));
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 8 12 8 12;");
        setTop(new VBox(head, Parts.rule()));
        desk.veil().picture(zoom);
        setCenter(zoom);
        var line = new HBox(10, facts, where);
        below.setStyle("-fx-padding: 8 12 10 12;");
        below.getChildren().setAll(trouble, line);
        trouble.managedProperty().bind(trouble.textProperty().isNotEmpty());
        setBottom(below);
        setFocusTraversable(true);
        addEventFilter(KeyEvent.KEY_PRESSED, this::press);
        tray.picked().addListener((o, was, is) -> showPick());
    }

    /** Shows one of a list. */
    void show(OpenPhone in, int[] newNumbers, int newRow) {
        phone = Optional.of(in);
        numbers = newNumbers;
        go(newRow, 0);
        requestFocus();
    }

    /** Shows nothing more, and lets go of what plays. */
    void end() {
        question++;
        stopPlaying();
        zoom.clear();
        shown = Optional.empty();
        phone = Optional.empty();
        numbers = new int[0];
    }

    private void close() {
        closed.run();
        end();
    }

    /** What is shown. */
    Optional<Entry> shown() {
        return shown;
    }

    private void press(KeyEvent event) {
        boolean onControl = event.getTarget() instanceof Slider || event.getTarget() instanceof ComboBox<?>;
        boolean pressing = event.getCode() == KeyCode.SPACE && event.getTarget() instanceof ButtonBase;
        if ((onControl || pressing) && event.getCode() != KeyCode.ESCAPE) {
            return; // its own keys
        }
        switch (event.getCode()) {
            case ESCAPE -> close();
            case LEFT -> go(-1);
            case RIGHT -> go(1);
            case HOME -> go(0, 0);
            case END -> go(numbers.length - 1, 0);
            case PLUS, ADD, EQUALS -> zoom.zoomBy(ZoomPane.STEP);
            case MINUS, SUBTRACT -> zoom.zoomBy(1 / ZoomPane.STEP);
            case DIGIT1, NUMPAD1 -> zoom.pixelByPixel();
            case DIGIT0, NUMPAD0 -> zoom.fit();
            case R -> zoom.turn();
            case T -> {
                if (event.isShortcutDown()) {
                    return;
                }
                togglePick();
            }
            case SPACE -> player.ifPresent(PlayerBar::toggle);
            case COMMA -> step(STEP.negated());
            case PERIOD -> step(STEP);
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void step(Duration by) {
        player.ifPresent(bar -> {
            bar.pause();
            bar.step(by);
        });
    }

    private void go(int by) {
        go(row, by);
    }

    private void go(int from, int by) {
        if (phone.isEmpty() || numbers.length == 0) {
            return;
        }
        int last = numbers.length - 1;
        row = Math.clamp((long) from + by, 0, last);
        before.setDisable(row == 0);
        after.setDisable(row == last);
        number.setText(desk.words().count(row + 1L) + " of " + desk.words().count(last + 1L));
        int mine = ++question;
        int wanted = numbers[row];
        var in = phone.get();
        desk.work().start("A picture", () -> in.catalogue().read(wanted), found -> {
            if (mine == question) {
                found.stream().findFirst().ifPresent(entry -> show(in, entry, mine));
            }
        });
    }

    private void show(OpenPhone in, Entry entry, int mine) {
        stopPlaying();
        shown = Optional.of(entry);
        whole = false;
        trouble.setText("");
        name.setText(entry.thing().title());
        facts.setText("");
        where.setText("");
        showPick();
        if (entry.thing() instanceof MediaFile file) {
            sentIn = Optional.empty();
            decoded = Optional.empty();
            describe(in, file);
            lookWhereSent(in, file, mine);
            load(in, file, FIRST, mine, true);
            if (file.kind() == ThingKind.VIDEO || file.kind() == ThingKind.FILM) {
                offerToPlay(in, file);
            }
        }
    }

    private void describe(OpenPhone in, MediaFile file) {
        var said = new ArrayList<String>();
        file.moment().ifPresent(at -> said.add(desk.words().when(at, in.phone().timeZone())));
        decoded.ifPresent(of -> said.add(of.fullWidth() + " × " + of.fullHeight()));
        said.add(desk.words().bytes(file.bytes()));
        file.length().ifPresent(length -> said.add(ThingWords.length(length)));
        facts.setText(String.join(" · ", said));
        var more = new ArrayList<String>();
        file.facts().stream()
                .filter(fact -> fact.name().equals("Camera") || fact.name().equals("Caption"))
                .forEach(fact -> more.add(fact.value()));
        file.place().ifPresent(place -> more.add(ThingWords.place(place)));
        sentIn.ifPresent(title -> more.add("sent in " + title));
        where.setText(String.join(" · ", more));
    }

    /** In which conversation it was sent or came. */
    private void lookWhereSent(OpenPhone in, MediaFile file, int mine) {
        desk.work().start("Conversations", () -> in.sentIn().of(file.id().item()), found -> {
            if (mine == question && !found.isEmpty()) {
                sentIn = Optional.of(found.getFirst().title());
                describe(in, file);
            }
        });
    }

    private void load(OpenPhone in, MediaFile file, int side, int mine, boolean first) {
        var item = file.id().item();
        desk.work().start("A picture", () -> Decoded.of(in.media(item), side), decoded -> {
            if (mine == question) {
                take(in, file, decoded, first);
            }
        });
    }

    private void take(OpenPhone in, MediaFile file, Decoded result, boolean first) {
        trouble.setText(result.why());
        if (result.picture().isEmpty()) {
            zoom.clear();
            return;
        }
        var picture = result.picture().get();
        zoom.show(Pixels.image(picture), picture.fullWidth(), picture.fullHeight(), first);
        decoded = result.picture();
        describe(in, file);
        whole = Math.max(picture.width(), picture.height())
                >= Math.min(MediaWorkers.LARGEST, Math.max(picture.fullWidth(), picture.fullHeight()));
        if (picture.damaged()) {
            trouble.setText("A part of this file is damaged; compare it with an older layer.");
        }
    }

    /** The pixels that are there are not enough for how large it is looked at. */
    private void lookCloser() {
        if (!whole && film.isEmpty()) {
            whole = true;
            shown.map(Entry::thing)
                    .filter(MediaFile.class::isInstance)
                    .map(MediaFile.class::cast)
                    .ifPresent(file -> load(phone.orElseThrow(), file, MediaWorkers.LARGEST, question, false));
        }
    }

    private void offerToPlay(OpenPhone in, MediaFile file) {
        var item = file.id().item();
        var bar =
                new PlayerBar(desk.work(), desk.veil(), () -> in.media(item), ThingWords::length, file.length(), true);
        player = Optional.of(bar);
        bar.whenMoved(resting -> follow(in, item, bar, resting));
        bar.whenPlaying(() -> {
            if (film.isEmpty()) {
                follow(in, item, bar, true);
            }
        });
        below.getChildren().addFirst(bar);
    }

    /**
     * The pictures follow the sound.
     *
     * @param exact false for the key frame before the place, which comes sooner
     */
    private void follow(OpenPhone in, String item, PlayerBar bar, boolean exact) {
        if (film.isPresent()) {
            film.get().show(bar.place(), exact);
            return;
        }
        int mine = question;
        desk.work().start("A video", () -> in.media(item), media -> {
            if (mine == question && film.isEmpty()) {
                var view = new FilmView(media, bar::place, FILM_WIDTH, FILM_HEIGHT, this::stopped);
                film = Optional.of(view);
                zoom.follow(view);
                view.show(bar.place(), true);
            }
        });
    }

    private void stopped(IOException e) {
        LOG.info("a video can't be played on", e);
        Platform.runLater(() -> trouble.setText(
                e instanceof UnplayableException why
                        ? Decoded.words(why)
                        : "It could not be read to its end; check the layer."));
    }

    private void stopPlaying() {
        player.ifPresent(bar -> {
            bar.close();
            below.getChildren().remove(bar);
        });
        player = Optional.empty();
        film.ifPresent(view -> desk.work()
                .start(
                        "A video",
                        () -> {
                            view.close();
                            return true;
                        },
                        done -> {}));
        film = Optional.empty();
    }

    private void togglePick() {
        shown.ifPresent(entry -> tray.toggle(entry.number()));
    }

    private void showPick() {
        pick.setText(shown.filter(entry -> tray.has(entry.number())).isPresent() ? "Take out" : "Put in tray");
    }
}
