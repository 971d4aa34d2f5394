package app.custodex.backup;

import app.custodex.backup.BackupProgress.KindProgress;
import app.custodex.backup.BackupProgress.Phase;
import app.custodex.base.Problem;
import app.custodex.link.Kind;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Counts while a backup runs; read from other threads at any time. */
final class Meter {
    private static final class Tally {
        private long items;
        private long fresh;
        private long freshBytes;
        private long done;
    }

    private final Clock clock;
    private final Map<Kind, Tally> tallies = new EnumMap<>(Kind.class);
    private Pace pace = new Pace();
    private Phase phase = Phase.LISTING;
    private long doneBytes;
    private long allBytes;
    private long doneItems;
    private long allItems;
    private long unchangedBytes;
    private long failed;
    private Optional<Problem> waiting = Optional.empty();

    Meter(Clock clock) {
        this.clock = clock;
    }

    synchronized void found(int files) {
        allItems += files;
    }

    /** The phone is listed; what is counted from here on is what has to be copied. */
    synchronized void planned(BackupPlan plan) {
        phase = Phase.COPYING;
        allItems = plan.fresh().size();
        allBytes = plan.freshBytes();
        unchangedBytes = plan.unchangedBytes();
        plan.unchanged().forEach(item -> tally(item.kind()).items++);
        for (var file : plan.fresh()) {
            var tally = tally(file.kind());
            tally.items++;
            tally.fresh++;
            tally.freshBytes += file.file().size();
        }
        pace = new Pace();
        pace.at(clock.instant(), 0, 0);
    }

    private Tally tally(Kind kind) {
        return tallies.computeIfAbsent(kind, k -> new Tally());
    }

    synchronized void bytes(long bytes) {
        doneBytes += bytes;
    }

    synchronized void done(Kind kind) {
        doneItems++;
        tally(kind).done++;
    }

    synchronized void failed(int now) {
        failed = now;
    }

    synchronized void waiting(Optional<Problem> problem) {
        waiting = problem;
    }

    synchronized void publishing() {
        phase = Phase.PUBLISHING;
    }

    synchronized void checking(long bytes) {
        phase = Phase.CHECKING;
        doneBytes = 0;
        allBytes = bytes;
        doneItems = 0;
        allItems = 0;
        pace = new Pace();
        pace.at(clock.instant(), 0, 0);
    }

    synchronized void ended() {
        phase = Phase.ENDED;
        waiting = Optional.empty();
    }

    synchronized BackupProgress snapshot() {
        pace.at(clock.instant(), doneBytes, doneItems);
        List<KindProgress> kinds = new ArrayList<>();
        tallies.forEach((kind, t) -> kinds.add(new KindProgress(kind, t.items, t.fresh, t.freshBytes, t.done)));
        return new BackupProgress(
                phase,
                kinds,
                doneBytes,
                allBytes,
                doneItems,
                allItems,
                unchangedBytes,
                pace.bytesPerSecond(),
                phase == Phase.LISTING ? Optional.empty() : pace.left(allBytes - doneBytes, allItems - doneItems),
                failed,
                waiting);
    }
}
