package app.custodex.desktop.bench;

import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.docket.RouteStep;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The docket of the bay that is looked at: its card, its route, and the step at hand. */
public final class BenchView extends HBox {
    private final Desk desk;
    /** Made once a bay, since each follows its bay for good. */
    private final Map<BayModel, Pages> pages = new HashMap<>();

    private final DocketList dockets;

    private record Pages(DocketCard card, VBox work, ScrollPane step, Map<RouteStep, Node> steps) {}

    public BenchView(Desk desk) {
        this.desk = desk;
        dockets = new DocketList(desk);
        setId("bench");
        getStyleClass().add("place-ground");
        setSpacing(18);
        desk.present().addListener((o, was, is) -> show());
        desk.bays().addListener((ListChangeListener<BayModel>)
                change -> pages.keySet().retainAll(desk.bays()));
        show();
    }

    private void show() {
        var bay = desk.present().get();
        if (bay.isEmpty()) {
            dockets.refresh();
            getChildren().setAll(dockets);
            return;
        }
        var page = pages.computeIfAbsent(bay.get(), this::pages);
        getChildren().setAll(page.card(), page.work());
    }

    private Pages pages(BayModel bay) {
        var step = new ScrollPane();
        step.setFitToWidth(true);
        step.setFocusTraversable(false);
        VBox.setVgrow(step, Priority.ALWAYS);
        var work = new VBox(14, new RouteBar(desk, bay, this::choose), step);
        work.setMinWidth(0);
        HBox.setHgrow(work, Priority.ALWAYS);
        var made = new Pages(new DocketCard(desk, bay), work, step, new EnumMap<>(RouteStep.class));
        Runnable show =
                () -> step.setContent(made.steps().computeIfAbsent(bay.step().get(), s -> view(bay, s)));
        bay.step().addListener((o, was, is) -> show.run());
        show.run();
        return made;
    }

    private Node view(BayModel bay, RouteStep step) {
        return switch (step) {
            case CHECK_IN -> new CheckInStep(desk, bay);
            case BACK_UP, READ, EXTRACT -> new BackUpStep(desk, bay);
        };
    }

    private void choose(RouteStep step) {
        switch (step) {
            case CHECK_IN, BACK_UP ->
                desk.present().get().ifPresent(bay -> bay.step().set(step));
            case READ -> readNewest(false);
            case EXTRACT -> readNewest(true);
        }
    }

    /** Opens the newest layer of the phone on the bench. */
    public void readNewest(boolean extracting) {
        desk.present().get().filter(bay -> !bay.layers().get().isEmpty()).ifPresent(bay -> {
            var newest = bay.layers().get().getLast().record();
            desk.read(newest.phone(), newest.number(), extracting);
        });
    }
}
