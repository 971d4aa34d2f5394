package app.custodex.app;

import app.custodex.backup.BackupRequest;
import app.custodex.backup.BackupResult;
import app.custodex.backup.BackupRun;
import app.custodex.backup.Survey;
import app.custodex.base.CancelToken;
import app.custodex.base.Disk;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket;
import app.custodex.docket.DocketBook;
import app.custodex.docket.RouteStep;
import app.custodex.docket.Run;
import app.custodex.docket.RunBook;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import app.custodex.readers.ContactsReader;
import app.custodex.search.ContactIndex;
import app.custodex.strongroom.StoredLayer;
import app.custodex.strongroom.Strongroom;
import app.custodex.strongroom.StrongroomMove;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.LongConsumer;

/** One shop's Custodex: its bays, dockets and strongroom, and what can be done with them. */
public final class Custodex implements AutoCloseable {
    /** For the record of each layer. */
    public static final String TOOL = "Custodex 0.1.0";

    /** Nobody stands by to plug the phone in again. */
    private static final Duration AUTOMATIC_PATIENCE = Duration.ofMinutes(10);

    private final Home home;
    private final Clock clock;
    private final Disk disk = new RealDisk();
    private final DocketBook dockets;
    private final RunBook runs;
    private final Bays bays;
    private final Checks checks;
    private final Map<Bay, BackupJob> jobs = new ConcurrentHashMap<>();
    private volatile Settings settings;
    private volatile Strongroom strongroom;
    private volatile Catalogue catalogue;

    private Custodex(Home home, Clock clock) throws IOException {
        this.home = home;
        this.clock = clock;
        this.settings = Settings.read(home.settings());
        this.strongroom = Strongroom.open(settings.strongroom().orElse(home.strongroom()), disk);
        this.catalogue = catalogue(strongroom);
        this.checks = new Checks(this::strongroom, clock);
        this.dockets = DocketBook.open(home.dockets(), disk, clock);
        this.runs = RunBook.open(home.runs(), disk);
        this.bays =
                new Bays(new Sources(home.sources(), disk), () -> strongroom().root());
    }

    /** @throws IOException when the home folder can't be read or written */
    public static Custodex open(Home home, Clock clock) throws IOException {
        return new Custodex(home, clock);
    }

    private Catalogue catalogue(Strongroom of) {
        return new Catalogue(of.root().resolve("catalogue"), disk);
    }

    public Home home() {
        return home;
    }

    public Clock clock() {
        return clock;
    }

    public Strongroom strongroom() {
        return strongroom;
    }

    public DocketBook dockets() {
        return dockets;
    }

    public RunBook runs() {
        return runs;
    }

    /** Reading layers back. */
    public Checks checks() {
        return checks;
    }

    public Bays bays() {
        return bays;
    }

    public Settings settings() {
        return settings;
    }

    private synchronized void settle(Settings newSettings) throws IOException {
        newSettings.write(home.settings(), disk);
        settings = newSettings;
    }

    public void checkSchedule(Settings.CheckSchedule schedule) throws IOException {
        settle(settings.with(schedule));
    }

    /** Whether anything is being copied. */
    public boolean copying() {
        return !jobs.isEmpty();
    }

    /** Whether what is in this bay is being copied. */
    public boolean copying(Bay bay) {
        return jobs.containsKey(bay);
    }

    /** How a backup is made that begins by itself. */
    public static BackupRequest automaticRequest() {
        return BackupRequest.everything(AUTOMATIC_PATIENCE, TOOL);
    }

    private void requireNoCopy() throws ProblemException {
        if (copying()) {
            throw new ProblemException(Problem.failure(
                    strongroom.root().toString(), "A copy is under way into this strongroom", "Wait until it is done"));
        }
    }

    /**
     * Uses another strongroom from now on, one that is there or a new one in an empty folder.
     *
     * @throws ProblemException while a copy is under way
     */
    public void useStrongroom(Path folder) throws IOException {
        requireNoCopy();
        var opened = Strongroom.open(folder.toAbsolutePath().normalize(), disk);
        settle(settings.with(opened.root()));
        catalogue = catalogue(opened);
        strongroom = opened;
    }

    /**
     * Brings the strongroom to another place and goes on there.
     *
     * @param progress is told bytes as they are copied, if it is another disk
     */
    public void moveStrongroom(Path target, LongConsumer progress, CancelToken cancel) throws IOException {
        requireNoCopy();
        settle(settings.movingTo(target.toAbsolutePath().normalize()));
        new StrongroomMove(strongroom.root(), target, disk).run(progress, cancel, this::useStrongroom);
    }

    /** Compares a phone that is ready with what is stored of it; copies nothing. */
    public Survey survey(Bay bay, boolean sealed, CancelToken cancel) throws IOException {
        return Survey.of(bay.link(), strongroom, sealed, clock, cancel);
    }

