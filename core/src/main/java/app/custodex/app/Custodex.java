package app.custodex.app;

import app.custodex.backup.BackupRequest;
import app.custodex.backup.BackupResult;
import app.custodex.backup.BackupRun;
import app.custodex.backup.Survey;
import app.custodex.base.CancelToken;
import app.custodex.base.Disk;
import app.custodex.base.Privacy;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket;
import app.custodex.docket.DocketBook;
import app.custodex.docket.HandOutBook;
import app.custodex.docket.RouteStep;
import app.custodex.docket.Run;
import app.custodex.docket.RunBook;
import app.custodex.link.Limits;
import app.custodex.link.LinkException;
import app.custodex.link.MakerBackups;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.link.PhoneStatus;
import app.custodex.places.WorldMap;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.function.LongConsumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** One shop's Custodex: its bays, dockets and strongroom, and what can be done with them. */
public final class Custodex implements AutoCloseable {
    /** For the record of each layer. */
    public static final String TOOL = "Custodex 0.1.0";

    /** Nobody stands by to plug the phone in again. */
    private static final Duration AUTOMATIC_PATIENCE = Duration.ofMinutes(10);

    private static final Logger LOG = LoggerFactory.getLogger(Custodex.class);

    private final Home home;
    private final Clock clock;
    private final SettingsFile settings;
    private final ShopStrongroom strongroom;
    private final DocketBook dockets;
    private final ConsentGate gate;
    private final Curtain curtain;
    private final Trays trays;
    private final RunBook runs;
    private final HandOutBook handOuts;
    private final Sources sources;
    private final Bays bays;
    private final Checks checks;
    private final LayerReading reading;
    private final StraightReading straight;
    private Optional<WorldMap> map = Optional.empty();
    private final Map<Bay, BackupJob> jobs = new ConcurrentHashMap<>();

    private Custodex(Home home, Clock clock, Disk disk) throws IOException {
        this.home = home;
        this.clock = clock;
        if (Files.isDirectory(home.root())) {
            Privacy.keepOthersOut(home.root());
        }
        this.settings = new SettingsFile(home.settings(), disk);
        this.strongroom = ShopStrongroom.open(home, settings, disk);
        this.checks = new Checks(strongroom::current, clock);
        this.dockets = DocketBook.open(home.dockets(), disk, clock);
        this.handOuts = new HandOutBook(home.handOuts(), disk);
        this.gate = new ConsentGate(dockets, () -> settled().ownPhones(), handOuts, clock);
        this.curtain = new Curtain(gate, home.curtain(), disk, clock, System.getProperty("user.name"));
        this.trays = new Trays(home.trays(), disk, strongroom);
        this.reading = new LayerReading(home, disk, strongroom, gate);
        this.straight = new StraightReading(strongroom, gate, clock);
        this.runs = RunBook.open(home.runs(), disk);
        this.sources = new Sources(home.sources(), disk);
        this.bays = new Bays(sources, () -> strongroom.known().root());
    }

    /**
     * @throws ProblemException when the strongroom that was used last is not there, or the settings can't be read
     * @throws IOException when the home folder can't be read
     */
    public static Custodex open(Home home, Clock clock) throws IOException {
        return open(home, clock, new RealDisk());
    }

    static Custodex open(Home home, Clock clock, Disk disk) throws IOException {
        return new Custodex(home, clock, disk);
    }

    /**
     * Chooses another strongroom for a home, whether or not the one that was used last is there: one that is there, or a new one in
     * an empty folder.
     */
    public static void choose(Home home, Path folder) throws IOException {
        var disk = new RealDisk();
        disk.createFolders(home.root());
        ShopStrongroom.use(folder, home, new SettingsFile(home.settings(), disk), disk);
    }

    /** What was found wrong with the home's own files; everything else goes on. */
    public List<Problem> problems() throws IOException {
        var problems = new ArrayList<Problem>(strongroom.problems());
        problems.addAll(dockets.problems());
        problems.addAll(runs.problems());
        problems.addAll(handOuts.problems());
        problems.addAll(curtain.problems());
        problems.addAll(sources.problems());
        if (!Privacy.isOwnersOnly(strongroom.current().root())) {
            problems.add(Problem.loss(
                    strongroom.current().root().toString(),
                    "Other users of this computer can read the strongroom: its disk keeps no permissions, or they were changed",
                    "Put it on a disk that keeps them, or seal what is stored"));
        }
        return problems;
    }

    public Home home() {
        return home;
    }

    public Clock clock() {
        return clock;
    }

    /**
     * The strongroom that is in use now.
     *
     * @throws ProblemException when another program has changed it, and the new one is not there
     */
    public Strongroom strongroom() throws IOException {
        return strongroom.current();
    }

    /** Where the strongroom is, or was when it was last there. */
    public Path strongroomPlace() {
        return strongroom.known().root();
    }

    public DocketBook dockets() {
        return dockets;
    }

    /** Asks whether something may be done to a customer's data. */
    public ConsentGate gate() {
        return gate;
    }

    /** Whether what is private may stand on the screen. */
    public Curtain curtain() {
        return curtain;
    }

    /** What has been picked in layers. */
    public Trays trays() {
        return trays;
    }

    /** What was written outside of the strongroom. */
    public HandOutBook handOuts() {
        return handOuts;
    }

    public RunBook runs() {
        return runs;
    }

