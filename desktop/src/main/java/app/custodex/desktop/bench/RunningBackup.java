package app.custodex.desktop.bench;

import app.custodex.backup.BackupProgress;
import app.custodex.backup.BackupProgress.Phase;
import app.custodex.base.Sizes;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** A copy while it runs: how far it is, by kind, and what it waits for. */
final class RunningBackup extends VBox {
    private final Desk desk;
    private final BayModel bay;

    RunningBackup(Desk desk, BayModel bay) {
        super(12);
        this.desk = desk;
        this.bay = bay;
    }

    /** What is going on, as a sentence. */
    String title(BackupProgress p) {
        var layers = bay.layers().get();
        return switch (p.phase()) {
            case LISTING -> "Listing what is on the phone";
            case COPYING ->
                layers.isEmpty()
                        ? "Copying what was chosen"
                        : "Copying what is new since "
                                + desk.words().moment(layers.getLast().record().begun(), desk.now());
            case PUBLISHING -> "Finishing the layer";
            case CHECKING -> "Reading every stored byte back";
            case ENDED -> "Done";
        };
    }

    void show(BackupProgress p) {
        var words = desk.words();
        boolean checking = p.phase() == Phase.CHECKING;
        var figures = new HBox(
                28,
                figure(
                        checking ? "Read back" : "Copied",
                        words.bytes(p.doneBytes()) + " of " + words.bytes(p.allBytes())),
                figure(
                        "Items",
                        p.phase() == Phase.LISTING || checking
                                ? words.count(p.allItems())
                                : words.count(p.doneItems()) + " of " + words.count(p.allItems())),
                figure("Rate", words.bytes(p.bytesPerSecond()) + "/s"),
                figure("Left", p.left().map(Sizes::about).orElse("…")),
                figure("Unchanged, not copied again", words.bytes(p.unchangedBytes())));
        getChildren().setAll(figures, track(p.share()));
        p.waiting().ifPresent(problem -> {
            var box = new VBox(
                    3,
                    Parts.state(Mark.HAND, problem.what()),
                    Parts.sentence(problem.advice() + ". The copy goes on by itself.", "lesser"));
            box.setId("backup-waiting");
            box.getStyleClass().add("needs-hand-card");
            getChildren().add(box);
        });
        var table = new KindTable("Kind", "Files", "New files", "Size new").withState("State");
        for (var kind : p.kinds()) {
            table.row(
                    kind.kind().label(),
                    state(kind, p.phase()),
                    words.count(kind.items()),
                    words.count(kind.fresh()),
                    kind.fresh() == 0 ? "–" : words.bytes(kind.freshBytes()));
        }
        getChildren().add(table);
        getChildren()
                .add(Parts.sentence(
                        (p.failed() > 0
                                        ? words.count(p.failed(), "file", "files")
                                                + " could not be read and will be tried again at the end. "
                                        : "")
                                + (checking
                                        ? "The layer is in place. The phone may be unplugged."
                                        : "You can leave this screen; the copy goes on. Leave it connected."),
                        "lesser"));
    }

    private Node state(BackupProgress.KindProgress kind, Phase phase) {
        if (kind.fresh() == 0) {
            return Parts.text("nothing new", "lesser");
        }
        if (kind.done() == kind.fresh()) {
            return Parts.state(phase == Phase.COPYING ? Mark.PARTLY : Mark.DONE, "in");
        }
        return kind.done() == 0
                ? Parts.text("next", "lesser")
                : Parts.text("copying · " + desk.words().count(kind.done()) + " of "
                        + desk.words().count(kind.fresh()));
    }

    private static VBox figure(String name, String value) {
        return new VBox(1, Parts.text(name, "lesser"), Parts.text(value, "figure"));
    }

    private static Node track(double share) {
        var fill = new Region();
        fill.getStyleClass().add("track-fill");
        var track = new StackPane(fill);
        track.getStyleClass().add("track");
        track.setAlignment(Pos.CENTER_LEFT);
        fill.maxWidthProperty().bind(track.widthProperty().subtract(2).multiply(share));
        return track;
    }
}
