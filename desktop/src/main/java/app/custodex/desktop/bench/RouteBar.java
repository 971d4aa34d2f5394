package app.custodex.desktop.bench;

import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The steps of a docket, in the order in which the work is done, and how far each is. */
final class RouteBar extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final PseudoClass DONE = PseudoClass.getPseudoClass("done");

    private record Step(Button button, Label name, Label how) {}

    private final Desk desk;
    private final BayModel bay;
    private final Map<RouteStep, Step> steps = new EnumMap<>(RouteStep.class);

    RouteBar(Desk desk, BayModel bay, Consumer<RouteStep> choose) {
        this.desk = desk;
        this.bay = bay;
        setSpacing(10);
        for (var step : RouteStep.values()) {
            var name = Parts.text(step.label(), "route-name");
            var how = Parts.text("", "lesser");
            var button = new Button();
            button.setId("route-" + step.name().toLowerCase(Locale.ROOT).replace('_', '-'));
            button.getStyleClass().add("route-step");
            button.setGraphic(new VBox(2, name, how));
            button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
            button.setMaxWidth(Double.MAX_VALUE);
            button.setPrefWidth(150);
            button.setOnAction(event -> choose.accept(step));
            HBox.setHgrow(button, Priority.ALWAYS);
            steps.put(step, new Step(button, name, how));
            getChildren().add(button);
        }
        desk.changes().addListener((o, was, is) -> refresh());
        bay.step().addListener((o, was, is) -> refresh());
        refresh();
    }

    private void refresh() {
        steps.forEach((step, parts) -> {
            var done = bay.docket()
                    .get()
                    .map(Docket::done)
                    .filter(d -> d.containsKey(step))
                    .map(d -> d.get(step));
            parts.name().setText(done.isPresent() ? "✓ " + step.label() : step.label());
            parts.how()
                    .setText(done.map(at -> desk.words().moment(at, desk.now())).orElseGet(() -> open(step)));
            parts.button().pseudoClassStateChanged(DONE, done.isPresent());
            parts.button().pseudoClassStateChanged(PRESENT, bay.step().get() == step);
            boolean readable = !bay.layers().get().isEmpty();
            parts.button().setDisable((step == RouteStep.READ || step == RouteStep.EXTRACT) && !readable);
        });
    }

    private String open(RouteStep step) {
        boolean layers = !bay.layers().get().isEmpty();
        return switch (step) {
            case CHECK_IN -> bay.docket().get().isEmpty() ? "open a docket" : "consent is missing";
            case BACK_UP ->
                bay.progress().get().isPresent()
                        ? "running"
                        : layers ? "earlier layers are there" : "nothing saved yet";
            case READ -> layers ? "open the newest layer" : "after the backup";
            case EXTRACT -> layers ? "pick in the reading room" : "after the backup";
        };
    }
}
