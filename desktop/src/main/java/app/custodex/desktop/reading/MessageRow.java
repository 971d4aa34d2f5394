package app.custodex.desktop.reading;

import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.desktop.ui.Veil;
import app.custodex.model.Attachment;
import app.custodex.model.Message;
import app.custodex.model.Thing;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** One message of a running page: a rule where a day begins, the time, who, and what was said with all that hangs on it. */
final class MessageRow extends VBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final double TIME = 68;
    private static final double WHO = 118;

    private final Label day = Parts.text("", "lesser");
    private final HBox dayRule = new HBox(day);
    private final Label time = Parts.text("", "lesser", "mono");
    private final Veil veil;
    private final UserText who;
    private final Region rail = new Region();
    private final UserText text;
    private final VBox said;
    private final Label picked = Parts.text("", "picked");
    private int row = -1;
    private boolean filled;

    MessageRow(Veil veil) {
        this.veil = veil;
        who = veil.paragraph("", "strong");
        text = veil.paragraph("");
        said = new VBox(3, text);
        getStyleClass().add("message-row");
        setAccessibleRole(AccessibleRole.LIST_ITEM);
        setManaged(false);
        dayRule.setAlignment(Pos.CENTER);
        dayRule.setStyle("-fx-padding: 10 0 6 0;");
        time.setMinWidth(TIME);
        time.setMaxWidth(TIME);
        who.setMinWidth(WHO);
        who.setMaxWidth(WHO);
        rail.getStyleClass().add("tint");
        rail.setMinWidth(2);
        rail.setMaxWidth(2);
        rail.setMaxHeight(Double.MAX_VALUE);
        said.setMinWidth(0);
        HBox.setHgrow(said, Priority.ALWAYS);
        picked.setMinWidth(14);
        var line = new HBox(8, time, who, rail, said, picked);
        line.setAlignment(Pos.TOP_LEFT);
        line.setMinWidth(0);
        getChildren().setAll(dayRule, line);
    }

    /** Which row of the page it is at the moment. */
    int row() {
        return row;
    }

    /** Whether it shows its thing, rather than waiting for it. */
    boolean isFilled() {
        return filled;
    }

    void choose(boolean chosen) {
        pseudoClassStateChanged(PRESENT, chosen);
    }

    /** Shows whether it is in the tray. */
    void pick(boolean in) {
        picked.setText(in ? "✓" : "");
    }

    /**
     * Shows a thing.
     *
     * @param newDay what day it is, where another one begins
     * @param thing empty while it is read
     */
    void show(int newRow, Optional<String> newDay, String newTime, Optional<Thing> thing, ThingWords words) {
        row = newRow;
        filled = thing.isPresent();
        dayRule.setVisible(newDay.isPresent());
        dayRule.setManaged(newDay.isPresent());
        day.setText(newDay.orElse(""));
        time.setText(newTime);
        if (said.getChildren().size() > 1) {
            said.getChildren().setAll(text);
        }
        if (thing.isEmpty()) {
            who.setText("");
            text.setOpenText("…");
            return;
        }
        boolean own = thing.get().outgoing().orElse(false);
        if (own) {
            who.setOpenText("Sent");
        } else {
            who.setText(words.who(thing.get()));
        }
        tint(own ? "tint-messages" : "tint-other");
        text.setText(words.what(thing.get()));
        if (thing.get() instanceof Message message) {
            more(message, words);
        }
        setAccessibleText(newDay.map(at -> at + ", ").orElse("") + newTime + ", "
                + (own ? who.getText() : veil.words(who.getText())) + ". " + veil.words(words.what(thing.get())));
    }

    private void tint(String tint) {
        if (!rail.getStyleClass().contains(tint)) { // a style class that is set anew is worked out anew
            rail.getStyleClass().setAll("tint", tint);
        }
    }

    private void more(Message message, ThingWords words) {
        for (var attachment : message.attachments()) {
            said.getChildren().add(veil.paragraph(attachment(attachment), "lesser"));
        }
        if (!message.reactions().isEmpty()) {
            said.getChildren()
                    .add(veil.paragraph(
                            message.reactions().stream()
                                    .map(reaction -> reaction.sign() + " "
                                            + reaction.who()
                                                    .map(party -> words.names().of(party, message))
                                                    .orElse("the owner"))
                                    .collect(Collectors.joining("   ")),
                            "lesser"));
        }
        var marks = (message.replyTo().isPresent() ? "answers an earlier one" : "")
                + (message.edited().isPresent() ? (message.replyTo().isPresent() ? " · " : "") + "edited" : "")
                + (message.state() == Message.State.FAILED ? " not sent" : "");
        if (!marks.isBlank()) {
            said.getChildren().add(Parts.text(marks.strip(), "lesser"));
        }
    }

    private static String attachment(Attachment attachment) {
        return "▤ " + attachment.title() + (attachment.there() ? "" : ", not on the phone any more");
    }
}
