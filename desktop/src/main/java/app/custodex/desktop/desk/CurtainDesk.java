package app.custodex.desktop.desk;

import app.custodex.app.Curtain;
import app.custodex.app.Curtain.Lifting;
import app.custodex.base.Problem;
import app.custodex.desktop.ui.Veil;
import app.custodex.docket.Docket;
import app.custodex.link.PhoneIdentity;
import java.util.Optional;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/** Lifts the curtain for the phone that is looked at, and sees it fall. On the interface thread only. */
public final class CurtainDesk {
    private static final javafx.util.Duration LOOK = javafx.util.Duration.seconds(1);

    private final Desk desk;
    private final Curtain curtain;
    private final Veil veil;
    private final ReadOnlyStringWrapper state = new ReadOnlyStringWrapper("Curtain down");
    private final Timeline watch = new Timeline(new KeyFrame(LOOK, event -> look()));
    private Optional<Lifting> last = Optional.empty();

    CurtainDesk(Desk desk, Veil veil) {
        this.desk = desk;
        this.veil = veil;
        this.curtain = desk.custodex().curtain();
        watch.setCycleCount(Animation.INDEFINITE);
    }

    void start() {
        desk.present().addListener((o, was, is) -> fall());
        desk.reading().addListener((o, was, is) -> look());
        desk.place().addListener((o, was, is) -> look());
        desk.foundIn().addListener((o, was, is) -> look());
        desk.compared().addListener((o, was, is) -> look());
        desk.chosenInStrongroom().addListener((o, was, is) -> look());
        desk.changes().addListener((o, was, is) -> look());
        watch.play();
    }

    /** What private words and pictures on the screen are made with. */
    public Veil veil() {
        return veil;
    }

    /** Whether it is lifted, and for which docket, in words. */
    public ReadOnlyStringProperty state() {
        return state.getReadOnlyProperty();
    }

    /** Whose data are on the screen. */
    private Optional<PhoneIdentity> subject() {
        return switch (desk.place().get()) {
            case READING_ROOM -> desk.reading().get().map(Desk.Reading::phone);
            case FIND -> desk.foundIn().get();
            case GONE_SINCE -> desk.compared().get().map(Desk.Compared::phone);
            case STRONGROOM -> desk.chosenInStrongroom().get();
            case BENCH, SOURCES -> desk.present().get().flatMap(BayModel::phone);
        };
    }

    /** Whether what is of this phone can be seen, among what is of others. */
    public boolean isLiftedFor(PhoneIdentity phone) {
        return curtain.isLiftedFor(phone);
    }

    /** Lifts it, or lets it fall. */
    public void toggle() {
        var phone = subject();
        if (!veil.isDown()) {
            fall();
        } else if (phone.isEmpty()) {
            desk.work()
                    .tell(Problem.note(
                            "Curtain",
                            "There is no phone to lift it for",
                            "Choose a bay with a phone, or open a layer"));
        } else {
            desk.work().start("Curtain", () -> curtain.lift(phone.get()), lifting -> {
                last = Optional.of(lifting);
                look();
            });
        }
    }

    private void fall() {
        curtain.fall();
        look();
    }

    /** Shows what holds now: it may have fallen by itself, or something of another phone is on the screen. */
    private void look() {
        boolean up = subject().filter(curtain::isLiftedFor).isPresent();
        veil.set(!up);
        state.set(
                !up
                        ? "Curtain down"
                        : "Curtain lifted"
                                + last.flatMap(Lifting::docket)
                                        .map(number -> " for " + Docket.label(number))
                                        .orElse(""));
    }

    /** Somebody is at work. */
    public void touched() {
        curtain.touched();
    }

    void close() {
        watch.stop();
        fall();
    }
}
