package app.custodex.desktop.ui;

import app.custodex.base.Problem;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Shows what went wrong, to what, and what to do, without getting in the way of what can still be done. */
public final class MessageBar extends HBox {
    private final Label what = Parts.sentence("", "message-what");
    private final Label advice = Parts.sentence("", "message-advice");

    public MessageBar() {
        setId("message-bar");
        getStyleClass().add("message-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(12);
        what.setId("message-what");
        advice.setId("message-advice");
        var words = new VBox(2, what, advice);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button close = Parts.button("message-close", "Understood", "Esc", this::hide);
        getChildren().addAll(Parts.mark(Parts.Mark.TROUBLE), words, close);
        hide();
    }

    public void show(Problem problem) {
        what.setText(problem.subject() + ": " + problem.what() + ".");
        advice.setText(problem.advice().isEmpty() ? "" : problem.advice() + ".");
        setVisible(true);
        setManaged(true);
    }

    public void hide() {
        setVisible(false);
        setManaged(false);
    }
}
