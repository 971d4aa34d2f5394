package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.Sizes;
import app.custodex.link.Kind;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerCheck;
import app.custodex.strongroom.LayerDraft;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.LayerRecord.KindTotal;
import app.custodex.strongroom.ManifestItem;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * One backup of one phone: lists it, takes over what is stored already, copies the rest, publishes the layer and reads it
 * back. Reading and digesting run on a few threads ahead of the one that writes, within a bounded amount of memory.
 *
 * <p>{@link #run} throws {@link LinkException} when the phone stayed away, {@link ProblemException} when the strongroom
 * can't take more, {@link CancellationException} when it was stopped. In each case what was brought into safety stays
 * there, and the next run of the same phone goes on behind it.
 */
public final class BackupRun {
    private static final int READERS = 4;
    private static final int AHEAD_ITEMS = 256;
    private static final long AHEAD_BYTES = 48L << 20;
    /** Pack headers, manifest and inventory, an item; measured at 0.9 kB and rounded up. */
    private static final long OVERHEAD_AN_ITEM = 1_500;

    private final PhoneLink link;
    private final Strongroom strongroom;
    private final Options options;
    private final Clock clock;
    private final CancelToken cancel;
    private final Meter meter;

    /**
     * @param patience how long to wait for a phone that went away or asks for a hand
     * @param check whether to read the layer back when it is published
     * @param tool name and version of the program, for the layer's record
     */
    public record Options(Duration patience, boolean check, String tool) {}

    public BackupRun(PhoneLink link, Strongroom strongroom, Options options, Clock clock, CancelToken cancel) {
        this.link = link;
        this.strongroom = strongroom;
        this.options = options;
        this.clock = clock;
        this.cancel = cancel;
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
        var phone = readyPhone();
        LayerRecord record;
        List<Problem> problems;
        try (var draft = strongroom.draft(phone)) {
            var gate = new Gate(link, phone.identifier(), options.patience(), clock, cancel, meter::waiting);
            var plan = BackupPlan.of(listing(gate), file -> link.kindOf(file.path()), draft);
            requireRoom(plan);
            meter.planned(plan);
            try {
                plan.unchanged().forEach(draft::keep);
                plan.links().forEach(draft::keep);
                copyFresh(plan, draft, new ItemReader(link, gate, cancel));
                meter.publishing();
                record = record(draft, plan, phone, begun);
                draft.publish(record);
            } catch (LinkException | CancellationException e) {
                settle(draft, e);
                throw e;
            } catch (IOException e) {
                throw storageTrouble(e);
            }
            problems = problems(draft, plan);
        }
        return new BackupResult(record, problems, options.check() ? check(phone, record.number()) : Optional.empty());
    }

    private PhoneIdentity readyPhone() throws LinkException {
        var status = link.status();
        if (!status.readiness().ready()) {
            throw new LinkException.NotReady(status.model());
        }
        return status.identity().orElseThrow(() -> new LinkException.NotReady(status.model()));
    }

    /** Lists folder by folder, those of one depth at once; in the phone's order within each. */
    private List<Listed> listing(Gate gate) throws IOException {
        var all = new ArrayList<Listed>();
        List<PhonePath> folders = List.of(PhonePath.ROOT);
        try (var threads =
                Executors.newFixedThreadPool(READERS, Thread.ofVirtual().factory())) {
            while (!folders.isEmpty()) {
                var answers = folders.stream()
                        .map(folder -> threads.submit(() -> members(folder, gate)))
                        .toList();
                var below = new ArrayList<PhonePath>();
                for (var answer : answers) {
                    for (var member : await(answer)) {
                        all.add(member);
                        if (member instanceof Listed.Folder folder) {
                            below.add(folder.path());
                        }
                    }
                }
                folders = below;
            }
        }
        return all;
    }

    private List<Listed> members(PhonePath folder, Gate gate) throws LinkException {
        while (true) {
            cancel.check();
            try {
                var members = link.list(folder);
                meter.found(members.size());
                return members;
            } catch (LinkException.Item e) {
                return List.of(new Listed.Refused(e.problem()));
            } catch (LinkException e) {
                gate.awaitPhone(e);
            }
        }
    }

    private void requireRoom(BackupPlan plan) throws IOException {
        long need = plan.freshBytes() + plan.fresh().size() * OVERHEAD_AN_ITEM;
        long room = strongroom.room();
        if (need > room) {
            throw new ProblemException(Problem.failure(
                    strongroom.root().toString(),
                    "The copy needs " + Sizes.bytes(need, Locale.getDefault())
                            + " and the strongroom's disk has room for " + Sizes.bytes(room, Locale.getDefault()),
                    "Free some space on it, or choose a strongroom on a larger disk; nothing was copied yet"));
        }
    }

    private void copyFresh(BackupPlan plan, LayerDraft draft, ItemReader reader) throws IOException {
        var again = copyAll(plan.fresh(), draft, reader, false);
        // A file that was being written to a moment ago can often be read by now.
        copyAll(again, draft, reader, true);
    }

    private record Ahead(BackupPlan.Fresh item, Optional<Future<ItemReader.Whole>> content) {
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
            readers.shutdownNow();
            readers.close();
        }
    }

    /** Keeps what was read ahead in full, so that the next run need not read it again. */
    private static void salvage(Iterable<Ahead> window, LayerDraft draft, Exception why) {
        for (var ahead : window) {
            if (ahead.content()
                    .filter(content -> content.state() == Future.State.SUCCESS)
                    .isPresent()) {
                var whole = ahead.content().get().resultNow();
                try {
                    draft.add(ahead.item().file(), ahead.item().kind(), whole.etag(), whole.bytes(), whole.digest());
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
        return new Ahead(
                item,
                Optional.of(readers.submit(() -> reader.whole(item.file(), LayerDraft.PACKED_UP_TO, meter::bytes))));
    }

    private void store(Ahead next, LayerDraft draft, ItemReader reader) throws IOException {
        var file = next.item().file();
        var kind = next.item().kind();
        if (next.content().isPresent()) {
            var whole = await(next.content().get());
            draft.add(file, kind, whole.etag(), whole.bytes(), whole.digest());
            return;
        }
        try (var alone = draft.alone(file, kind)) {
            alone.finish(reader.stream(file, alone::write, meter::bytes));
        }
    }

    private static <T> T await(Future<T> answer) throws IOException {
        try {
            return answer.get();
        } catch (ExecutionException e) {
            switch (e.getCause()) {
                case LinkException trouble -> throw trouble;
                case CancellationException stopped -> throw stopped;
                case null, default -> throw new IllegalStateException("reading the phone failed unexpectedly", e);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
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
                        "The strongroom's disk doesn't take what is written to it (" + e.getMessage() + ")",
                        "Look at the disk and its cable, then start the backup again; it goes on where it stopped"),
                e);
    }

    private LayerRecord record(LayerDraft draft, BackupPlan plan, PhoneIdentity phone, Instant begun) {
        var totals = new EnumMap<Kind, KindTotal>(Kind.class);
        for (var item : draft.items()) {
            boolean fresh = draft.isFresh(item);
            long bytes = item.saved() ? item.size() : 0;
            totals.merge(
                    item.kind(),
                    new KindTotal(item.kind(), 1, missed(item) ? 1 : 0, bytes, fresh ? 1 : 0, fresh ? bytes : 0),
                    BackupRun::sum);
        }
        return new LayerRecord(
                draft.number(),
                phone,
                begun,
                Duration.between(begun, clock.instant()),
                List.copyOf(totals.values()),
                plan.refused().size(),
                options.tool());
    }

    private static boolean missed(ManifestItem item) {
        return item.problem().filter(p -> p.grade() != Problem.Grade.NOTE).isPresent();
    }

    private static KindTotal sum(KindTotal a, KindTotal b) {
        return new KindTotal(
                a.kind(),
                a.items() + b.items(),
                a.missed() + b.missed(),
                a.bytes() + b.bytes(),
                a.freshItems() + b.freshItems(),
                a.freshBytes() + b.freshBytes());
    }

    private static List<Problem> problems(LayerDraft draft, BackupPlan plan) {
        var problems = new ArrayList<>(plan.refused());
        draft.items().forEach(item -> item.problem().ifPresent(problems::add));
        return problems;
    }

    private Optional<CheckReport> check(PhoneIdentity phone, int number) throws IOException {
        try (var layer = strongroom.layer(phone.identifier(), number).orElseThrow()) {
            var check = new LayerCheck(layer, clock);
            meter.checking(check.size());
            var report = check.run(meter::bytes, cancel);
            strongroom.checks().add(phone.identifier(), report);
            return Optional.of(report);
        } catch (CancellationException stopped) {
            return Optional.empty(); // the layer is published all the same, only not checked yet
        }
    }
}
