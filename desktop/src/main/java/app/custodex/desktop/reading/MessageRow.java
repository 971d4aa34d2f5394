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
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;

/**
 * One message of a running page: a rule where a day begins, the time, who, and what was said with all that hangs on it. It is laid out by
 * hand, since nested panes measure each text several times, and that is most of the work while a page runs.
 */
final class MessageRow extends Region {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final double TIME = 68;
    private static final double WHO = 118;
    private static final double RAIL = 2;
    private static final double PICKED = 14;
    private static final double GAP = 8;
    private static final double BETWEEN = 3;

    private final Label day = Parts.text("", "lesser", "day-rule");
    private final Text time = Parts.run("lesser", "mono");
    private final Veil veil;
    private final UserText who;
    private final Region rail = rail("tint-other");
    private final Region ownRail = rail("tint-messages");
    private final UserText text;
    /** Attachments, reactions and marks. */
    private final VBox more = new VBox(BETWEEN);

    private final Text picked = Parts.run("picked");
    private int row = -1;
    private boolean filled;
    /** For which width the heights were measured; negative when they have to be again. */
    private double measured = -1;

    private double dayHeight;
    private double textHeight;
    private double moreHeight;
    private double whoHeight;

    MessageRow(Veil veil) {
        this.veil = veil;
        who = veil.paragraph("", "strong");
        text = veil.paragraph("");
        getStyleClass().add("message-row");
        setAccessibleRole(AccessibleRole.LIST_ITEM);
        setManaged(false);
        day.setAlignment(Pos.CENTER);
        getChildren().setAll(day, time, who, rail, ownRail, text, more, picked);
    }

    private static Region rail(String tint) {
        var rail = new Region();
        rail.getStyleClass().addAll("tint", tint);
        return rail;
    }

    /** Where what was said begins. */
    private double left() {
        return snappedLeftInset() + TIME + GAP + WHO + GAP + RAIL + GAP;
    }

    private double textWidth(double width) {
        return Math.max(1, width - left() - GAP - PICKED - snappedRightInset());
    }

    private void measure(double width) {
        if (measured == width) {
            return;
        }
        measured = width;
        dayHeight = day.isVisible() ? day.prefHeight(-1) : 0;
        textHeight = text.prefHeight(textWidth(width));
        moreHeight = more.getChildren().isEmpty() ? 0 : BETWEEN + more.prefHeight(textWidth(width));
        whoHeight = who.prefHeight(WHO);
    }

    @Override
    protected double computePrefHeight(double width) {
        measure(width);
        return snappedTopInset() + dayHeight + Math.max(textHeight + moreHeight, whoHeight) + snappedBottomInset();
    }

    @Override
    protected void layoutChildren() {
        double width = getWidth();
        measure(width);
        double x = snappedLeftInset();
        double y = snappedTopInset();
        day.resizeRelocate(x, y, Math.max(0, width - x - snappedRightInset()), dayHeight);
        y += dayHeight;
        time.relocate(x, y);
        who.resizeRelocate(x + TIME + GAP, y, WHO, whoHeight);
        double height = Math.max(0, getHeight() - y - snappedBottomInset());
        rail.resizeRelocate(left() - GAP - RAIL, y, RAIL, height);
        ownRail.resizeRelocate(left() - GAP - RAIL, y, RAIL, height);
        text.resizeRelocate(left(), y, textWidth(width), textHeight);
        more.resizeRelocate(left(), y + textHeight + BETWEEN, textWidth(width), Math.max(0, moreHeight - BETWEEN));
        picked.relocate(left() + textWidth(width) + GAP, y);
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
        measured = -1;
        day.setVisible(newDay.isPresent());
        day.setText(newDay.orElse(""));
        time.setText(newTime);
        more.getChildren().clear();
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
        rail.setVisible(!own);
        ownRail.setVisible(own);
        text.setText(words.what(thing.get()));
        if (thing.get() instanceof Message message) {
            fillMore(message, words);
        }
        setAccessibleText(newDay.map(at -> at + ", ").orElse("") + newTime + ", "
                + (own ? who.getText() : veil.words(who.getText())) + ". " + veil.words(words.what(thing.get())));
    }

    private void fillMore(Message message, ThingWords words) {
        for (var attachment : message.attachments()) {
            more.getChildren().add(veil.paragraph(attachment(attachment), "lesser"));
        }
        if (!message.reactions().isEmpty()) {
            more.getChildren()
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
            more.getChildren().add(Parts.text(marks.strip(), "lesser"));
        }
        more.applyCss();
    }

    private static String attachment(Attachment attachment) {
        return "▤ " + attachment.title() + (attachment.there() ? "" : ", not on the phone any more");
    }
}
