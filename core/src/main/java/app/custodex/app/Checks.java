package app.custodex.app;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerCheck;
import app.custodex.strongroom.StoredLayer;
import app.custodex.strongroom.StoredPhone;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.LongConsumer;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Reads layers back, one, or a phone's, or all, now or when their time has come, and keeps what was found. */
public final class Checks {
    private static final Logger LOG = LoggerFactory.getLogger(Checks.class);

    /** A layer that was read back this lately need not be again by itself. */
    static final Duration FRESH = Duration.ofDays(7);
    /** Nobody works any more after this long without mouse or keyboard. */
    static final Duration IDLE = Duration.ofMinutes(10);

    /** Gives the strongroom that is in use. */
    public interface Place {
        Strongroom get() throws IOException;
    }

    private static final LocalTime NIGHT = LocalTime.of(1, 0);
    private static final LocalTime MORNING = LocalTime.of(5, 0);

    private final Place strongroom;
    private final Clock clock;

    public Checks(Place strongroom, Clock clock) {
        this.strongroom = strongroom;
        this.clock = clock;
    }

    /** Bytes that a check of these layers reads; what can't be opened counts nothing. */
    public long size(StoredPhone phone, List<Integer> numbers) throws IOException {
        var layers = new ArrayList<StoredLayer>();
        try {
            return new LayerCheck(open(phone, numbers, layers), clock).size();
        } finally {
            close(layers);
        }
    }

    /**
     * Reads some layers of a phone back; what they share is read once.
     *
     * @param progress is told bytes as they are read
     */
    public List<CheckReport> run(StoredPhone phone, List<Integer> numbers, LongConsumer progress, CancelToken cancel)
            throws IOException {
        var layers = new ArrayList<StoredLayer>();
        try {
            var reports = new LayerCheck(open(phone, numbers, layers), clock).run(progress, cancel);
            for (var report : reports) {
                keep(phone, report);
            }
            return reports;
        } finally {
            close(layers);
        }
    }

    /** What was found is told even where it can't be written down. */
    private void keep(StoredPhone phone, CheckReport report) {
        try {
            strongroom.get().checks().add(phone.identity().identifier(), report);
        } catch (IOException e) {
            LOG.warn("what a check found was not written down", e);
        }
    }

    /**
     * Looks at every file that layers need to be opened, apart from the content of items.
     *
     * @param phones those that are meant; empty for all, and for the files that belong to no phone
     */
    public List<Problem> examine(List<StoredPhone> phones) throws IOException {
        return strongroom
                .get()
                .examine(phones.stream()
                        .map(phone -> phone.identity().identifier())
                        .collect(Collectors.toSet()));
    }

    public static List<Integer> numbers(StoredPhone phone) {
        return phone.layers().stream().map(layer -> layer.number()).toList();
    }

    private List<StoredLayer> open(StoredPhone phone, List<Integer> numbers, List<StoredLayer> opened)
            throws IOException {
        for (var number : numbers) {
            opened.add(strongroom
                    .get()
                    .layer(phone.identity().identifier(), number)
                    .orElseThrow(() -> new ProblemException(Problem.failure(
                            phone.identity().name(), "There is no layer " + number, "List the layers"))));
        }
        return opened;
    }

    private static void close(List<StoredLayer> layers) throws IOException {
        for (var layer : layers) {
            layer.close();
        }
    }

    /**
     * Whether layers are to be read back by themselves now.
     *
     * @param lastTouch when mouse or keyboard were last used
     */
    public boolean timeHasCome(Settings.CheckSchedule schedule, boolean copying, Instant lastTouch, ZoneId zone) {
        var now = clock.instant();
        return !copying
                && switch (schedule) {
                    case BY_HAND -> false;
                    case WHEN_IDLE -> !now.isBefore(lastTouch.plus(IDLE));
                    case AT_NIGHT -> {
                        var time = now.atZone(zone).toLocalTime();
                        yield !time.isBefore(NIGHT) && time.isBefore(MORNING);
                    }
                };
    }

    /** Phones of which a layer was not read back lately, those that have waited longest first. */
    public List<StoredPhone> overdue() throws IOException {
        var limit = clock.instant().minus(FRESH);
        var waiting = new ArrayList<Waiting>();
        for (var phone : strongroom.get().holdings().phones()) {
            var oldest = Instant.MAX;
            var lasts = strongroom.get().checks().lasts(phone.identity().identifier());
            for (var layer : phone.layers()) {
                var last = lasts.get(layer.number());
                var at = last == null ? Instant.EPOCH : last.at();
                oldest = at.isBefore(oldest) ? at : oldest;
            }
            if (oldest.isBefore(limit)) {
                waiting.add(new Waiting(phone, oldest));
            }
        }
        waiting.sort(Comparator.comparing(Waiting::since));
        return waiting.stream().map(Waiting::phone).toList();
    }

    private record Waiting(StoredPhone phone, Instant since) {}
}