    /** Looking into layers. */
    public LayerReading reading() {
        return reading;
    }

    /** The map of the world with what the shop has added to it. Takes about a second the first time. */
    public synchronized WorldMap map(Consumer<Problem> told) throws IOException {
        if (map.isEmpty()) {
            map = Optional.of(WorldMap.load(home.maps(), told));
        }
        return map.get();
    }

    /** Finds things in several layers at once. */
    public StrongroomSearch search() {
        return new StrongroomSearch(reading);
    }

    /** The same while somebody types; the caller closes it. */
    public LiveSearch liveSearch(Locale locale) {
        return new LiveSearch(reading, gate, locale);
    }

    /** Reads phones that are plugged in, without a copy. */
    public StraightReading straight() {
        return straight;
    }

    /**
     * Files and folders of this computer, to be read straight like what is in a bay.
     *
     * @throws ProblemException when one of them is not there, can't be read, or is kept here for a customer
     */
    public Bay loose(List<Path> paths) throws IOException {
        return LooseFiles.bay(paths, () -> strongroom.known().root(), List.of(home.reading(), home.trays()));
    }

    /** Reading layers back. */
    public Checks checks() {
        return checks;
    }

    public Bays bays() {
        return bays;
    }

    /** What makers' own programs left on this computer, to be put on the bench by its folder. */
    public MakerBackups makerBackups() {
        return MakerBackups.in(home.users());
    }

    public Settings settings() throws IOException {
        return settings.now();
    }

    private Settings settled() {
        try {
            return settings.now();
        } catch (IOException e) {
            LOG.warn("the settings can't be read", e);
            return Settings.FIRST;
        }
    }

    public void checkSchedule(Settings.CheckSchedule schedule) throws IOException {
        settings.change(s -> s.with(schedule));
    }

    /** Remembers how the window looks. */
    public void look(Settings.Look look) throws IOException {
        settings.change(s -> s.with(look));
    }

    /** Remembers in which format each group of things was extracted, and in which form they were handed out. */
    public void remember(Map<String, String> formats, String handOutAs) throws IOException {
        settings.change(s -> s.withFormats(formats, handOutAs));
    }

    /**
     * Remembers columns under a name.
     *
     * @param columns empty to forget the name
     */
    public void rememberColumns(String name, String columns) throws IOException {
        settings.change(s -> s.withColumns(name, columns));
    }

    /** Writes down that a phone is the shop's own, so that there is no customer to ask. */
    public void declareOwn(PhoneIdentity phone) throws IOException {
        settings.change(s -> s.withOwnPhone(phone.identifier()));
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

    private void requireNoCopy() throws IOException {
        if (copying()) {
            throw new ProblemException(Problem.failure(
                    strongroom().root().toString(),
                    "A copy is under way into this strongroom",
                    "Wait until it is done"));
        }
    }

    /**
     * Uses another strongroom from now on, one that is there or a new one in an empty folder.
     *
     * @throws ProblemException while a copy is under way
     */
    public void useStrongroom(Path folder) throws IOException {
        requireNoCopy();
        strongroom.use(folder);
    }

    /**
     * Brings the strongroom to another place and goes on there.
     *
     * @param progress is told bytes as they are copied, if it is another disk
     * @throws ProblemException while anybody uses it
     */
    public void moveStrongroom(Path target, LongConsumer progress, CancelToken cancel) throws IOException {
        reading.endBehind(); // it would hold the strongroom for minutes, and nobody waits for it
        strongroom.move(target, progress, cancel);
    }

    /** Compares a phone that is ready with what is stored of it; copies nothing. */
    public Survey survey(Bay bay, boolean sealed, Limits limits, CancelToken cancel) throws IOException {
        return Survey.of(bay.link(), strongroom(), sealed, limits, clock, cancel);
    }

    /**
     * Looks at the beginning of a file that is still on a phone.
     *
     * @param most bytes
     * @throws ProblemException when the customer has not consented
     */
    public byte[] preview(Bay bay, Mandate mandate, PhonePath file, int most) throws IOException {
        gate.ask(Operation.READ, mandate, identity(bay));
        try (var content = bay.link().open(file, 0)) {
            return content.stream().readNBytes(most);
        }
    }

    private static PhoneIdentity identity(Bay bay) throws IOException {
        return bay.status()
                .flatMap(PhoneStatus::identity)
                .orElseThrow(() -> new LinkException.NotReady(bay.source().name()));
    }

    /**
     * Starts a backup.
     *
     * @param mandate on whose behalf
     * @param automatic whether it begins by itself, for the result list
     * @throws ProblemException when the customer has not consented, or one of this bay is running already
     */
    public BackupJob backUp(Bay bay, Mandate mandate, BackupRequest request, boolean automatic) throws IOException {
        if (bay.status().isEmpty()) {
            bay.ask();
        }
        gate.ask(Operation.COPY, mandate, identity(bay));
        var docket = gate.docket(mandate);
        var cancel = new CancelToken();
        var run = new BackupRun(bay.link(), strongroom(), request, clock, cancel);
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
                strongroom.remember();
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

    /**
     * Seals the stack of a phone that has no layer yet.
     *
     * @throws ProblemException when it has layers
     */
    public void seal(PhoneIdentity phone, Passphrase passphrase) throws IOException {
        strongroom().seal(phone, passphrase);
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

    @Override
    public void close() {
        reading.close();
        bays.close();
    }
}
