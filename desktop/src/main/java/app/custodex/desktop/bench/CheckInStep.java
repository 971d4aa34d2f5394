package app.custodex.desktop.bench;

import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.docket.RouteStep;
import app.custodex.link.PhoneStatus;
import app.custodex.link.Readiness;
import app.custodex.link.ReadinessStep;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Taking a phone in: whose it is and why, what it still needs, and what is on it. */
final class CheckInStep extends VBox {
    private static final double NARROW = 780;

    private final VBox form;
    private final VBox needs;
    /** In which order they stand one above the other; empty while they stand beside each other. */
    private List<Node> stacked = List.of();

    private final Desk desk;
    private final BayModel bay;
    private final VBox readiness = new VBox(8);
    private final VBox contents = new VBox(8);
    private Object shown = "";

    CheckInStep(Desk desk, BayModel bay) {
        this.desk = desk;
        this.bay = bay;
        setSpacing(14);
        readiness.getStyleClass().add("card");
        readiness.setId("readiness");
        contents.getStyleClass().add("card");
        contents.setId("contents");
        form = new VBox(14, new DocketForm(desk, bay));
        form.setMinWidth(0);
        needs = new VBox(14, readiness, contents);
        needs.setMinWidth(0);
        HBox.setHgrow(form, Priority.ALWAYS);
        HBox.setHgrow(needs, Priority.ALWAYS);
        form.setPrefWidth(420);
        needs.setPrefWidth(500);
        widthProperty().addListener((o, was, is) -> arrange());
        desk.changes().addListener((o, was, is) -> refresh());
        refresh();
    }

    /** Beside each other; where there is no room for that, what is to be done next comes first. */
    private void arrange() {
        boolean narrow = getWidth() > 0 && getWidth() < NARROW;
        var now = !narrow ? List.<Node>of() : bay.ready() ? List.<Node>of(form, needs) : List.<Node>of(needs, form);
        if (!now.equals(stacked) || getChildren().isEmpty()) {
            stacked = now;
            getChildren().clear();
            getChildren().addAll(narrow ? now : List.<Node>of(new HBox(14, form, needs)));
        }
    }

    private void refresh() {
        arrange();
        var status = bay.status().get();
        if (status.equals(shown)) {
            return;
        }
        shown = status;
        readiness.getChildren().setAll(Parts.text(bay.isPhone() ? "What the phone needs" : "What it needs", "heading"));
        contents.setVisible(status.filter(s -> !s.contents().isEmpty()).isPresent());
        contents.setManaged(contents.isVisible());
        if (status.isEmpty()) {
            readiness
                    .getChildren()
                    .add(
                            bay.isPhone()
                                    ? nextHand("Plug the phone in", "Use the cable that came with it; try both ends")
                                    : nextHand("It can't be reached", "Check the network, and whether it is running"));
            return;
        }
        steps(status.get().readiness());
        if (status.get().readiness().ready() && !status.get().apps().isEmpty()) {
            readiness.getChildren().add(new ChatAppSteps(desk, bay, status.get().apps()));
        }
        if (contents.isVisible()) {
            contents(status.get());
        }
    }

    private void steps(Readiness ready) {
        if (ready.steps().stream().noneMatch(step -> step == ReadinessStep.REACH)) {
            readiness.getChildren().add(Parts.state(Mark.DONE, "Plugged in"));
        }
        for (var step : ready.steps()) {
            boolean next = ready.next().filter(s -> s == step).isPresent();
            if (next) {
                readiness.getChildren().add(nextHand(step.instruction(), ""));
                SourceHand.forStep(desk, bay, step)
                        .ifPresent(hand -> readiness.getChildren().add(hand));
            } else if (ready.done().contains(step)) {
                readiness.getChildren().add(Parts.state(Mark.DONE, step.done()));
            } else {
                readiness.getChildren().add(Parts.state(Mark.NEVER, step.instruction()));
            }
        }
        if (ready.ready()) {
            var box = new HBox(
                    12,
                    Parts.state(Mark.DONE, bay.isPhone() ? "Ready. This bench may read the phone." : "Ready."),
                    Parts.gap(),
                    Parts.button(
                            "go-back-up",
                            "Go to the backup",
                            "",
                            () -> bay.step().set(RouteStep.BACK_UP)));
            box.setAlignment(Pos.CENTER_LEFT);
            box.getStyleClass().add("sealed-card");
            readiness.getChildren().add(box);
        }
    }

    private static Node nextHand(String instruction, String more) {
        var words = Parts.state(Mark.HAND, instruction);
        var box = new VBox(3, words);
        if (!more.isEmpty()) {
            box.getChildren().add(Parts.sentence(more, "lesser"));
        }
        box.setId("next-hand");
        box.getStyleClass().add("needs-hand-card");
        return box;
    }

    private void contents(PhoneStatus status) {
        var table = new KindTable(bay.isPhone() ? "On the phone" : "In it", "Items", "Size");
        for (var count : status.contents()) {
            if (count.items() > 0) {
                table.row(
                        count.withheld().isPresent()
                                ? count.kind().label() + " *"
                                : count.kind().label(),
                        desk.words().count(count.items()),
                        desk.words().bytes(count.bytes()));
            }
        }
        contents.getChildren().setAll(table);
        if (status.contents().stream().anyMatch(count -> count.withheld().isPresent())) {
            contents.getChildren().add(Parts.sentence("* not given as it is; the backup says why", "lesser"));
        }
    }
}
