package app.custodex.desktop.desk;

import app.custodex.app.BackupJob;
import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Bay;
import app.custodex.app.Source;
import app.custodex.backup.BackupProgress;
import app.custodex.backup.Selection;
import app.custodex.backup.Survey;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import app.custodex.strongroom.StoredPhone.Seal;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What is shown of one bay. Touched on the interface thread only. */
public final class BayModel {
    private final Bay bay;
    private final ObjectProperty<Optional<PhoneStatus>> status = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<Docket>> docket = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<BackupProgress>> progress = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<Outcome>> outcome = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<List<KeptLayer>> layers = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<Seal> seal = new SimpleObjectProperty<>(Seal.NONE);
    private final ObjectProperty<RouteStep> step = new SimpleObjectProperty<>(RouteStep.CHECK_IN);
    private final ObjectProperty<Selection> selection = new SimpleObjectProperty<>(Selection.EVERYTHING);
    private final ObjectProperty<Optional<Survey>> survey = new SimpleObjectProperty<>(Optional.empty());
    private final BooleanProperty readEverything = new SimpleBooleanProperty();
    private final BooleanProperty beyondLimits = new SimpleBooleanProperty();
    private Optional<BackupJob> job = Optional.empty();

    BayModel(Bay bay) {
        this.bay = bay;
    }

    public Bay bay() {
        return bay;
    }

    /** Whether it is a phone, rather than a folder, an archive or an account. */
    public boolean isPhone() {
        return bay.source().type() == Source.Type.PHONE;
    }

    public int number() {
        return bay.number();
    }

    /** Empty while no phone is plugged in. */
    public ObjectProperty<Optional<PhoneStatus>> status() {
        return status;
    }

    public ObjectProperty<Optional<Docket>> docket() {
        return docket;
    }

    /** Present while a backup runs. */
    public ObjectProperty<Optional<BackupProgress>> progress() {
        return progress;
    }

    /** How the last backup ended, in this run of the program. */
    public ObjectProperty<Optional<Outcome>> outcome() {
        return outcome;
    }

    /** The phone's layers in the strongroom, from the lowest up. */
    public ObjectProperty<List<KeptLayer>> layers() {
        return layers;
    }

    /** Whether the phone's stack is sealed, or is going to be. */
    public ObjectProperty<Seal> seal() {
        return seal;
    }

    /** The step of the route that is looked at. */
    public ObjectProperty<RouteStep> step() {
        return step;
    }

    /** What the next backup takes. */
    public ObjectProperty<Selection> selection() {
        return selection;
    }

    /** What was found when the phone was looked over; empty while it was not. */
    public ObjectProperty<Optional<Survey>> survey() {
        return survey;
    }

    /** Whether the next backup reads what looks unchanged too. */
    public BooleanProperty readEverything() {
        return readEverything;
    }

    /** Whether the next backup takes what lists more than phones do. */
    public BooleanProperty beyondLimits() {
        return beyondLimits;
    }

    Optional<BackupJob> job() {
        return job;
    }

    void job(Optional<BackupJob> newJob) {
        job = newJob;
    }

    /** The phone in this bay, as far as it is known: from the cable, else from the docket. */
    public Optional<PhoneIdentity> phone() {
        return status.get().flatMap(PhoneStatus::identity).or(() -> docket.get().flatMap(Docket::phone));
    }

    public boolean ready() {
        return status.get().filter(s -> s.readiness().ready()).isPresent();
    }
}
