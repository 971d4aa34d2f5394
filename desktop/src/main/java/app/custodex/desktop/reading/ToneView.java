package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.CutWave;
import app.custodex.desktop.media.PlayerBar;
import app.custodex.desktop.ui.InWords;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.docket.RouteStep;
import app.custodex.link.Family;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Peaks;
import app.custodex.media.SoundCoding;
import app.custodex.media.SoundCut;
import app.custodex.media.StreamSource;
import app.custodex.model.MediaFile;
import app.custodex.readers.families.FamilyTones;
import app.custodex.tones.Tone;
import app.custodex.tones.ToneUse;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Cuts a tone for a phone out of a recording: which piece, how it begins and ends, and for which phone. */
final class ToneView extends VBox {
    private static final int PARTS = 12_000;
    private static final Duration USUAL = Duration.ofSeconds(20);
    private static final Duration NUDGE = Duration.ofMillis(100);
    private static final Duration STEP = Duration.ofSeconds(1);
    private static final List<Duration> FADES = List.of(
            Duration.ZERO, Duration.ofMillis(500), Duration.ofSeconds(1), Duration.ofSeconds(2), Duration.ofSeconds(4));

    private final Desk desk;
    private final UserText title;
    private final CutWave wave = new CutWave(this::drawn);
    private final TextField from = new TextField();
    private final TextField until = new TextField();
    private final ComboBox<Duration> fadeIn = combo("tone-fade-in", "Fade in", FADES, ToneView::seconds);
    private final ComboBox<Duration> fadeOut = combo("tone-fade-out", "Fade out", FADES, ToneView::seconds);
    private final CheckBox even = new CheckBox("Even loudness (EBU R 128, -16 LUFS)");
    private final ComboBox<ToneUse> use = combo("tone-use", "For", List.of(ToneUse.values()), ToneUse::label);
    private final ComboBox<Family> family = combo("tone-family", "Phone", FamilyTones.families(), Family::label);
    private final TextField name = new TextField();
    private final FolderField folder;
    private final Label state = Parts.sentence("", "lesser");
    private final StackPane player = new StackPane();
    private final Button listen = Parts.button("tone-listen", "Listen", "", this::listen);
    private final Button write = Parts.button("tone-write", "Write the tone", "Ctrl+Enter", this::write, "main");
    private Optional<OpenPhone> phone = Optional.empty();
    private Optional<PlayerBar> playing = Optional.empty();
    private String item = "";
    private Duration length = Duration.ZERO;
    private int question;
    private boolean filling;

