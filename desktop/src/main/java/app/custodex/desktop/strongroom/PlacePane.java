package app.custodex.desktop.strongroom;

import app.custodex.app.Settings.CheckSchedule;
import app.custodex.base.CancelToken;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.strongroom.StrongroomFinder;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.RadioButton;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import org.jspecify.annotations.Nullable;

/** Where the strongroom lies, opening another one, moving it, and when it is read back by itself. */
final class PlacePane extends VBox {
    private final Desk desk;
    private final Label root = Parts.sentence("", "mono");
    private final Label room = Parts.text("…");
    private final TextField folder = new TextField();
    private final Label progress = Parts.text("", "lesser");
    private final VBox found = new VBox(4);
    private final Button stop;
    private final List<Button> actions;
    private Optional<CancelToken> moving = Optional.empty();

    PlacePane(Desk desk) {
        super(14);
        this.desk = desk;
        setId("place-pane");
        var use = Parts.button("strongroom-use", "Use this one", "", () -> use(folder()));
        var move = Parts.button("strongroom-move", "Move the strongroom there", "", this::move);
        var find = Parts.button("strongroom-find", "Find on this computer", "", this::find);
        actions = List.of(use, move, find);
        stop = Parts.button("strongroom-move-stop", "Stop moving", "", () -> moving.ifPresent(CancelToken::cancel));
        getChildren().addAll(now(), other(use, move, find), schedule());
        show();
    }

    private static VBox card(Node... parts) {
        var card = new VBox(10, parts);
        card.getStyleClass().add("card");
        return card;
    }

    private Node now() {
        var facts = Parts.facts(90);
        Parts.fact(facts, "It lies in", root);
        Parts.fact(facts, "Room for", room);
        root.setId("strongroom-root");
        return card(Parts.text("This strongroom", "heading"), facts);
    }

    private Node other(Button use, Button move, Button find) {
        folder.setId("strongroom-folder");
        folder.setPromptText("A folder, on an external drive too");
        HBox.setHgrow(folder, Priority.ALWAYS);
        var choose = Parts.button("strongroom-choose", "Folder…", "", this::choose);
        var row = Parts.row(folder, choose);
        var buttons = Parts.row(use, move, find, stop, progress);
        progress.setId("strongroom-progress");
        stop.setVisible(false);
        stop.setManaged(false);
        return card(
                Parts.text("Another one", "heading"),
                Parts.sentence(
                        "A strongroom that another bench made opens as it is; an empty folder becomes a new one. Moving copies"
                                + " everything, reads it back there, and only then removes it here.",
                        "lesser"),
                row,
                buttons,
                found);
    }

    private Node schedule() {
        var group = new ToggleGroup();
        var box = card(Parts.text("Reading back by itself", "heading"));
        for (var when : CheckSchedule.values()) {
            var choice = new RadioButton(
                    switch (when) {
                        case BY_HAND -> "Only when somebody asks";
                        case WHEN_IDLE -> "While nobody works here and nothing is copied";
                        case AT_NIGHT -> "At night, between one and five";
                    });
            choice.setId(
                    "schedule-" + when.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'));
            choice.setToggleGroup(group);
            choice.setUserData(when);
            choice.setOnAction(event -> desk.work()
                    .start(
                            "Settings",
                            () -> {
                                desk.custodex().checkSchedule(when);
                                return when;
                            },
                            kept -> {}));
            box.getChildren().add(choice);
        }
        desk.work()
                .start(
                        "Settings",
                        () -> desk.custodex().settings().checks(),
                        now -> group.getToggles().stream()
                                .filter(choice -> choice.getUserData() == now)
                                .forEach(choice -> choice.setSelected(true)));
        box.getChildren()
                .add(Parts.sentence(
                        "Each layer that has not been read back for seven days, those that have waited longest first.",
                        "lesser"));
        return box;
    }

    private void show() {
        root.setText(desk.custodex().strongroomPlace().toString());
        desk.work()
                .start(
                        "Strongroom",
                        () -> desk.custodex().strongroom().room(),
                        bytes -> room.setText(desk.words().bytes(bytes)));
    }

    private Path folder() {
        return Path.of(folder.getText().strip());
    }

    private void choose() {
        var chooser = new DirectoryChooser();
        chooser.setTitle("A folder for the strongroom");
        put(chooser.showDialog(getScene().getWindow()));
    }

    private void put(@Nullable File chosen) {
        if (chosen != null) {
            folder.setText(chosen.getPath());
        }
    }

    private void use(Path target) {
        if (target.toString().isEmpty()) {
            folder.requestFocus();
            return;
        }
        desk.work()
                .start(
                        target.toString(),
                        () -> {
                            desk.custodex().useStrongroom(target);
                            return target;
                        },
                        used -> arrived("This one is used from now on."));
    }

    private void arrived(String words) {
        progress.setText(words);
        found.getChildren().clear();
        show();
        desk.refreshHoldings();
        desk.bays().forEach(desk.backups()::forgetSurvey);
    }

    private void move() {
        var target = folder();
        if (target.toString().isEmpty() || moving.isPresent()) {
            folder.requestFocus();
            return;
        }
        var cancel = new CancelToken();
        moving = Optional.of(cancel);
        var bytes = new AtomicLong();
        var ticker = new Timeline(new KeyFrame(
                javafx.util.Duration.millis(250),
                event -> progress.setText("moved " + desk.words().bytes(bytes.get()))));
        ticker.setCycleCount(Animation.INDEFINITE);
        ticker.play();
        busy(true);
        desk.work()
                .start(
                        target.toString(),
                        () -> {
                            desk.custodex().moveStrongroom(target, bytes::addAndGet, cancel);
                            return target;
                        },
                        moved -> arrived("It was moved and is used there."),
                        () -> {
                            ticker.stop();
                            moving = Optional.empty();
                            busy(false);
                            if (cancel.isCancelled()) {
                                progress.setText("Stopped; it is still where it was.");
                            }
                        });
    }

    private void busy(boolean on) {
        stop.setVisible(on);
        stop.setManaged(on);
        actions.forEach(button -> button.setDisable(on));
    }

    private void find() {
        progress.setText("looking…");
        busyFinding(true);
        desk.work()
                .start(
                        "Drives",
                        () -> StrongroomFinder.find(StrongroomFinder.drives()),
                        this::showFound,
                        () -> busyFinding(false));
    }

    private void busyFinding(boolean on) {
        actions.forEach(button -> button.setDisable(on));
    }

    private void showFound(List<Path> places) {
        var others = places.stream()
                .filter(path -> !path.equals(desk.custodex().strongroomPlace()))
                .toList();
        progress.setText(desk.words().count(others.size(), "other strongroom", "other strongrooms") + " found");
        found.getChildren().clear();
        for (var path : others) {
            var name = UserText.line(path.toString(), "mono");
            HBox.setHgrow(name, Priority.ALWAYS);
            var row = Parts.row(name, Parts.button("found-use", "Use this one", "", () -> use(path)));
            row.getStyleClass().add("table-row");
            found.getChildren().add(row);
        }
    }
}
