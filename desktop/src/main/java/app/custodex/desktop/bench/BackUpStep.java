package app.custodex.desktop.bench;

import app.custodex.backup.BackupProgress.Phase;
import app.custodex.desktop.desk.BackupDesk;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** The backup: what will be taken and where to, then the running copy, then what came of it. */
final class BackUpStep extends VBox {
    private final Desk desk;
    private final BayModel bay;
    private final Label title = Parts.text("", "title");
    private final VBox body = new VBox(12);
    private final BeforeBackup before;
    private final RunningBackup running;
    private final Button start;
    private final Button stop;
    private final Button read;
    private final Button again;
    private final Button straight;
    private Object shown = "";

    BackUpStep(Desk desk, BayModel bay) {
        this.desk = desk;
        this.bay = bay;
        getStyleClass().add("card");
        setSpacing(12);
        title.setId("backup-title");
        before = new BeforeBackup(desk, bay);
        running = new RunningBackup(desk, bay);
        var backups = desk.backups();
        start = Parts.button("backup-start", "Back up", "Ctrl+B", () -> backups.start(bay), "main");
        stop = Parts.button("backup-stop", "Stop, keep what is done", "", () -> backups.stop(bay));
        read = Parts.button("backup-read", "Read this layer", "Ctrl+R", this::read);
        again = Parts.button("backup-again", "Next backup…", "", this::putAway);
        straight = Parts.button("read-straight", "Look into it, keep nothing", "", () -> desk.readStraight(bay));
        var head = new HBox(10, title, Parts.gap(), straight, read, again, start, stop);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, body);
        desk.changes().addListener((o, was, is) -> refresh());
        bay.selection().addListener((o, was, is) -> refresh());
        refresh();
    }

    private void read() {
        var newest = bay.layers().get().getLast().record();
        desk.read(newest.phone(), newest.number(), false);
    }

    private void putAway() {
        bay.outcome().set(java.util.Optional.empty());
        refresh();
    }

    private void refresh() {
        var progress = bay.progress().get();
        var result = BackupDesk.result(bay);
        show(stop, progress.filter(p -> p.phase() != Phase.PUBLISHING).isPresent());
        show(start, progress.isEmpty() && result.isEmpty());
        show(again, result.isPresent());
        show(read, progress.isEmpty() && !bay.layers().get().isEmpty());
        show(straight, progress.isEmpty() && result.isEmpty() && bay.ready());
        straight.setDisable(
                bay.docket().get().filter(docket -> docket.mayBeWorkedOn()).isEmpty());
        start.setDisable(!desk.backups().canStart(bay));
        if (progress.isPresent()) {
            var phase = progress.get().phase();
            title.setText(running.title(progress.get()));
            stop.setText(phase == Phase.CHECKING ? "Stop checking" : "Stop, keep what is done");
            running.show(progress.get());
            put(running);
            shown = progress.get();
            return;
        }
        if (result.isEmpty()) {
            title.setText(
                    bay.layers().get().isEmpty()
                            ? bay.isPhone() ? "Back up the phone" : "Back it up"
                            : "Copy what is new");
            start.setText(bay.layers().get().isEmpty() ? "Back up" : "Back up what is new");
            put(before);
            before.refresh();
            shown = "";
            return;
        }
        // The result is built once; it may hold long lists that somebody is scrolling.
        var now = List.of(result.get());
        if (!now.equals(shown)) {
            shown = now;
            var outcome = new BackupOutcome(desk, result.get());
            title.setText(outcome.title());
            put(outcome);
        }
    }

    private void put(Node node) {
        if (!body.getChildren().equals(List.of(node))) {
            body.getChildren().setAll(node);
        }
    }

    private static void show(Node node, boolean shown) {
        node.setVisible(shown);
        node.setManaged(shown);
    }
}
