package app.custodex.desktop.desk;

import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import app.custodex.base.ProblemException;
import app.custodex.desktop.ui.Veil;
import app.custodex.desktop.ui.Words;
import app.custodex.desktop.ui.Work;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import app.custodex.model.ThingId;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.StoredPhone;
import app.custodex.strongroom.StoredPhone.Seal;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** What the whole window shows and can do. Touched on the interface thread only. */
public final class Desk implements AutoCloseable {
    /** Where in the window one is. */
    public enum Place {
        BENCH,
        SOURCES,
        FIND,
        READING_ROOM,
        GONE_SINCE,
        STRONGROOM
    }

    /**
     * Two states of a phone that are compared.
     *
     * @param older a layer
     * @param newer a layer; 0 for the phone as it is now
     */
    public record Compared(PhoneIdentity phone, int older, int newer) {}

    /**
     * What is to be read.
     *
     * @param layer of the phone; 0 for the phone itself as it is now
     * @param straight where the phone is, when it is read itself and nothing of it is kept
     * @param at a thing at which it is to be opened
     * @param request counts up, so that the same can be asked for once more
     */
    public record Reading(
            PhoneIdentity phone,
            int layer,
            boolean extracting,
            Optional<Bay> straight,
            Optional<ThingId> at,
            int request) {
        /** Whether it is the same layer of the same phone; a phone that is read itself is another one each time. */
        public boolean sameLayer(Reading other) {
            return layer > 0 && layer == other.layer && phone.identifier().equals(other.phone.identifier());
        }
    }

    private final Custodex custodex;
    private final Words words;
    private final Work work;
    private final BackupDesk backups;
    private final CheckDesk checks;
    private final CurtainDesk curtain;
    private final ObservableList<BayModel> bays = FXCollections.observableArrayList();
    private final ObjectProperty<Place> place = new SimpleObjectProperty<>(Place.BENCH);
    private final ObjectProperty<Optional<BayModel>> present = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<Reading>> reading = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<PhoneIdentity>> chosenInStrongroom =
            new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<Compared>> compared = new SimpleObjectProperty<>(Optional.empty());
    private final ObservableList<Reading> openLayers = FXCollections.observableArrayList();
    private final ObjectProperty<Optional<PhoneIdentity>> foundIn = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Strongroom.Holdings> holdings =
            new SimpleObjectProperty<>(new Strongroom.Holdings(List.of(), List.of()));
    private final IntegerProperty changes = new SimpleIntegerProperty();
    private final IntegerProperty trayChanges = new SimpleIntegerProperty();
    /** Looks into the strongroom may end in another order than they began. */
    private int looks;

    private int shownLook;
    private int readingRequests;
    /** Those that were picked, in this run of the program. */
    private final Set<Path> loose = new LinkedHashSet<>();

    public Desk(Custodex custodex, Words words, Work work, Veil veil) {
        this.custodex = custodex;
        this.words = words;
        this.work = work;
        this.backups = new BackupDesk(this);
        this.checks = new CheckDesk(this);
        this.curtain = new CurtainDesk(this, veil);
        followBays();
        work.start("Custodex", custodex::problems, problems -> problems.forEach(work::tell));
    }

