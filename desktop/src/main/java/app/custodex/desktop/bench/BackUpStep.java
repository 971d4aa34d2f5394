package app.custodex.desktop.bench;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.backup.BackupProgress;
import app.custodex.backup.BackupProgress.Phase;
import app.custodex.backup.BackupResult;
import app.custodex.base.Problem;
import app.custodex.base.Sizes;
import app.custodex.desktop.BayModel;
import app.custodex.desktop.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.UserText;
import app.custodex.docket.Docket;
import app.custodex.link.KindCount;
import java.util.List;
import java.util.Optional;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** The backup: what will be taken and where to, the running copy, and what came of it. */
final class BackUpStep extends VBox {
    private final Desk desk;
    private final BayModel bay;
    private final Label title = Parts.text("", "title");
    private final VBox body = new VBox(12);
    private final Button start;
    private final Button stop;
    private final Button read;
    private Object shown = "";

    BackUpStep(Desk desk, BayModel bay) {
        this.desk = desk;
        this.bay = bay;
        getStyleClass().add("card");
        setSpacing(12);
        title.setId("backup-title");
        start = Parts.button("backup-start", "Back up everything", "Ctrl+B", () -> desk.backUp(bay), "main");
        stop = Parts.button("backup-stop", "Stop, keep what is done", "", () -> desk.stopBackup(bay));
        read = Parts.button("backup-read", "Read this layer", "Ctrl+R", this::read);
        var head = new HBox(10, title, Parts.gap(), read, start, stop);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, body);
        desk.changes().addListener((o, was, is) -> refresh());
        refresh();
    }

    private void read() {
        var newest = bay.layers().get().getLast().record();
        desk.read(newest.phone(), newest.number(), false);
    }

    private void refresh() {
        var progress = bay.progress().get();
        show(stop, progress.filter(p -> p.phase() != Phase.PUBLISHING).isPresent());
        show(start, progress.isEmpty());
        show(read, progress.isEmpty() && !bay.layers().get().isEmpty());
        start.setDisable(!desk.canBackUp(bay));
        start.setText(bay.layers().get().isEmpty() ? "Back up everything" : "Back up what is new");
        if (progress.isPresent()) {
            stop.setText(progress.get().phase() == Phase.CHECKING ? "Stop checking" : "Stop, keep what is done");
            shown = progress.get();
            running(progress.get());
            return;
        }
        // While nothing runs, the content is rebuilt only when what it tells is different.
        var now = List.of(
                bay.outcome().get(),
                bay.layers().get(),
                bay.docket().get(),
                bay.status().get());
        if (!now.equals(shown)) {
            shown = now;
            var result = Desk.result(bay);
            if (result.isPresent()) {
                ended(result.get());
            } else {
                before();
            }
        }
    }

    private static void show(Node node, boolean shown) {
        node.setVisible(shown);
        node.setManaged(shown);
    }

    private void before() {
        title.setText(bay.layers().get().isEmpty() ? "Back up the whole phone" : "Copy what is new");
        body.getChildren().clear();
        switch (bay.outcome().get().orElse(null)) {
            case Outcome.Failed failed -> body.getChildren().add(trouble(failed.problem()));
            case Outcome.Stopped stopped ->
                body.getChildren()
                        .add(Parts.sentence("Stopped. What was copied is kept; starting again goes on behind it."));
            case null, default -> {}
        }
        whatIsMissing().ifPresent(words -> {
            var box = new VBox(Parts.state(Mark.HAND, words));
            box.getStyleClass().add("needs-hand-card");
            body.getChildren().add(box);
        });
        var table = new KindTable("What is taken", "Items", "Files", "Size");
        var contents = bay.status().get().map(s -> s.contents()).orElse(List.of());
        for (var count : contents) {
            if (count.files() > 0) {
                table.row(
                        count.kind().label(),
                        desk.words().count(count.items()),
                        desk.words().count(count.files()),
                        desk.words().bytes(count.bytes()));
            }
        }
        if (!contents.isEmpty()) {
            table.row(
                    "Everything",
                    "",
                    desk.words()
                            .count(contents.stream().mapToLong(KindCount::files).sum()),
                    desk.words()
                            .bytes(contents.stream().mapToLong(KindCount::bytes).sum()));
            body.getChildren().add(table);
        }
        where();
    }

    private Optional<String> whatIsMissing() {
        if (bay.docket().get().isEmpty()) {
            return Optional.of("Open a docket first (Check in)");
        }
        if (bay.docket().get().flatMap(Docket::consent).isEmpty()) {
            return Optional.of("The customer's consent is not on the docket yet (Check in)");
        }
        if (bay.status().get().isEmpty()) {
            return Optional.of("Plug the phone in");
        }
        return bay.status().get().get().readiness().next().map(step -> step.instruction());
    }

    private void where() {
        var room = Parts.text("…");
        var facts = Parts.facts(110);
        Parts.fact(facts, "Goes to", desk.custodex().strongroom().root().toString(), "mono");
        Parts.fact(facts, "Room for", room);
        Parts.fact(facts, "After copying", "every stored byte is read back from the disk and compared");
        body.getChildren().add(facts);
        desk.work()
                .start(
                        "Strongroom",
                        () -> desk.custodex().strongroom().room(),
                        bytes -> room.setText(desk.words().bytes(bytes)));
    }

    private void running(BackupProgress p) {
        var words = desk.words();
        title.setText(
                switch (p.phase()) {
                    case LISTING -> "Listing what is on the phone";
                    case COPYING ->
                        bay.layers().get().isEmpty()
                                ? "Copying the whole phone"
                                : "Copying what is new since "
                                        + words.moment(
                                                bay.layers()
                                                        .get()
                                                        .getLast()
                                                        .record()
                                                        .begun(),
                                                desk.now());
                    case PUBLISHING -> "Putting the layer in place";
                    case CHECKING -> "Reading every stored byte back";
                    case ENDED -> "Done";
                });
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
        body.getChildren().setAll(figures, track(p.share()));
        p.waiting().ifPresent(problem -> {
            var box = new VBox(
                    3,
                    Parts.state(Mark.HAND, problem.what()),
                    Parts.sentence(problem.advice() + ". The copy goes on by itself.", "lesser"));
            box.setId("backup-waiting");
            box.getStyleClass().add("needs-hand-card");
            body.getChildren().add(box);
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
        body.getChildren().add(table);
        body.getChildren()
                .add(Parts.sentence(
                        (p.failed() > 0
                                        ? words.count(p.failed(), "file", "files")
                                                + " could not be read and will be tried again at the end. "
                                        : "")
                                + (checking
                                        ? "The layer is in place. The phone may be unplugged."
                                        : "You can leave this screen; the copy goes on. Keep the cable in."),
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

    private static Node trouble(Problem problem) {
        var box = new VBox(3, Parts.state(Mark.TROUBLE, problem.what()), Parts.sentence(problem.advice() + "."));
        box.setId("backup-trouble");
        return box;
    }

    private void ended(BackupResult result) {
        var words = desk.words();
        var layer = result.layer();
        boolean sound = result.check().filter(report -> report.sound()).isPresent();
        boolean whole = layer.missed() == 0;
        title.setText("Layer " + layer.number() + (sound ? " is saved and checked" : " is saved"));
        body.getChildren().clear();
        var verdict = new VBox(3);
        if (result.check().isEmpty()) {
            verdict.getChildren().add(Parts.state(Mark.NEVER, "Not read back yet; check it in the strongroom"));
        } else if (sound) {
            verdict.getChildren()
                    .add(Parts.state(Mark.DONE, "Every stored byte was read back and is as it was written"));
        } else {
            verdict.getChildren().add(Parts.state(Mark.TROUBLE, "Reading back found damage"));
            result.check().get().damage().forEach(d -> verdict.getChildren().add(Parts.sentence(d.sentence())));
        }
        verdict.getChildren()
                .add(Parts.sentence(
                        words.count(layer.items(), "item", "items") + ", " + words.bytes(layer.bytes()) + ", of which "
                                + words.bytes(layer.freshBytes()) + " are new in this layer. "
                                + (whole
                                        ? "Everything that the phone listed was saved."
                                        : words.count(layer.missed(), "item was", "items were")
                                                + " not saved in full."),
                        "lesser"));
        verdict.getStyleClass().add(sound ? "sealed-card" : "needs-hand-card");
        body.getChildren().add(verdict);
        var table = new KindTable("Kind", "Files", "New files", "Size").withState("Saved");
        for (var kind : layer.kinds()) {
            table.row(
                    kind.kind().label(),
                    kind.missed() == 0
                            ? Parts.state(Mark.DONE, "all")
                            : Parts.state(Mark.TROUBLE, words.count(kind.missed()) + " missing"),
                    words.count(kind.items()),
                    words.count(kind.freshItems()),
                    words.bytes(kind.bytes()));
        }
        body.getChildren().add(table);
        if (!result.problems().isEmpty()) {
            body.getChildren()
                    .addAll(
                            Parts.text("What was not saved, or in another form", "heading"),
                            problems(result.problems()));
        }
    }

    private static Node problems(List<Problem> problems) {
        var list = new ListView<>(FXCollections.observableList(problems));
        list.setId("backup-problems");
        list.setFixedCellSize(30);
        list.setPrefHeight(Math.min(8, problems.size()) * 30 + 2);
        list.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(Problem problem, boolean empty) {
                super.updateItem(problem, empty);
                setGraphic(empty || problem == null ? null : UserText.line(problem.sentence()));
            }
        });
        return list;
    }
}
