package app.custodex.desktop.desk;

import app.custodex.app.BackupJob;
import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Custodex;
import app.custodex.app.Mandate;
import app.custodex.backup.BackupRequest;
import app.custodex.backup.BackupResult;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.docket.AutomaticRuns;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import app.custodex.link.Limits;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.StoredPhone.Seal;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Platform;

/** Starts and stops backups, by hand and by themselves, and looks phones over before. On the interface thread only. */
public final class BackupDesk {
    /** A cable that was knocked out is usually back within minutes; a copy waits that long before it gives up. */
    private static final Duration PATIENCE = Duration.ofHours(2);

    private static final javafx.util.Duration TICK = javafx.util.Duration.millis(250);
    private static final javafx.util.Duration LOOK_FOR_DUE = javafx.util.Duration.seconds(1);

    private final Desk desk;
    private final Custodex custodex;
    private final AutomaticRuns automatic;
    private final Set<BayModel> looking = new HashSet<>();
    private final Set<BayModel> starting = new HashSet<>();
    private final Set<BayModel> lookedInVain = new HashSet<>();
    private boolean askingWhatIsDue;
    private final Timeline ticker = new Timeline(new KeyFrame(TICK, event -> tick()));
    private final Timeline due = new Timeline(new KeyFrame(LOOK_FOR_DUE, event -> startWhatIsDue()));

    BackupDesk(Desk desk) {
        this.desk = desk;
        this.custodex = desk.custodex();
        this.automatic = new AutomaticRuns(custodex.clock(), desk.words().zone());
        ticker.setCycleCount(Animation.INDEFINITE);
        due.setCycleCount(Animation.INDEFINITE);
    }

    /** Begins to start what dockets ask for. */
    void start() {
        due.play();
    }

    /** Lists what is on a phone and compares it with what is stored, unless that is being done. */
    public void lookOver(BayModel bay) {
        if (!bay.ready() || bay.progress().get().isPresent() || !looking.add(bay)) {
            return;
        }
        boolean sealed = bay.seal().get() != Seal.NONE;
        lookedInVain.add(bay);
        desk.work()
                .start(
                        bay.bay().source().name(),
                        () -> custodex.survey(bay.bay(), sealed, limits(bay), new CancelToken()),
                        found -> {
                            lookedInVain.remove(bay);
                            bay.survey().set(Optional.of(found));
                        },
                        () -> {
                            looking.remove(bay);
                            desk.changed();
                        });
    }

    /** Whether a phone is being looked over. */
    public boolean lookingOver(BayModel bay) {
        return looking.contains(bay);
    }

    /** Whether looking it over failed; it is not tried again by itself until something changes. */
    public boolean lookedInVain(BayModel bay) {
        return lookedInVain.contains(bay) && !looking.contains(bay);
    }

    /** What was found holds no longer. */
    public void forgetSurvey(BayModel bay) {
        lookedInVain.remove(bay);
        bay.survey().set(Optional.empty());
    }

    public boolean canStart(BayModel bay) {
        return obstacle(bay).isEmpty();
    }

    /** What keeps a backup from beginning, and what to do about it; empty when it can begin. */
    private Optional<Problem> obstacle(BayModel bay) {
        var name = bay.bay().source().name();
        if (bay.docket().get().filter(Docket::mayBeWorkedOn).isEmpty()) {
            return Optional.of(Problem.note(
                    name,
                    "There is no docket with the customer's consent for it",
                    "Write one at Check in, and tick the consent"));
        }
        if (!bay.ready()) {
            return Optional.of(
                    Problem.note(name, "It is not ready", "Do what Check in asks for; the next step is at the top"));
        }
        if (bay.progress().get().isPresent() || starting.contains(bay)) {
            return Optional.of(Problem.note(name, "A copy of it is under way", "Wait until it is done, or stop it"));
        }
        if (bay.seal().get() == Seal.CLOSED) {
            return Optional.of(
                    Problem.note(name, "Its layers are sealed", "Open them with the passphrase, at Back up"));
        }
        return bay.selection().get().kinds().isEmpty()
                ? Optional.of(Problem.note(name, "No kind of data is chosen", "Tick what is to be copied, at Back up"))
                : Optional.empty();
    }

    private static Limits limits(BayModel bay) {
        return bay.beyondLimits().get() ? Limits.NONE : Limits.USUAL;
    }

    /** Starts the backup of what was chosen, or says what keeps it from that. */
    public void start(BayModel bay) {
        var obstacle = obstacle(bay);
        if (obstacle.isPresent()) {
            desk.work().tell(obstacle.get());
        } else {
            var request = BackupRequest.everything(PATIENCE, Custodex.TOOL)
                    .with(bay.selection().get())
                    .readingEverything(bay.readEverything().get())
                    .within(limits(bay));
            start(bay, request, false);
        }
    }

    private void start(BayModel bay, BackupRequest request, boolean byItself) {
        var mandate = Mandate.ofDocket(bay.docket().get().orElseThrow().number());
        starting.add(bay);
        desk.work()
                .start(
                        bay.bay().source().name(),
                        () -> custodex.backUp(bay.bay(), mandate, request, byItself),
                        job -> started(bay, job),
                        () -> starting.remove(bay));
    }

