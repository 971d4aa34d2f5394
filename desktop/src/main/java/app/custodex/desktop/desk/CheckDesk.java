package app.custodex.desktop.desk;

import app.custodex.app.Checks;
import app.custodex.base.CancelToken;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicLong;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** Reads layers back, one task at a time, when it is asked for or when the time has come. On the interface thread only. */
public final class CheckDesk {
    private static final javafx.util.Duration TICK = javafx.util.Duration.millis(250);
    private static final javafx.util.Duration LOOK_FOR_DUE = javafx.util.Duration.minutes(1);

    /**
     * A check that runs.
     *
     * @param what in words
     * @param all bytes that it reads, as far as is known
     */
    public record Running(String what, long done, long all) {}

    private static final String EVERYTHING = "the whole strongroom";

    private final Desk desk;
    private final ObjectProperty<Optional<Running>> running = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<String> verdict = new SimpleObjectProperty<>("");
    private final Timeline due = new Timeline(new KeyFrame(LOOK_FOR_DUE, event -> startWhatIsDue()));
    private Optional<CancelToken> cancel = Optional.empty();
    private Instant lastTouch;

    CheckDesk(Desk desk) {
        this.desk = desk;
        this.lastTouch = desk.now();
        due.setCycleCount(Animation.INDEFINITE);
    }

    /** Begins to check by itself, as the settings say. */
    void start() {
        due.play();
    }

    /** Present while something is read back. */
    public ObjectProperty<Optional<Running>> running() {
        return running;
    }

    /** How the last one ended, in words; empty before. */
    public ObjectProperty<String> verdict() {
        return verdict;
    }

    /** Notes that somebody is at work. */
    public void touched() {
        lastTouch = desk.now();
    }

    /** Reads one layer back. */
    public void check(StoredPhone phone, int layer) {
        check(
                List.of(phone),
                List.of(layer),
                "layer " + layer + " of " + phone.identity().name());
    }

    /** Reads everything back. */
    public void checkAll(List<StoredPhone> phones) {
        check(phones, List.of(), EVERYTHING);
    }

    private void startWhatIsDue() {
        if (running.get().isPresent()) {
            return;
        }
        var touched = lastTouch;
        desk.work().start("Checks", () -> due(touched), waiting -> {
            if (!waiting.isEmpty() && running.get().isEmpty()) {
                var phone = waiting.getFirst();
                check(List.of(phone), List.of(), phone.identity().name() + ", by itself");
            }
        });
    }

    private List<StoredPhone> due(Instant touched) throws IOException {
        var custodex = desk.custodex();
        boolean now = custodex.checks()
                .timeHasCome(
                        custodex.settings().checks(),
                        custodex.copying(),
                        touched,
                        desk.words().zone());
        return now ? custodex.checks().overdue() : List.of();
    }

    /** @param layers those of each phone; empty for all */
    private void check(List<StoredPhone> phones, List<Integer> layers, String what) {
        if (running.get().isPresent()) {
            return;
        }
        var token = new CancelToken();
        cancel = Optional.of(token);
        var done = new AtomicLong();
        var all = new AtomicLong();
        var ticker = new Timeline(new KeyFrame(
                TICK,
                event -> running.set(Optional.of(new Running(what, done.get(), Math.max(done.get(), all.get()))))));
        ticker.setCycleCount(Animation.INDEFINITE);
        running.set(Optional.of(new Running(what, 0, 0)));
        verdict.set("");
        ticker.play();
        desk.work()
                .start(
                        "Check of " + what,
                        () -> check(phones, layers, what, done, all, token),
                        found -> verdict.set(what + ": " + words(found)),
                        () -> {
                            ticker.stop();
                            cancel = Optional.empty();
                            running.set(Optional.empty());
                            if (token.isCancelled()) {
                                verdict.set("stopped; of what was not read back to its end nothing is concluded");
                            }
                            desk.refreshHoldings();
                        });
    }

    private String words(Found found) {
        var words = desk.words();
        var said = new ArrayList<String>();
        if (found.damagedLayers() > 0) {
            said.add(words.count(found.damagedLayers(), "layer is", "layers are") + " damaged");
        }
        if (found.files() > 0) {
            said.add(words.count(found.files(), "of the strongroom's own files is", "of the strongroom's own files are")
                    + " not as it should be");
        }
        return said.isEmpty() ? "sound" : String.join(", ", said);
    }

    private Found check(
            List<StoredPhone> phones,
            List<Integer> layers,
            String what,
            AtomicLong done,
            AtomicLong all,
            CancelToken token)
            throws Exception {
        var checks = desk.custodex().checks();
        for (var phone : phones) {
            all.addAndGet(checks.size(phone, layers.isEmpty() ? Checks.numbers(phone) : layers));
        }
        // Everything: the files that belong to no phone, too. Of one phone, its own.
        var problems = checks.examine(what.equals(EVERYTHING) ? List.of() : phones);
        int damaged = 0;
        for (var phone : phones) {
            if (token.isCancelled()) {
                throw new CancellationException();
            }
            var reports = checks.run(phone, layers.isEmpty() ? Checks.numbers(phone) : layers, done::addAndGet, token);
            damaged += (int) reports.stream().filter(report -> !report.sound()).count();
        }
        return new Found(damaged, problems.size());
    }

    /** @param files of the strongroom's own that are not as they should be */
    private record Found(int damagedLayers, int files) {}

    public void stop() {
        cancel.ifPresent(CancelToken::cancel);
    }

    void close() {
        due.stop();
        stop();
    }
}
