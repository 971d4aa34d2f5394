package app.custodex.desktop.media;

import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Veil;
import app.custodex.desktop.ui.Work;
import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Peaks;
import app.custodex.media.Playback;
import app.custodex.media.SilentPlayback;
import app.custodex.media.SoundOutput;
import app.custodex.media.SoundPlayer;
import app.custodex.media.UnplayableException;
import java.io.Closeable;
import java.io.IOException;
import java.time.Duration;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Plays a recording, or the sound of a video. What it plays is private: while the curtain is down it does not play. Interface thread only. */
public final class PlayerBar extends VBox implements Closeable {
    private static final Logger LOG = LoggerFactory.getLogger(PlayerBar.class);
    private static final int PARTS = 600;
    private static final Duration KEY_STEP = Duration.ofSeconds(5);

    /** Opens what is to be played; each user of it its own. */
    public interface Source {
        MediaSource open() throws IOException;
    }

    private final Work work;
    private final Veil veil;
    private final Source source;
    private final Function<Duration, String> words;
    private final boolean video;
    private final Button play = Parts.button("player-play", "Play", "Space", this::toggle);
    private final Waveform wave = new Waveform(this::goTo);
    private final Label time = Parts.text("", "lesser", "mono");
    private final Label note = Parts.sentence("", "lesser");
    private final ComboBox<Double> speed = new ComboBox<>();
    private final Slider volume = new Slider(0, 1, 1);
    private final AnimationTimer clock = new AnimationTimer() {
        @Override
        public void handle(long now) {
            showPlace();
        }
    };
    private volatile Optional<Playback> playback = Optional.empty();
    private Optional<Duration> length = Optional.empty();
    private Runnable ended = () -> {};
    private Consumer<Boolean> moved = resting -> {};
    private Runnable playing = () -> {};
    /** Where it begins when it is played for the first time. */
    private volatile Duration start = Duration.ZERO;

    private final ChangeListener<Boolean> silencing = (o, was, is) -> {
        if (is) {
            pause();
        }
    };
    private boolean wanted;
    private boolean closed;