    /** Begins to follow the phones and the strongroom. */
    public void start() {
        custodex.bays().watch(() -> Platform.runLater(this::refreshBays));
        refreshHoldings();
        backups.start();
        checks.start();
        curtain.start();
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

    public BackupDesk backups() {
        return backups;
    }

    public CheckDesk checks() {
        return checks;
    }

    public CurtainDesk curtain() {
        return curtain;
    }

    /** What private words and pictures are made with. */
    public Veil veil() {
        return curtain.veil();
    }

    public ObservableList<BayModel> bays() {
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

    /** Whose thing is looked at in the find results. */
    public ObjectProperty<Optional<PhoneIdentity>> foundIn() {
        return foundIn;
    }

    /** Whose layers are looked at in the strongroom. */
    public ObjectProperty<Optional<PhoneIdentity>> chosenInStrongroom() {
        return chosenInStrongroom;
    }

    /** What is compared at the moment. */
    public ObjectProperty<Optional<Compared>> compared() {
        return compared;
    }

    /** Shows what became of what was on a phone. */
    public void compare(Compared states) {
        compared.set(Optional.of(states));
        place.set(Place.GONE_SINCE);
    }

    /** The layers that are open, in the order in which they were opened. */
    public ObservableList<Reading> openLayers() {
        return openLayers;
    }

    public ObjectProperty<Strongroom.Holdings> holdings() {
        return holdings;
    }

    /** Counts up whenever a bay's state may read differently. */
    public ReadOnlyIntegerProperty changes() {
        return changes;
    }

    /** Counts up whenever something was put into a tray that may be open elsewhere in the window. */
    public ReadOnlyIntegerProperty trayChanges() {
        return trayChanges;
    }

    public void trayChanged() {
        trayChanges.set(trayChanges.get() + 1);
    }

    public Instant now() {
        return custodex.clock().instant();
    }

    public BayState state(BayModel bay) {
        return BayState.of(bay, words, now());
    }

    void changed() {
        changes.set(changes.get() + 1);
    }

    /** A model for each bay that is there, the same one as long as it is there. */
    private void followBays() {
        var there = custodex.bays().all();
        bays.removeIf(model -> !there.contains(model.bay()));
        for (var bay : there) {
            if (bays.stream().noneMatch(model -> model.bay() == bay)) {
                bays.add(model(bay));
            }
        }
        if (present.get().filter(bays::contains).isEmpty()) {
            present.set(bays.stream().findFirst());
        }
    }

    private BayModel model(Bay bay) {
        var model = new BayModel(bay);
        work.start("Dockets", () -> custodex.dockets().at(bay.address()), docket -> {
            if (model.docket().get().isEmpty() && docket.isPresent()) {
                model.docket().set(docket);
                boolean saved = docket.filter(d -> !d.layers().isEmpty()).isPresent();
                model.step().set(saved ? RouteStep.BACK_UP : RouteStep.CHECK_IN);
                changed();
            }
        });
        return model;
    }

    /** Looks at every bay anew. */
    public void refreshBays() {
        followBays();
        for (var bay : bays) {
            boolean wasReady = bay.ready();
            var phone = bay.phone();
            bay.status().set(bay.bay().status());
            if (wasReady != bay.ready() || !phone.equals(bay.phone())) {
                backups.forgetSurvey(bay);
            }
            bay.status().get().flatMap(s -> s.identity()).ifPresent(known -> rememberPhone(bay, known));
            refreshLayers(bay);
        }
        backups.startWhatIsDue();
        changed();
    }

    /** Writes into the docket who the phone is, as soon as it says so. */
    private void rememberPhone(BayModel bay, PhoneIdentity phone) {
        bay.docket()
                .get()
                .filter(docket -> docket.phone().isEmpty())
                .ifPresent(docket -> changeDocket(bay, docket, d -> d.withPhone(phone)));
    }

    private void changeDocket(BayModel bay, Docket docket, UnaryOperator<Docket> change) {
        work.start(
                "Docket " + docket.label(),
                () -> custodex.dockets().change(docket.number(), change),
                changed -> showDocket(bay, changed));
    }

    void showDocket(BayModel bay, Docket docket) {
        bay.docket().set(Optional.of(docket));
        changed();
    }

    /** Looks into the strongroom anew. */
    public void refreshHoldings() {
        int look = ++looks;
        work.start("Strongroom", () -> custodex.strongroom().holdings(), found -> {
            if (look > shownLook) {
                shownLook = look;
                holdings.set(found);
                bays.forEach(this::refreshLayers);
            }
        });
    }

    /** What is known of a bay's phone in the strongroom. */
    private record Kept(List<KeptLayer> layers, Seal seal) {}

    private void refreshLayers(BayModel bay) {
        var phone = bay.phone();
        if (phone.isEmpty()) {
            show(bay, new Kept(List.of(), Seal.NONE));
            return;
        }
        var held = holdings.get();
        var stored = held.phone(phone.get().identifier());
        work.start("Layers of " + phone.get().name(), () -> kept(phone.get(), stored), kept -> {
            if (bay.phone().equals(phone) && holdings.get() == held) {
                show(bay, kept);
            }
        });
    }

    private void show(BayModel bay, Kept kept) {
        if (!kept.layers().equals(bay.layers().get())
                || kept.seal() != bay.seal().get()) {
            bay.layers().set(kept.layers());
            bay.seal().set(kept.seal());
            changed();
        }
    }

    private Kept kept(PhoneIdentity phone, Optional<StoredPhone> stored) throws IOException {
        var strongroom = custodex.strongroom();
        var seal = !strongroom.sealed(phone.identifier())
                ? Seal.NONE
                : strongroom.readable(phone.identifier()) ? Seal.OPENED : Seal.CLOSED;
        return new Kept(stored.isPresent() ? layersOf(stored.get()) : List.of(), seal);
    }

    /** The layers of a phone with their last checks; reads the disk. */
    public List<KeptLayer> layersOf(StoredPhone phone) throws IOException {
        var lasts = custodex.strongroom().checks().lasts(phone.identity().identifier());
        var layers = new ArrayList<KeptLayer>();
        for (var record : phone.layers()) {
            layers.add(new KeptLayer(record, Optional.ofNullable(lasts.get(record.number()))));
        }
        return layers;
    }

    /** Opens a sealed stack until the program ends. Closes the passphrase. */
    public void openSeal(PhoneIdentity phone, Passphrase passphrase, Runnable opened, Runnable ended) {
        work.start(
                phone.name(),
                () -> {
                    try (passphrase) {
                        custodex.strongroom().open(phone, passphrase);
                    }
                    return phone;
                },
                done -> {
                    refreshHoldings();
                    bays.forEach(bay -> bay.survey().set(Optional.empty()));
                    opened.run();
                },
                ended);
    }

    /** Closes a layer; the one before it in the row is shown then, if it was the one that is read. */
    public void closeLayer(Reading layer) {
        int at = openLayers.indexOf(layer);
        openLayers.remove(layer);
        if (reading.get().filter(layer::sameLayer).isPresent()) {
            openLayers.stream()
                    .skip(Math.max(0, at - 1))
                    .findFirst()
                    .ifPresentOrElse(
                            next -> read(next.phone(), next.layer(), false), () -> reading.set(Optional.empty()));
        }
    }

    /** Forgets the key of a sealed stack. */
    public void closeSeal(PhoneIdentity phone) {
        openLayers.removeIf(open -> open.phone().identifier().equals(phone.identifier()));
        compared.set(compared.get().filter(of -> !of.phone().identifier().equals(phone.identifier())));
        reading.set(reading.get().filter(open -> !open.phone().identifier().equals(phone.identifier())));
        work.start(
                phone.name(),
                () -> {
                    custodex.strongroom().close(phone);
                    return phone;
                },
                closed -> refreshHoldings());
    }

    /** Brings a bay's docket onto the bench. */
    public void show(BayModel bay) {
        present.set(Optional.of(bay));
        place.set(Place.BENCH);
    }

    /**
     * Puts a source on the bench and shows it.
     *
     * @param added is called when it is there; not when it was refused
     */
    public void addSource(String written, String name, Runnable added) {
        work.start(written, () -> custodex.bays().add(written, name), bay -> {
            followBays();
            bays.stream().filter(model -> model.bay() == bay).findFirst().ifPresent(this::show);
            added.run();
        });
    }

    /** Takes a source off the bench; its layers stay. */
    public void removeSource(BayModel bay) {
        work.start(
                bay.bay().source().name(),
                () -> {
                    custodex.bays().remove(bay.bay());
                    return bay;
                },
                removed -> followBays());
    }

    /** Opens a docket for the phone in a bay, or writes anew what is on it. */
    public void writeDocket(BayModel bay, Docket.Form form, Optional<Docket.Automatic> automatic) {
        var docket = bay.docket().get();
        work.start(
                "Docket",
                () -> {
                    int number = docket.isPresent()
                            ? docket.get().number()
                            : custodex.dockets().open(form, bay.bay().address()).number();
                    return custodex.dockets()
                            .change(number, d -> checkedIn(d.withForm(form).withAutomatic(automatic)));
                },
                written -> {
                    showDocket(bay, written);
                    bay.phone().ifPresent(phone -> rememberPhone(bay, phone));
                });
    }

    private Docket checkedIn(Docket docket) {
        return docket.mayBeWorkedOn() ? docket.withDone(RouteStep.CHECK_IN, now()) : docket;
    }

    /** Puts the docket away; the next one for this bay is a new job. */
    public void newDocket(BayModel bay) {
        bay.docket().set(Optional.empty());
        bay.outcome().set(Optional.empty());
        bay.step().set(RouteStep.CHECK_IN);
        changed();
    }

    /** Whether it is known on whose behalf a phone's layers may be read; asks the disk. */
    public boolean hasMandate(PhoneIdentity phone) throws IOException {
        try {
            custodex.gate().mandateFor(phone);
            return true;
        } catch (ProblemException none) {
            return false;
        }
    }

    /** Writes down that a phone is the shop's own. */
    public void declareOwn(PhoneIdentity phone, Runnable then) {
        work.start(
                phone.name(),
                () -> {
                    custodex.declareOwn(phone);
                    return phone;
                },
                declared -> then.run());
    }

    /** Opens a layer in the reading room. */
    public void read(PhoneIdentity phone, int layer, boolean extracting) {
        read(new Reading(phone, layer, extracting, Optional.empty(), Optional.empty(), ++readingRequests));
    }

    /** Opens a layer at one of its things. */
    public void read(PhoneIdentity phone, int layer, ThingId at) {
        read(new Reading(phone, layer, false, Optional.empty(), Optional.of(at), ++readingRequests));
    }

    private void read(Reading target) {
        var phone = target.phone();
        if (target.layer() > 0 && openLayers.stream().noneMatch(target::sameLayer)) {
            openLayers.add(target);
        }
        reading.set(Optional.of(target));
        place.set(Place.READING_ROOM);
        stepDone(phone, RouteStep.READ);
    }

    /** Opens what is in a bay in the reading room, without a copy: nothing of it is kept. */
    public void readStraight(BayModel bay) {
        bay.phone().ifPresent(phone -> {
            reading.set(Optional.empty()); // it is read anew each time: it may have changed
            read(new Reading(phone, 0, false, Optional.of(bay.bay()), Optional.empty(), ++readingRequests));
        });
    }

    /** Opens files and folders of this computer in the reading room, beside those that were opened before; nothing of them is kept. */
    public void readLoose(List<Path> paths) {
        var before = List.copyOf(loose);
        work.start(
                "Files of this computer",
                () -> picked(before, paths),
                picked -> picked.bay().status().flatMap(PhoneStatus::identity).ifPresent(files -> {
                    loose.clear();
                    loose.addAll(picked.paths());
                    reading.set(Optional.empty());
                    read(new Reading(files, 0, false, Optional.of(picked.bay()), Optional.empty(), ++readingRequests));
                }));
    }

    private record Picked(Set<Path> paths, Bay bay) {}

    /** Those that were picked before may be gone by now. */
    private Picked picked(List<Path> before, List<Path> paths) throws IOException {
        var all = new LinkedHashSet<>(before);
        all.removeIf(Files::notExists);
        all.addAll(paths);
        return new Picked(all, custodex.loose(List.copyOf(all)));
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
        curtain.close();
        checks.close();
        backups.close();
        custodex.close();
    }
}
