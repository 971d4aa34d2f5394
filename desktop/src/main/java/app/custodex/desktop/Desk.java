package app.custodex.desktop;

import app.custodex.app.BackupJob;
import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Custodex;
import app.custodex.backup.BackupResult;
import app.custodex.desktop.ui.Words;
import app.custodex.desktop.ui.Work;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import app.custodex.link.PhoneIdentity;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Platform;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What the whole window shows and can do. Touched on the interface thread only. */
public final class Desk implements AutoCloseable {
    /** A cable that was knocked out is usually back within minutes; a copy waits that long before it gives up. */
    private static final Duration PATIENCE = Duration.ofHours(2);

    private static final javafx.util.Duration TICK = javafx.util.Duration.millis(250);

    /** Where in the window one is. */
    public enum Place {
        BENCH,
        READING_ROOM,
        STRONGROOM
    }

    /** A layer that is to be read. */
    public record Reading(PhoneIdentity phone, int layer, boolean extracting) {}

    private final Custodex custodex;
    private final Words words;
    private final Work work;
    private final List<BayModel> bays;
    private final ObjectProperty<Place> place = new SimpleObjectProperty<>(Place.BENCH);
    private final ObjectProperty<Optional<BayModel>> present = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<Reading>> reading = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Strongroom.Holdings> holdings =
            new SimpleObjectProperty<>(new Strongroom.Holdings(List.of(), List.of()));
    private final IntegerProperty changes = new SimpleIntegerProperty();
    private final Timeline ticker = new Timeline(new KeyFrame(TICK, event -> tick()));

    public Desk(Custodex custodex, Words words, Work work) {
        this.custodex = custodex;
        this.words = words;
        this.work = work;
        this.bays = custodex.bays().all().stream().map(BayModel::new).toList();
        present.set(bays.stream().findFirst());
        for (var bay : bays) {
            bay.docket().set(custodex.dockets().at(bay.bay().link().address()));
            bay.step()
                    .set(
                            bay.docket()
                                            .get()
                                            .filter(d -> !d.layers().isEmpty())
                                            .isPresent()
                                    ? RouteStep.BACK_UP
                                    : RouteStep.CHECK_IN);
        }
        custodex.dockets().problems().forEach(work::tell);
    }

    /** Begins to follow the phones and the strongroom. */
    public void start() {
        ticker.setCycleCount(Animation.INDEFINITE);
        custodex.bays().watch(() -> Platform.runLater(this::refreshBays));
        refreshHoldings();
    }

    public Custodex custodex() {
        return custodex;
    }

    public Words words() {
        return words;
    }

    public Work work() {
        return work;
    }

    public List<BayModel> bays() {
        return bays;
    }

    public ObjectProperty<Place> place() {
        return place;
    }

    /** The bay whose docket is on the bench. */
    public ObjectProperty<Optional<BayModel>> present() {
        return present;
    }

    public ObjectProperty<Optional<Reading>> reading() {
        return reading;
    }

    public ObjectProperty<Strongroom.Holdings> holdings() {
        return holdings;
    }

    /** Counts up whenever a bay's state may read differently. */
    public ReadOnlyIntegerProperty changes() {
        return changes;
    }

    public Instant now() {
        return custodex.clock().instant();
    }

    public BayState state(BayModel bay) {
        return BayState.of(bay, words, now());
    }

    private void changed() {
        changes.set(changes.get() + 1);
    }

    private void refreshBays() {
        for (var bay : bays) {
            bay.status().set(bay.bay().status());
            bay.status().get().flatMap(s -> s.identity()).ifPresent(phone -> rememberPhone(bay, phone));
            refreshLayers(bay);
        }
        changed();
    }

    /** Writes into the docket who the phone is, as soon as it says so. */
    private void rememberPhone(BayModel bay, PhoneIdentity phone) {
        bay.docket()
                .get()
                .filter(docket -> docket.phone().isEmpty())
                .ifPresent(docket -> changeDocket(bay, docket, d -> d.withPhone(phone)));
    }

    private interface DocketChange {
        Docket apply(Docket docket);
    }

    private void changeDocket(BayModel bay, Docket docket, DocketChange change) {
        work.start(
                "Docket " + docket.label(),
                () -> custodex.dockets().change(docket.number(), change::apply),
                changed -> showDocket(bay, changed));
    }

    private void showDocket(BayModel bay, Docket docket) {
        bay.docket().set(Optional.of(docket));
        changed();
    }

    /** Looks into the strongroom anew. */
    public void refreshHoldings() {
        work.start("Strongroom", () -> custodex.strongroom().holdings(), found -> {
            holdings.set(found);
            found.problems().forEach(work::tell);
            bays.forEach(this::refreshLayers);
        });
    }