    /**
     * Reads how loud it is, and waits to be played.
     *
     * @param words how a length is written
     * @param known its length, as far as that is known already
     * @param video whether it is one, which may have no sound
     */
    public PlayerBar(
            Work work,
            Veil veil,
            Source source,
            Function<Duration, String> words,
            Optional<Duration> known,
            boolean video) {
        super(6);
        this.work = work;
        this.veil = veil;
        this.source = source;
        this.words = words;
        this.video = video;
        length = known.filter(any -> !any.isZero());
        setId("player");
        wave.setId("player-wave");
        time.setId("player-time");
        time.setMinWidth(USE_PREF_SIZE);
        note.setId("player-note");
        speed.setId("player-speed");
        speed.getStyleClass().add("small-choice");
        speed.setAccessibleText("Speed");
        speed.getItems().setAll(0.5, 0.75, 1.0, 1.25, 1.5, 2.0);
        speed.setValue(1.0);
        speed.setConverter(new StringConverter<>() {
            @Override
            public String toString(@Nullable Double times) {
                return times == null
                        ? ""
                        : (times % 1 == 0 ? String.valueOf(times.intValue()) : times.toString()) + " ×";
            }

            @Override
            public Double fromString(String text) {
                return 1.0;
            }
        });
        speed.valueProperty().addListener((o, was, is) -> playback.ifPresent(any -> any.speed(is == null ? 1 : is)));
        volume.setId("player-volume");
        volume.setAccessibleText("Volume");
        volume.setPrefWidth(90);
        volume.valueProperty().addListener((o, was, is) -> playback.ifPresent(any -> any.volume(is.doubleValue())));
        HBox.setHgrow(wave, Priority.ALWAYS);
        var line = new HBox(10, wave, time);
        line.setAlignment(Pos.CENTER_LEFT);
        var loud = new HBox(6, Parts.text("Volume", "lesser"), volume);
        loud.setAlignment(Pos.CENTER_LEFT);
        var controls = new FlowPane(8, 6, play, speed, loud);
        getChildren().addAll(line, controls, note);
        note.managedProperty().bind(note.textProperty().isNotEmpty());
        veil.down().addListener(silencing);
        sceneProperty().addListener((o, was, is) -> {
            if (is == null) {
                pause(); // nobody could stop it any more
            }
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::press);
        showPlace();
        measure(true);
    }

    /** @param then is run when it came to its end by itself */
    public void whenEnded(Runnable then) {
        ended = then;
    }

    /** @param then is run when somebody went to another place in it, and told whether they mean it or only pass it */
    public void whenMoved(Consumer<Boolean> then) {
        moved = then;
    }

    /** @param then is run whenever it begins to play */
    public void whenPlaying(Runnable then) {
        playing = then;
    }

    /** Arrows go back and forth by some seconds. */
    private void press(KeyEvent event) {
        if (event.getCode() == KeyCode.LEFT || event.getCode() == KeyCode.RIGHT) {
            step(event.getCode() == KeyCode.LEFT ? KEY_STEP.negated() : KEY_STEP);
            event.consume();
        }
    }

    /** Goes on, or back, by a stretch. */
    public void step(Duration by) {
        goTo(place().plus(by), true);
    }

    private void goTo(Duration place, boolean resting) {
        var to = within(place);
        start = to;
        playback.ifPresent(any -> any.goTo(to));
        moved.accept(resting);
        showPlace();
    }

    private Duration within(Duration place) {
        return length.filter(most -> place.compareTo(most) > 0).orElse(place.isNegative() ? Duration.ZERO : place);
    }

    /** The place that is heard now; any thread may ask. */
    public Duration place() {
        return playback.map(Playback::place).orElse(start);
    }

    /** @param quick a first look at a long recording, after which it is measured whole */
    private void measure(boolean quick) {
        work.start(
                "A recording",
                () -> {
                    try (var media = source.open()) {
                        return Optional.of(MediaWorkers.shared().peaks(media, PARTS, quick));
                    } catch (UnplayableException e) {
                        return Optional.<Peaks>empty();
                    }
                },
                found -> {
                    if (!closed) {
                        found.ifPresentOrElse(this::take, this::takeNone);
                    }
                });
    }

    private void take(Peaks peaks) {
        wave.show(peaks);
        length = Optional.of(peaks.length());
        showPlace();
        if (!peaks.whole()) {
            measure(false);
        }
    }

    private void takeNone() {
        if (video) {
            note.setText("This video has no sound.");
            if (playback.isEmpty()) {
                begin(silence());
            }
        } else {
            note.setText("This recording can't be played here; take it out as a file.");
            play.setDisable(true);
        }
    }

    /** Plays, or stops. */
    public void toggle() {
        if (playback.filter(Playback::isPlaying).isPresent()) {
            pause();
        } else {
            play();
        }
    }

    public void play() {
        if (veil.isDown()) {
            note.setText("The curtain is down, so nothing is played; lift it with F6.");
            return;
        }
        if (play.isDisabled() || closed) {
            return;
        }
        if (playback.isPresent()) {
            goOn(playback.get());
        } else if (!wanted) {
            wanted = true;
            work.start(
                    "A recording",
                    () -> new SoundPlayer(MediaWorkers.shared(), source.open(), SoundOutput.open(), this::trouble),
                    player -> {
                        wanted = false;
                        if (closed || playback.isPresent()) {
                            end(player);
                        } else {
                            begin(player);
                            goOn(player);
                        }
                    });
        }
    }

    private void begin(Playback player) {
        player.goTo(start);
        playback = Optional.of(player);
        player.volume(volume.getValue());
        player.speed(speed.getValue());
    }

    private void goOn(Playback player) {
        boolean over = player.hasEnded()
                || length.filter(all -> player.place().compareTo(all) >= 0).isPresent();
        player.play(over ? Duration.ZERO : player.place());
        if (over) {
            moved.accept(true);
        }
        note.setText(player.silentBecause().map(why -> why + ".").orElse(""));
        play.setText("Pause");
        playing.run();
        clock.start();
    }

    private Playback silence() {
        return new SilentPlayback(length.orElse(Duration.ZERO), System::nanoTime);
    }

    private void trouble(IOException e) {
        LOG.info("a recording can't be played on", e);
        Platform.runLater(() -> {
            if (video && e instanceof UnplayableException && !closed) {
                goOnSilently(); // its pictures may be whole
            } else {
                pause();
                note.setText(
                        e instanceof UnplayableException why
                                ? Decoded.words(why)
                                : "It could not be read to its end; check the layer.");
            }
        });
    }

    private void goOnSilently() {
        start = place();
        playback.ifPresent(this::end);
        var silent = silence();
        begin(silent);
        goOn(silent);
    }

    /** Stops where it is. */
    public void pause() {
        playback.ifPresent(Playback::pause);
        play.setText("Play");
        clock.stop();
        showPlace();
    }

    private void goTo(double part, boolean resting) {
        length.ifPresent(all -> goTo(all.multipliedBy(Math.round(part * 1000)).dividedBy(1000), resting));
    }

    private void showPlace() {
        var at = place();
        time.setText(
                words.apply(at) + length.map(all -> " / " + words.apply(all)).orElse(""));
        wave.playedTo(length.filter(all -> !all.isZero())
                .map(all -> (double) at.toMillis() / all.toMillis())
                .orElse(0.0));
        if (playback.filter(Playback::hasEnded).isPresent()) {
            play.setText("Play");
            clock.stop();
            ended.run();
        }
    }

    private void end(Playback player) {
        work.start(
                "A recording",
                () -> {
                    player.close(); // waits until nobody reads what it played
                    return true;
                },
                done -> {});
    }

    /** Stops for good. */
    @Override
    public void close() {
        closed = true;
        veil.down().removeListener(silencing);
        clock.stop();
        playback.ifPresent(this::end);
        playback = Optional.empty();
    }
}