    /** @param closed is told that it is to be put away */
    ToneView(Desk desk, Runnable closed) {
        super(8);
        this.desk = desk;
        title = desk.veil().line("", "title");
        setId("tone");
        getStyleClass().add("pane-border");
        setStyle("-fx-padding: 10 14 12 14;");
        wave.setId("tone-wave");
        state.setId("tone-state");
        even.setId("tone-even");
        time(from, "tone-from");
        time(until, "tone-until");
        name.setId("tone-name");
        desk.veil().picture(name);
        folder = new FolderField(desk, "tone", "Where to write the tone");
        for (var choice : List.of(fadeIn, fadeOut, use, family)) {
            choice.valueProperty().addListener((o, was, is) -> changed());
        }
        even.selectedProperty().addListener((o, was, is) -> changed());
        var head = new HBox(
                10,
                Parts.text("Cut a tone", "title"),
                title,
                Parts.gap(),
                Parts.button("tone-close", "Close", "Esc", () -> close(closed)));
        head.setAlignment(Pos.CENTER_LEFT);
        var piece = flow(
                labelled("From", from),
                labelled("until", until),
                Parts.button("tone-whole", "Show all", "", wave::showWhole, "row-button"),
                Parts.button("tone-piece", "Show the piece", "", wave::showPiece, "row-button"),
                labelled("Fade in", fadeIn),
                labelled("Fade out", fadeOut),
                even);
        HBox.setHgrow(name, Priority.ALWAYS);
        var where = Parts.row(
                Parts.text("For", "lesser"),
                use,
                Parts.text("on a phone of the family", "lesser"),
                family,
                Parts.text("called", "lesser"),
                name);
        var actions = new HBox(10, state, Parts.gap(), listen, write);
        actions.setAlignment(Pos.CENTER_LEFT);
        var help = Parts.sentence(
                "Draw the edges of the piece, or draw over another part; the wheel looks closer. In the fields, the up and"
                        + " down keys move an edge by a tenth of a second, with Shift by one.",
                "lesser");
        // Beside what plays there is no room for it in a small window.
        help.managedProperty().bind(Bindings.isEmpty(player.getChildren()));
        help.visibleProperty().bind(help.managedProperty());
        getChildren().addAll(head, Parts.rule(), wave, help, piece, where, folder, actions, player);
        VBox.setVgrow(wave, Priority.ALWAYS);
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                close(closed);
                event.consume();
            } else if (event.getCode() == KeyCode.ENTER && event.isShortcutDown()) {
                write();
                event.consume();
            }
        });
    }

    private void close(Runnable closed) {
        leave();
        closed.run();
    }

    private static FlowPane flow(Node... parts) {
        var flow = new FlowPane(10, 8, parts);
        flow.setRowValignment(VPos.CENTER);
        return flow;
    }

    private static HBox labelled(String words, Node part) {
        return Parts.row(Parts.text(words, "lesser"), part);
    }

    private static String seconds(Duration of) {
        return of.isZero()
                ? "none"
                : of.toMillis() % 1_000 == 0 ? of.toSeconds() + " s" : of.toMillis() / 1_000.0 + " s";
    }

    private static <T> ComboBox<T> combo(String id, String label, List<T> values, Function<T, String> words) {
        var combo = new ComboBox<T>();
        combo.setId(id);
        combo.setAccessibleText(label);
        combo.getItems().setAll(values);
        combo.setValue(values.getFirst());
        combo.setConverter(new InWords<>(words));
        return combo;
    }

    private void time(TextField field, String id) {
        field.setId(id);
        field.setPrefColumnCount(7);
        field.getStyleClass().add("mono");
        field.setOnAction(event -> typed());
        field.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                typed();
            }
        });
        field.addEventFilter(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.UP || event.getCode() == KeyCode.DOWN) {
                var by = event.isShiftDown() ? STEP : NUDGE;
                Tone.time(field.getText())
                        .map(at -> event.getCode() == KeyCode.UP ? at.plus(by) : at.minus(by))
                        .ifPresent(at -> field.setText(Tone.text(at.isNegative() ? Duration.ZERO : at)));
                typed();
                event.consume();
            }
        });
    }

    /** Shows a recording. */
    void open(OpenPhone of, Entry recording) {
        leave();
        phone = Optional.of(of);
        item = item(recording);
        title.setText(recording.thing().title());
        filling = true;
        name.setText(recording.thing().title().replaceFirst("[.]\\w{1,5}$", ""));
        if (FamilyTones.of(of.phone().family()).isPresent()) {
            family.setValue(of.phone().family());
        }
        filling = false;
        int mine = question;
        state.setText("Looking how loud it is…");
        enable(false);
        desk.work()
                .start(
                        "A recording",
                        () -> {
                            try (var media = of.media(item)) {
                                return MediaWorkers.shared().peaks(media, PARTS, false);
                            }
                        },
                        peaks -> {
                            if (mine == question) {
                                take(peaks);
                            }
                        },
                        () -> {
                            if (mine == question && length.isZero()) {
                                state.setText("No tone can be made of this recording; the line below says why.");
                            }
                        });
        from.requestFocus();
    }

    private static String item(Entry recording) {
        return recording.thing() instanceof MediaFile file
                ? file.id().item()
                : recording.thing().attachments().getFirst().item();
    }

    private void take(Peaks peaks) {
        length = peaks.length();
        wave.show(peaks);
        enable(true);
        set(Duration.ZERO, length.compareTo(USUAL) > 0 ? USUAL : length);
    }

    private void enable(boolean usable) {
        listen.setDisable(!usable);
        write.setDisable(!usable);
    }

    private void drawn(Duration begin, Duration end) {
        from.setText(Tone.text(begin));
        until.setText(Tone.text(end));
        changed();
    }

    private void set(Duration begin, Duration end) {
        wave.mark(begin, end);
        drawn(begin, end);
    }

    /** What is a piece stands there as it will be: it ends with the recording at the latest. */
    private void typed() {
        cut().ifPresentOrElse(piece -> set(piece.from(), piece.until()), this::changed);
    }

    /** Empty when what stands in the fields is no piece of it. */
    private Optional<SoundCut> cut() {
        var begin = Tone.time(from.getText());
        var end = Tone.time(until.getText()).map(at -> at.compareTo(length) > 0 ? length : at);
        return begin.isPresent() && end.isPresent() && end.get().compareTo(begin.get()) > 0
                ? Optional.of(
                        new SoundCut(begin.get(), end.get(), fadeIn.getValue(), fadeOut.getValue(), even.isSelected()))
                : Optional.empty();
    }

    private Optional<Tone> tone() {
        return cut().map(piece ->
                new Tone(name.getText().isBlank() ? "Tone" : name.getText(), piece, use.getValue(), family.getValue()));
    }

    /** Says what is too long before anything is written; the core says it again. */
    private void changed() {
        if (filling || length.isZero()) {
            return;
        }
        closePlayer();
        var tone = tone();
        if (tone.isEmpty()) {
            state.setText("Write the times as 1:02.5, the first one before the second.");
            return;
        }
        FamilyTones.of(family.getValue())
                .ifPresent(rules -> state.setText(Tone.text(tone.get().cut().length())
                        + " long. "
                        + tone.get()
                                .trouble(rules)
                                .map(trouble -> trouble.what() + ". " + trouble.advice() + ".")
                                .orElse("The phone takes up to "
                                        + rules.longest(use.getValue()).toSeconds() + " s.")));
    }

    /** Makes the piece as it will be, and plays it. */
    private void listen() {
        if (phone.isEmpty() || cut().isEmpty()) {
            return;
        }
        closePlayer();
        var of = phone.get();
        var piece = cut().get();
        int mine = question;
        desk.work()
                .start(
                        "A recording",
                        () -> {
                            var made = new ByteArrayOutputStream();
                            try (var media = of.media(item)) {
                                MediaWorkers.shared().convert(media, SoundCoding.WAV, 192, Optional.of(piece), made);
                            }
                            return made.toByteArray();
                        },
                        made -> {
                            if (mine == question && cut().equals(Optional.of(piece))) {
                                play(made, piece.length());
                            }
                        });
    }

    private void play(byte[] made, Duration lasts) {
        closePlayer();
        var bar = new PlayerBar(
                desk.work(),
                desk.veil(),
                () -> new StreamSource(made.length, () -> new ByteArrayInputStream(made)),
                ThingWords::length,
                Optional.of(lasts),
                false);
        playing = Optional.of(bar);
        player.getChildren().setAll(bar);
        bar.play();
    }

    private void closePlayer() {
        playing.ifPresent(PlayerBar::close);
        playing = Optional.empty();
        player.getChildren().clear();
    }

    private void write() {
        var target = folder.folderOrTell();
        if (phone.isEmpty() || tone().isEmpty() || target.isEmpty() || write.isDisabled()) {
            return;
        }
        var of = phone.get();
        var tone = tone().get();
        int mine = question;
        enable(false);
        desk.work()
                .start(
                        tone.title(),
                        () -> of.outgoing().tone(item, tone, target.get()),
                        written -> {
                            desk.stepDone(of.phone(), RouteStep.EXTRACT);
                            if (mine == question) {
                                state.setText("The tone is written into the folder.");
                            }
                        },
                        () -> {
                            if (mine == question) {
                                enable(!length.isZero());
                            }
                        });
    }

    /** Forgets the recording, and what plays. */
    void leave() {
        question++;
        closePlayer();
        phone = Optional.empty();
        length = Duration.ZERO;
        item = "";
        wave.clear();
        title.setOpenText("");
        state.setText("");
        enable(false);
    }
}