    private void started(BayModel bay, BackupJob job) {
        bay.job(Optional.of(job));
        bay.outcome().set(Optional.empty());
        bay.progress().set(Optional.of(job.progress()));
        bay.step().set(RouteStep.BACK_UP);
        desk.changed();
        ticker.play();
        job.outcome().thenAccept(outcome -> Platform.runLater(() -> ended(bay, outcome)));
    }

    /** Called when a phone came or went, too, so that one that was away for a moment is noticed. */
    void startWhatIsDue() {
        desk.bays().forEach(bay -> automatic.seen(bay.bay().address(), bay.ready()));
        if (askingWhatIsDue) {
            return;
        }
        askingWhatIsDue = true;
        var dockets = new LinkedHashMap<BayModel, Docket>();
        desk.bays().forEach(bay -> bay.docket().get().ifPresent(docket -> dockets.put(bay, docket)));
        desk.work().start("Dockets", () -> onDisk(dockets), this::startDue, () -> askingWhatIsDue = false);
    }

    /** A docket as it is on the disk, where another program may have changed it, and when its last run ended. */
    private record OnDisk(Docket docket, Optional<Instant> lastRun) {}

    private Map<BayModel, OnDisk> onDisk(Map<BayModel, Docket> dockets) throws IOException {
        var found = new LinkedHashMap<BayModel, OnDisk>();
        for (var entry : dockets.entrySet()) {
            int number = entry.getValue().number();
            var docket = custodex.dockets().find(number);
            if (docket.isPresent()) {
                found.put(
                        entry.getKey(), new OnDisk(docket.get(), custodex.runs().last(number)));
            }
        }
        return found;
    }

    private void startDue(Map<BayModel, OnDisk> found) {
        found.forEach((bay, there) -> {
            var shown = bay.docket().get();
            if (shown.filter(docket -> docket.number() == there.docket().number())
                    .isEmpty()) {
                return; // put away meanwhile
            }
            if (!shown.equals(Optional.of(there.docket()))) {
                desk.showDocket(bay, there.docket());
            }
            if (automatic.due(there.docket(), there.lastRun()) && canStart(bay)) {
                start(bay, Custodex.automaticRequest(), true);
            }
        });
    }

    public void stop(BayModel bay) {
        bay.job().ifPresent(BackupJob::stop);
    }

    private void tick() {
        desk.bays().forEach(bay -> bay.job().ifPresent(job -> bay.progress().set(Optional.of(job.progress()))));
        desk.changed();
    }

    private void ended(BayModel bay, Outcome outcome) {
        bay.job(Optional.empty());
        bay.progress().set(Optional.empty());
        bay.outcome().set(Optional.of(outcome));
        forgetSurvey(bay);
        startWhatIsDue(); // shows what was written on the docket
        if (desk.bays().stream().allMatch(b -> b.job().isEmpty())) {
            ticker.stop();
        }
        desk.refreshHoldings();
        result(bay)
                .ifPresent(result -> desk.work()
                        .start(
                                "Reading layer " + result.layer().number(),
                                () -> {
                                    custodex.reading()
                                            .catalogue(
                                                    custodex.gate()
                                                            .mandateFor(result.layer()
                                                                    .phone()),
                                                    result.layer().phone().identifier(),
                                                    result.layer().number(),
                                                    desk.words().locale());
                                    return result;
                                },
                                read -> {}));
        desk.changed();
    }

    /** The result of the last backup, if it came to one. */
    public static Optional<BackupResult> result(BayModel bay) {
        return bay.outcome().get().orElse(null) instanceof Outcome.Done done
                ? Optional.of(done.result())
                : Optional.empty();
    }

    private interface SealAction {
        void run() throws Exception;
    }

    private void onSeal(BayModel bay, SealAction action, Runnable ended) {
        desk.work()
                .start(
                        bay.bay().source().name(),
                        () -> {
                            action.run();
                            return bay;
                        },
                        done -> {
                            forgetSurvey(bay);
                            desk.refreshHoldings();
                        },
                        ended);
    }

    /** Seals the stack of a phone that has no layer yet. Closes the passphrase. */
    public void seal(BayModel bay, Passphrase passphrase, Runnable ended) {
        bay.phone()
                .ifPresent(phone -> onSeal(
                        bay,
                        () -> {
                            try (passphrase) {
                                custodex.strongroom().seal(phone, passphrase);
                            }
                        },
                        ended));
    }

    /** Takes back a seal under which nothing is stored yet. */
    public void unseal(BayModel bay) {
        bay.phone().ifPresent(phone -> onSeal(bay, () -> custodex.strongroom().unseal(phone), () -> {}));
    }

    /** Whether any copy is under way. */
    public boolean copying() {
        return custodex.copying();
    }

    /** Ends everything that runs; what is done is kept. Blocks until it is safe. */
    void close() {
        ticker.stop();
        due.stop();
        List<BackupJob> running = new ArrayList<>();
        desk.bays().forEach(bay -> bay.job().ifPresent(running::add));
        running.forEach(BackupJob::stop);
        running.forEach(job -> job.outcome().join());
    }
}