    /**
     * Starts a backup.
     *
     * @param docket the job that it belongs to, if any
     * @param automatic whether it begins by itself, for the result list
     * @throws ProblemException when one of this bay is running already
     */
    public BackupJob backUp(Bay bay, Optional<Docket> docket, BackupRequest request, boolean automatic)
            throws ProblemException {
        var cancel = new CancelToken();
        var run = new BackupRun(bay.link(), strongroom, request, clock, cancel);
        var job = new BackupJob(run, cancel);
        if (jobs.putIfAbsent(bay, job) != null) {
            throw new ProblemException(Problem.failure(
                    bay.source().name(), "A copy of it is under way", "Wait until it is done, or stop it first"));
        }
        var begun = clock.instant();
        var phone = bay.status().flatMap(PhoneStatus::identity);
        job.start(docket.map(Docket::customer).orElse(bay.source().name()), outcome -> {
            try {
                runs.add(run(begun, docket, phone, bay, automatic, outcome));
                if (docket.isPresent() && outcome instanceof BackupJob.Outcome.Done done) {
                    var layer = done.result().layer();
                    dockets.change(
                            docket.get().number(),
                            d -> d.withPhone(layer.phone())
                                    .withLayer(layer.number())
                                    .withDone(RouteStep.BACK_UP, clock.instant()));
                }
            } finally {
                jobs.remove(bay); // only now: a run that is not written down yet would be taken for due
            }
        });
        return job;
    }

    private Run run(
            Instant begun,
            Optional<Docket> docket,
            Optional<PhoneIdentity> phone,
            Bay bay,
            boolean automatic,
            BackupJob.Outcome outcome) {
        var result = outcome instanceof BackupJob.Outcome.Done done
                ? Optional.of(done.result())
                : Optional.<BackupResult>empty();
        Optional<Problem> problem = switch (outcome) {
            case BackupJob.Outcome.Done done -> Optional.empty();
            case BackupJob.Outcome.Stopped stopped ->
                Optional.of(Problem.failure(
                        bay.source().name(), "It was stopped", "Start it again; it goes on where it stopped"));
            case BackupJob.Outcome.Failed failed -> Optional.of(failed.problem());
        };
        return new Run(
                begun,
                clock.instant(),
                docket.map(Docket::number),
                phone.map(PhoneIdentity::identifier).orElse(bay.source().identifier()),
                phone.map(PhoneIdentity::name).orElse(bay.source().name()),
                automatic,
                result.map(r -> r.layer().number()),
                result.map(r -> r.layer().freshItems()).orElse(0L),
                result.map(r -> r.layer().freshBytes()).orElse(0L),
                result.map(r -> r.layer().missed()).orElse(0L),
                result.flatMap(r -> r.check()).map(check -> check.sound()),
                problem);
    }

    private StoredLayer layer(String phoneIdentifier, int number) throws IOException {
        return strongroom
                .layer(phoneIdentifier, number)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        phoneIdentifier, "There is no layer " + number + " of this phone", "List the layers")));
    }

    /** Opens the contacts of a layer; the phone need not be there. The caller closes them. */
    public ContactsOfLayer contacts(String phoneIdentifier, int number, Locale locale) throws IOException {
        var layer = layer(phoneIdentifier, number);
        PrivatePlace place;
        try {
            // What is sealed never touches a disk in the clear.
            place = layer.record().sealed() ? PrivatePlace.inMemory() : PrivatePlace.open(home.reading());
        } catch (IOException e) {
            layer.close();
            throw e;
        }
        try {
            var entry = catalogued(layer, place, locale);
            var book = ContactsReader.reopen(
                    entry.contacts(), entry.problems(), layer, layer.record().phone(), place);
            return new ContactsOfLayer(layer, place, book, ContactIndex.ofSorted(entry.contacts(), locale));
        } catch (IOException | RuntimeException e) {
            place.close();
            layer.close();
            throw e;
        }
    }

    /** What the catalogue has of a layer; read out of the layer, once, when it has nothing. */
    private Catalogue.Entry catalogued(StoredLayer layer, PrivatePlace place, Locale locale) throws IOException {
        var kept = catalogue;
        var there = kept.find(layer, locale);
        if (there.isPresent()) {
            return there.get();
        }
        synchronized (kept) {
            var meanwhile = kept.find(layer, locale);
            if (meanwhile.isPresent()) {
                return meanwhile.get();
            }
            // The rules of collation take their time to load, so they are loaded beside the reading.
            CompletableFuture.runAsync(() -> ContactIndex.prepare(locale));
            try (var book = ContactsReader.read(layer, layer.record().phone(), place)) {
                var sorted = new ContactIndex(book.contacts(), locale).ascending();
                var entry = new Catalogue.Entry(sorted, book.problems());
                kept.keep(layer, locale, entry);
                return entry;
            }
        }
    }

    /** Reads a layer's contacts into the catalogue, so that they open at once later. Takes a while; blocks. */
    public void catalogue(String phoneIdentifier, int number, Locale locale) throws IOException {
        contacts(phoneIdentifier, number, locale).close();
    }

    @Override
    public void close() {
        bays.close();
    }
}
