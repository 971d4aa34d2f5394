package app.custodex.desktop.bench;

import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.SecretField;
import app.custodex.link.ChatApp;
import app.custodex.link.ChatStep;
import app.custodex.link.Kind;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Chat apps that keep their conversations elsewhere: what the hand does so that a backup takes them too. */
final class ChatAppSteps extends VBox {
    private final Desk desk;
    private final BayModel bay;

    ChatAppSteps(Desk desk, BayModel bay, List<ChatApp> apps) {
        super(6);
        this.desk = desk;
        this.bay = bay;
        setId("chat-apps");
        getChildren().addAll(Parts.rule(), Parts.text("Chat apps on it", "heading"));
        for (var app : apps) {
            app(app);
        }
        if (apps.stream().anyMatch(app -> app.next().isPresent())) {
            getChildren().add(Parts.sentence("The rest of the phone can be backed up without these steps.", "lesser"));
        }
    }

    private void app(ChatApp app) {
        var name = app.kind().label();
        var next = app.next();
        for (var step : app.steps()) {
            if (app.done().contains(step)) {
                getChildren().add(Parts.state(Mark.DONE, name + ": " + step.done()));
            } else if (next.filter(n -> n == step).isPresent()) {
                var box = new VBox(6, Parts.state(Mark.HAND, name + ": " + step.instruction()));
                box.getStyleClass().add("needs-hand-card");
                box.setId("chat-next-" + app.kind().code().toLowerCase(Locale.ROOT));
                if (step == ChatStep.CUSTOMER_KEY) {
                    box.getChildren().add(key(app.kind()));
                }
                getChildren().add(box);
            } else {
                getChildren().add(Parts.state(Mark.NEVER, name + ": " + step.instruction()));
            }
        }
    }

    private Node key(Kind app) {
        var field = new SecretField("customer-key", "The customer's key");
        HBox.setHgrow(field, Priority.ALWAYS);
        var attempt = Parts.button("customer-key-try", "Try it", "Enter", () -> {});
        Runnable act = () -> {
            var key = field.passphrase();
            field.clear();
            desk.work()
                    .start(
                            app.label(),
                            () -> {
                                try (key) {
                                    bay.bay().tryKey(app, key);
                                }
                                return app;
                            },
                            opened -> desk.refreshBays());
        };
        attempt.setOnAction(event -> act.run());
        field.setOnAction(event -> act.run());
        return Parts.row(field, attempt);
    }
}
