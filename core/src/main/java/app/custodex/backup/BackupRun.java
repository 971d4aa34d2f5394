package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.Sizes;
import app.custodex.link.Kind;
import app.custodex.link.LinkException;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import app.custodex.link.PhoneStatus;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerCheck;
import app.custodex.strongroom.LayerDraft;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.LayerRecord.KindTotal;
import app.custodex.strongroom.LeftOut;
import app.custodex.strongroom.ManifestItem;
import app.custodex.strongroom.StoredLayer;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.FutureTask;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * One backup of one phone: lists it, takes over what is stored already, copies the rest, publishes the layer and reads it
 * back. Reading and digesting run on a few threads ahead of the one that writes, within a bounded amount of memory.
 *
 * <p>{@link #run} throws {@link LinkException} when the phone stayed away, {@link ProblemException} when the strongroom
 * can't take more, {@link CancellationException} when it was stopped. In each case what was brought into safety stays
 * there, and the next run of the same phone goes on behind it.
 */
public final class BackupRun {
    private static final Logger LOG = LoggerFactory.getLogger(BackupRun.class);
    private static final int READERS = 4;
    private static final int AHEAD_ITEMS = 256;
    private static final long AHEAD_BYTES = 48L << 20;

    private final PhoneLink link;
    private final Strongroom strongroom;
    private final BackupRequest request;
    private final Clock clock;
    private final CancelToken cancel;
    private final Duration tellAfter;
    private final Duration hangUpAfter;
    private final Meter meter;
    private volatile String source = "";

    public BackupRun(PhoneLink link, Strongroom strongroom, BackupRequest request, Clock clock, CancelToken cancel) {
        this(link, strongroom, request, clock, cancel, StallWatch.TELL_AFTER, StallWatch.HANG_UP_AFTER);
    }

    BackupRun(
            PhoneLink link,
            Strongroom strongroom,
            BackupRequest request,
            Clock clock,
            CancelToken cancel,
            Duration tellAfter,
            Duration hangUpAfter) {
        this.link = link;
        this.strongroom = strongroom;
        this.request = request;
        this.clock = clock;
        this.cancel = cancel;
        this.tellAfter = tellAfter;
        this.hangUpAfter = hangUpAfter;
        this.meter = new Meter(clock);
    }

    /** How far it is; may be asked by any thread at any time. */
    public BackupProgress progress() {
        return meter.snapshot();
    }

    public BackupResult run() throws IOException {
        try {
            return copy();
        } finally {
            meter.ended();
        }
    }

    private BackupResult copy() throws IOException {
        var begun = clock.instant();
        var status = readyPhone();
        var phone = status.identity().orElseThrow(() -> new LinkException.NotReady(status.model()));
        source = phone.family().code();
        boolean sealed = strongroom.sealed(phone.identifier());
        link.promise(sealed);
        Saved saved;
        try (var watch = new StallWatch(link, meter::waiting, cancel, tellAfter, hangUpAfter)) {
            var gate = new Gate(link, phone.identifier(), request.patience(), clock, cancel, meter::waiting);
            // The phone is listed while the layers below are read.
            var listing = new FutureTask<>(
                    () -> new PhoneLister(link, gate, watch, cancel, request.limits()).list(meter::found));
            Thread.ofVirtual().name("lister").start(listing);
            try (var draft = strongroom.draft(phone)) {
                var source = new BackupPlan.Source(
                        Waiting.on(listing, PhonePath.ROOT, cancel),
                        status.contents(),
                        file -> link.kindOf(file.path()),
                        sealed);
                saved = save(draft, source, new ItemReader(link, gate, watch, cancel), phone, begun);
            } finally {
                listing.cancel(true);
            }
        }
        return checked(saved, phone);
    }

    /** The layer is there; that it could not be read back takes nothing from that, and is told. */
    private BackupResult checked(Saved saved, PhoneIdentity phone) {
        var problems = new ArrayList<>(saved.problems());
        Optional<CheckReport> report = Optional.empty();
        if (request.check()) {
            try {
                report = check(phone, saved.record().number());
            } catch (IOException | RuntimeException e) {
                LOG.warn("a layer could not be read back", e);
                problems.add(Problem.loss(
                        "Layer " + saved.record().number(),
                        "It was saved, but could not be read back",
                        "Check it from the strongroom as soon as nothing else uses it"));
            }
        }
        return new BackupResult(saved.record(), problems, report);
    }

    private record Saved(LayerRecord record, List<Problem> problems) {}

    private Saved save(
            LayerDraft draft, BackupPlan.Source source, ItemReader reader, PhoneIdentity phone, Instant begun)
            throws IOException {
        var plan = BackupPlan.of(source, request.selection(), path -> known(draft, path), draft.below());
        requireRoom(plan);
        meter.planned(plan);
        try {
            plan.unchanged().forEach(draft::keep);
            plan.noted().forEach(draft::keep);
            copyFresh(plan, draft, reader);
            meter.publishing();
            var record = record(draft, plan, phone, begun, source.sealed());
            var left = draft.publish(record);
            return new Saved(record, problems(draft, left));
        } catch (LinkException | CancellationException e) {
            settle(draft, e);
            throw e;
        } catch (IOException e) {
            throw storageTrouble(e);
        }
    }

    private Optional<ManifestItem> known(LayerDraft draft, PhonePath path) {
        return draft.resumed(path)
                .or(() -> request.readEverything()
                        ? Optional.empty()
                        : draft.below().find(path));
    }

    private PhoneStatus readyPhone() throws IOException {
        try {
            var status = cancel.await("phone-status", link::status);
            if (!status.readiness().ready()) {
                throw new LinkException.NotReady(status.model());
            }
            return status;
        } catch (ExecutionException e) {
            throw Waiting.trouble(e, PhonePath.ROOT);
        }
    }

    private void requireRoom(BackupPlan plan) throws IOException {
        // Reading everything finds few changes as a rule; what is new is not known before it is read.
        long need = request.readEverything() ? 0 : plan.need();
        long room = strongroom.room();
        if (need > room) {
            throw new ProblemException(
                    Problem.failure(
                            strongroom.root().toString(),
                            "The copy needs " + Sizes.bytes(need, Locale.ENGLISH)
                                    + " and the strongroom's disk has room for "
                                    + Sizes.bytes(room, Locale.ENGLISH),
                            "Free some space on it, choose fewer kinds, or a strongroom on a larger disk; nothing was copied yet"));
        }
    }

    private void copyFresh(BackupPlan plan, LayerDraft draft, ItemReader reader) throws IOException {
        var again = copyAll(plan.fresh(), draft, reader, false);
        // A file that was being written to a moment ago can often be read by now.
        copyAll(again, draft, reader, true);
    }

    /** What was read of a small item, and what it turned out to be. */
    private record Read(ItemReader.Whole whole, Kind kind) {}

    private record Ahead(BackupPlan.Fresh item, Optional<Future<Read>> content) {
        long bytes() {
            return content.isPresent() ? item.file().size() : 0;
        }
    }

    /** Copies items in order and gives back those that could not be read; the last time, they are noted as missed. */
    private List<BackupPlan.Fresh> copyAll(
            List<BackupPlan.Fresh> items, LayerDraft draft, ItemReader reader, boolean lastTime) throws IOException {
        var failed = new ArrayList<BackupPlan.Fresh>();
        var window = new ArrayDeque<Ahead>();
        ExecutorService readers = Executors.newFixedThreadPool(
                READERS, Thread.ofVirtual().name("item-reader-", 0).factory());
        try {
            var source = items.iterator();
            long aheadBytes = 0;
            while (true) {
                while (source.hasNext() && window.size() < AHEAD_ITEMS && aheadBytes < AHEAD_BYTES) {
                    var ahead = readAhead(source.next(), reader, readers);
                    aheadBytes += ahead.bytes();
                    window.addLast(ahead);
                }
                var next = window.pollFirst();
                if (next == null) {
                    return failed;
                }
                cancel.check();
                aheadBytes -= next.bytes();
                try {
                    store(next, draft, reader);
                    meter.done(next.item().kind());
                } catch (LinkException.Lost | LinkException.NotReady | CancellationException e) {
                    salvage(window, draft, e);
                    throw e;
                } catch (LinkException.Item e) {
                    LOG.debug("an item could not be read", e);
                    if (lastTime) {
                        draft.keep(ManifestItem.missed(
                                next.item().file(), next.item().kind(), e.problem()));
                        meter.done(next.item().kind());
                    } else {
                        failed.add(next.item());
                        meter.failed(failed.size());
                    }
                }
            }
        } finally {
            window.forEach(ahead -> ahead.content().ifPresent(content -> content.cancel(true)));
            readers.shutdownNow(); // one that never gets an answer is not waited for
        }
    }

    /** Keeps what was read ahead in full, so that the next run need not read it again. */
    private void salvage(Iterable<Ahead> window, LayerDraft draft, Exception why) {
        for (var ahead : window) {
            if (ahead.content()
                    .filter(content -> content.state() == Future.State.SUCCESS)
                    .isPresent()) {
                try {
                    add(draft, ahead.content().get().resultNow());
                } catch (IOException e) {
                    why.addSuppressed(e);
                    return;
                }
            }
        }
    }

    private Ahead readAhead(BackupPlan.Fresh item, ItemReader reader, ExecutorService readers) {
        if (item.file().size() > LayerDraft.PACKED_UP_TO) {
            return new Ahead(item, Optional.empty());
        }
        return new Ahead(item, Optional.of(readers.submit(() -> {
            var whole = reader.whole(item.file(), LayerDraft.PACKED_UP_TO, meter::bytes);
            return new Read(whole, link.kindOf(item.file().path(), item.kind(), whole.bytes()));
        })));
    }

    private void store(Ahead next, LayerDraft draft, ItemReader reader) throws IOException {
        var file = next.item().file();
        if (next.content().isPresent()) {
            add(draft, Waiting.on(next.content().get(), file.path(), cancel));
            return;
        }
        try (var alone = draft.alone(file)) {
            try {
                var is = reader.stream(file, alone.size(), alone::write, meter::bytes);
                alone.finish(is, link.kindOf(file.path(), next.item().kind(), alone.head()), origin());
            } catch (LinkException.Lost | LinkException.NotReady | CancellationException e) {
                alone.leave();
                throw e;
            }
        }
    }

    private void add(LayerDraft draft, Read read) throws IOException {
        var whole = read.whole();
        draft.add(whole.file(), read.kind(), whole.bytes(), whole.digest(), origin());
    }

    private ManifestItem.Origin origin() {
        return new ManifestItem.Origin(source, clock.instant().truncatedTo(ChronoUnit.SECONDS));
    }

    private static void settle(LayerDraft draft, Exception why) {
        try {
            draft.settleAll();
        } catch (IOException e) {
            why.addSuppressed(e);
        }
    }

    private IOException storageTrouble(IOException e) {
        if (e instanceof ProblemException) {
            return e;
        }
        long room;
        try {
            room = strongroom.room();
        } catch (IOException gone) {
            room = -1;
        }
        var where = strongroom.root().toString();
        if (room >= 0 && room < LayerDraft.PACKED_UP_TO) {
            return new ProblemException(
                    Problem.failure(
                            where,
                            "The strongroom's disk is full",
                            "Free some space and start the backup again; it goes on where it stopped"),
                    e);
        }
        return new ProblemException(
                Problem.failure(
                        where,
                        "The strongroom's disk can't be written to",
                        "Look at the disk and its cable, then start the backup again; it goes on where it stopped"),
                e);
    }

    private LayerRecord record(LayerDraft draft, BackupPlan plan, PhoneIdentity phone, Instant begun, boolean sealed) {
        var totals = new EnumMap<Kind, KindTotal>(Kind.class);
        for (var item : draft.items()) {
            if (!item.counts()) {
                continue;
            }
            totals.merge(item.kind(), KindTotal.of(item, draft.isFresh(item)), KindTotal::plus);
        }
        for (var change : draft.changes(plan.left())) {
            totals.merge(change.kind(), new KindTotal(change.kind(), 0, 0, 0, 0, 0, change.counted()), KindTotal::plus);
        }
        return new LayerRecord(
                draft.number(),
                phone,
                begun,
                Duration.between(begun, clock.instant()),
                List.copyOf(totals.values()),
                plan.missing(),
                left(plan, totals.keySet()),
                request.readEverything(),
                sealed,
                request.tool());
    }

    /** A kind of which nothing was listed may turn up all the same, when files are known by their content. */
    private static List<LeftOut> left(BackupPlan plan, Set<Kind> found) {
        return plan.left().stream()
                .filter(left -> left.why() != LeftOut.Why.NOTHING_THERE || !found.contains(left.kind()))
                .toList();
    }

    private static List<Problem> problems(LayerDraft draft, List<Problem> afterwards) {
        var problems = new ArrayList<>(draft.mended());
        problems.addAll(draft.below().problems());
        problems.addAll(afterwards);
        draft.items().forEach(item -> item.problem().ifPresent(problems::add));
        return problems;
    }

    /** Reads the layer back, and with it those below that were damaged before and may have been mended by it. */
    private Optional<CheckReport> check(PhoneIdentity phone, int number) throws IOException {
        var layers = new ArrayList<StoredLayer>();
        try {
            layers.add(strongroom.layer(phone.identifier(), number).orElseThrow());
            for (var below : strongroom.mend(phone)) {
                strongroom.layer(phone.identifier(), below).ifPresent(layers::add);
            }
            var check = LayerCheck.ofStoredBytes(layers, clock);
            meter.checking(check.size());
            var reports = check.run(meter::bytes, cancel);
            for (var report : reports) {
                strongroom.checks().add(phone.identifier(), report);
            }
            return Optional.of(reports.getFirst());
        } catch (CancellationException stopped) {
            return Optional.empty(); // the layer is published all the same, only not checked yet
        } finally {
            for (var layer : layers) {
                layer.close();
            }
        }
    }
}
