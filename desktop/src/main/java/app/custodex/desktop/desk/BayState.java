package app.custodex.desktop.desk;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.backup.BackupProgress;
import app.custodex.base.Sizes;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.Words;
import app.custodex.strongroom.StoredPhone.Seal;
import java.time.Instant;
import java.util.Optional;

/**
 * A bay in words: what is going on, and what it means for the hands.
 *
 * @param mark absent when nothing calls for attention
 */
public record BayState(Look look, Optional<Mark> mark, String headline, String detail) {
    /** How the phone's outline is drawn. */
    public enum Look {
        AWAY,
        CALM,
        HAND,
        TROUBLE
    }

    private static BayState calm(String headline, String detail) {
        return new BayState(Look.CALM, Optional.empty(), headline, detail);
    }

    private static BayState hand(String headline, String detail) {
        return new BayState(Look.HAND, Optional.of(Mark.HAND), headline, detail);
    }

    private static BayState trouble(String headline, String detail) {
        return new BayState(Look.TROUBLE, Optional.of(Mark.TROUBLE), headline, detail);
    }

    static BayState of(BayModel bay, Words words, Instant now) {
        var progress = bay.progress().get();
        if (progress.isPresent()) {
            return running(progress.get(), words);
        }
        var status = bay.status().get();
        if (status.isEmpty()) {
            return new BayState(
                    Look.AWAY,
                    Optional.empty(),
                    "Not plugged in",
                    bay.docket().get().isPresent() ? "Its copies can be read all the same" : "Plug in a phone");
        }
        var needs = status.get().readiness().next();
        if (needs.isPresent()) {
            return hand("Needs your hand", needs.get().brief());
        }
        if (bay.outcome().get().orElse(null) instanceof Outcome.Failed failed) {
            return trouble("The backup ended early", failed.problem().what());
        }
        if (bay.seal().get() == Seal.CLOSED) {
            return hand("Sealed", "Enter its passphrase to copy what is new");
        }
        if (bay.docket().get().isEmpty()) {
            return calm("Ready", "Open a docket for it");
        }
        if (bay.layers().get().isEmpty()) {
            return calm("Ready to be backed up", "Nothing of it is kept yet");
        }
        var newest = bay.layers().get().getLast();
        var when = "Layer " + newest.record().number() + ", "
                + words.moment(newest.record().begun(), now);
        if (newest.damaged()) {
            return trouble("The newest layer is damaged", when);
        }
        return newest.sound()
                ? new BayState(Look.CALM, Optional.of(Mark.DONE), "Saved and checked", when)
                : new BayState(Look.CALM, Optional.of(Mark.NEVER), "Saved, not checked", when);
    }

    private static BayState running(BackupProgress progress, Words words) {
        if (progress.waiting().isPresent()) {
            return hand("Waits for the phone", progress.waiting().get().advice());
        }
        return switch (progress.phase()) {
            case LISTING -> calm("Listing the phone", words.count(progress.allItems(), "item", "items") + " so far");
            case COPYING ->
                calm(
                        "Copying, " + percent(progress),
                        words.bytes(progress.allBytes() - progress.doneBytes()) + " left"
                                + progress.left()
                                        .map(left -> ", " + Sizes.about(left))
                                        .orElse(""));
            case PUBLISHING -> calm("Finishing the layer", "Leave it connected");
            case CHECKING, ENDED -> calm("Reading back, " + percent(progress), "The phone may be unplugged");
        };
    }

    private static String percent(BackupProgress progress) {
        return Math.round(progress.share() * 100) + " %";
    }
}
