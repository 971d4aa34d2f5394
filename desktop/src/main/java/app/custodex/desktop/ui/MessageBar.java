package app.custodex.desktop.ui;

import app.custodex.base.Problem;
import java.util.ArrayDeque;
import java.util.Deque;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * Shows what went wrong, to what, and what to do, without getting in the way of what can still be done. Of several messages each is
 * shown until it is understood.
 */
public final class MessageBar extends HBox {
    private static final PseudoClass NOTE = PseudoClass.getPseudoClass("note");

    private final Node mark = Parts.mark(Parts.Mark.TROUBLE);
    private final Label what = Parts.sentence("", "message-what");
    private final Label advice = Parts.sentence("", "message-advice");
    private final Label more = Parts.text("", "lesser");
    private final Veil veil;
    /** The first is shown. */
    private final Deque<Problem> waiting = new ArrayDeque<>();

    /** @param veil hides what private items the messages name */
    public MessageBar(Veil veil) {
        this.veil = veil;
        veil.down().addListener((o, was, is) -> refresh());
        setId("message-bar");
        getStyleClass().add("message-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(12);
        what.setId("message-what");
        advice.setId("message-advice");
        more.setId("message-more");
        more.setMinWidth(USE_PREF_SIZE);
        var words = new VBox(2, what, advice);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button close = Parts.button("message-close", "Understood", "Esc", this::hide);
        getChildren().addAll(mark, words, more, close);
        refresh();
    }

    public void show(Problem problem) {
        if (!waiting.contains(problem)) {
            waiting.addLast(problem);
        }
        refresh();
    }

    /** Puts the message away that is shown; the next one follows. */
    public void hide() {
        waiting.pollFirst();
        refresh();
    }

    private void refresh() {
        var shown = waiting.peekFirst();
        if (shown != null) {
            boolean note = shown.grade() == Problem.Grade.NOTE;
            pseudoClassStateChanged(NOTE, note);
            mark.setVisible(!note);
            mark.setManaged(!note);
            what.setText(veil.subject(shown.subject()) + ": " + shown.what() + ".");
            advice.setText(shown.advice().isEmpty() ? "" : shown.advice() + ".");
            more.setText(waiting.size() > 1 ? "and " + (waiting.size() - 1) + " more" : "");
        }
        setVisible(shown != null);
        setManaged(shown != null);
    }
}