    private void refreshLayers(BayModel bay) {
        var stored = bay.phone().flatMap(phone -> holdings.get().phone(phone.identifier()));
        if (stored.isEmpty()) {
            bay.layers().set(List.of());
            return;
        }
        work.start(
                "Layers of " + stored.get().identity().name(),
                () -> sealed(stored.get().identity()),
                layers -> {
                    bay.layers().set(layers);
                    changed();
                });
    }

    /** The layers of a phone with their last checks; reads the disk. */
    public List<SealedLayer> sealed(PhoneIdentity phone) throws IOException {
        var layers = new ArrayList<SealedLayer>();
        var stored = custodex.strongroom().holdings().phone(phone.identifier());
        if (stored.isPresent()) {
            for (var record : stored.get().layers()) {
                layers.add(new SealedLayer(
                        record, custodex.strongroom().checks().last(phone.identifier(), record.number())));
            }
        }
        return layers;
    }

    /** Brings a bay's docket onto the bench. */
    public void show(BayModel bay) {
        present.set(Optional.of(bay));
        place.set(Place.BENCH);
    }

    /** Opens a docket for the phone in a bay, or writes anew what is on it. */
    public void writeDocket(BayModel bay, Docket.Form form) {
        var docket = bay.docket().get();
        work.start(
                "Docket",
                () -> docket.isPresent()
                        ? custodex.dockets().change(docket.get().number(), d -> checkedIn(d.withForm(form)))
                        : custodex.dockets()
                                .change(
                                        custodex.dockets()
                                                .open(form, bay.bay().link().address())
                                                .number(),
                                        this::checkedIn),
                written -> {
                    showDocket(bay, written);
                    bay.phone().ifPresent(phone -> rememberPhone(bay, phone));
                });
    }

    private Docket checkedIn(Docket docket) {
        return docket.consent().isPresent() ? docket.withDone(RouteStep.CHECK_IN, now()) : docket;
    }

    /** Puts the docket away; the next one for this bay is a new job. */
    public void newDocket(BayModel bay) {
        bay.docket().set(Optional.empty());
        bay.outcome().set(Optional.empty());
        bay.step().set(RouteStep.CHECK_IN);
        changed();
    }

    public boolean canBackUp(BayModel bay) {
        return bay.ready()
                && bay.progress().get().isEmpty()
                && bay.docket().get().flatMap(Docket::consent).isPresent();
    }

    /** Starts a backup of the phone in a bay. */
    public void backUp(BayModel bay) {
        if (!canBackUp(bay)) {
            return;
        }
        var job = custodex.backUp(bay.bay().link(), bay.docket().get(), PATIENCE, true);
        bay.job(Optional.of(job));
        bay.outcome().set(Optional.empty());
        bay.progress().set(Optional.of(job.progress()));
        bay.step().set(RouteStep.BACK_UP);
        changed();
        ticker.play();
        job.outcome().thenAccept(outcome -> Platform.runLater(() -> ended(bay, outcome)));
    }

    public void stopBackup(BayModel bay) {
        bay.job().ifPresent(BackupJob::stop);
    }

    private void tick() {
        bays.forEach(bay -> bay.job().ifPresent(job -> bay.progress().set(Optional.of(job.progress()))));
        changed();
    }

    private void ended(BayModel bay, Outcome outcome) {
        bay.job(Optional.empty());
        bay.progress().set(Optional.empty());
        bay.outcome().set(Optional.of(outcome));
        bay.docket().get().flatMap(d -> custodex.dockets().find(d.number())).ifPresent(d -> showDocket(bay, d));
        if (bays.stream().allMatch(b -> b.job().isEmpty())) {
            ticker.stop();
        }
        refreshHoldings();
        result(bay)
                .ifPresent(result -> work.start(
                        "Reading layer " + result.layer().number(),
                        () -> {
                            custodex.catalogue(result.layer(), words.locale());
                            return result;
                        },
                        read -> {}));
        changed();
    }

    /** The result of the last backup, if it came to one. */
    public static Optional<BackupResult> result(BayModel bay) {
        return bay.outcome().get().orElse(null) instanceof Outcome.Done done
                ? Optional.of(done.result())
                : Optional.empty();
    }

    /** Opens a layer in the reading room. */
    public void read(PhoneIdentity phone, int layer, boolean extracting) {
        reading.set(Optional.of(new Reading(phone, layer, extracting)));
        place.set(Place.READING_ROOM);
        stepDone(phone, RouteStep.READ);
    }

    /** Notes on the phone's docket that a step was done. */
    public void stepDone(PhoneIdentity phone, RouteStep step) {
        for (var bay : bays) {
            bay.docket()
                    .get()
                    .filter(d -> d.phone()
                            .filter(p -> p.identifier().equals(phone.identifier()))
                            .isPresent())
                    .ifPresent(docket -> changeDocket(bay, docket, d -> d.withDone(step, now())));
        }
    }

    @Override
    public void close() {
        ticker.stop();
        bays.forEach(this::stopBackup);
        custodex.close();
    }
}
