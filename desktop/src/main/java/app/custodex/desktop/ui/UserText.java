package app.custodex.desktop.ui;

import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import javafx.geometry.NodeOrientation;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;

/**
 * Shows what people wrote. JavaFX on Linux knows no fonts of other scripts and no emoji, so the text is cut into runs and
 * each run gets the font that can draw it. Plain Latin text takes the short way.
 */
public final class UserText extends StackPane {
    private static final Pattern CLUSTER = Pattern.compile("\\X");

    private final boolean oneLine;
    private String text = "";

    private UserText(boolean oneLine, String... styleClasses) {
        this.oneLine = oneLine;
        getStyleClass().add("user-text");
        getStyleClass().addAll(styleClasses);
        setMinWidth(0);
        if (!oneLine) {
            setMinHeight(USE_PREF_SIZE);
        }
        setAlignment(javafx.geometry.Pos.CENTER_LEFT);
    }

    /** Text on one line, cut where there is no more room. */
    public static UserText line(String text, String... styleClasses) {
        var node = new UserText(true, styleClasses);
        node.setText(text);
        return node;
    }

    /** Text that wraps. */
    public static UserText paragraph(String text, String... styleClasses) {
        var node = new UserText(false, styleClasses);
        node.setText(text);
        return node;
    }

    public String getText() {
        return text;
    }

    public void setText(String newText) {
        text = newText;
        setAccessibleText(newText);
        var shown = oneLine ? newText.replaceAll("\\s+", " ") : newText;
        getChildren().setAll(isPlain(shown) ? plain(shown) : runs(shown));
    }

    private static boolean isPlain(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            // Latin with its accents, and general punctuation; nothing that is drawn as emoji lies in there.
            if (c >= 0x250 && !(c >= 0x1E00 && c <= 0x1EFF) && !(c >= 0x2010 && c <= 0x2027)) {
                return false;
            }
        }
        return true;
    }

    private Node plain(String shown) {
        var label = new Label(shown);
        label.setWrapText(!oneLine);
        label.setTextOverrun(OverrunStyle.ELLIPSIS);
        label.setMinWidth(0);
        label.setMaxWidth(Double.MAX_VALUE);
        if (!oneLine) {
            label.setMinHeight(USE_PREF_SIZE);
        }
        return label;
    }

    private record Run(String text, String family) {}

    private Node runs(String shown) {
        var runs = cut(shown);
        if (oneLine) {
            var box = new HBox();
            box.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
            box.setMinWidth(0);
            for (var run : runs) {
                var label = new Label(run.text());
                label.setMinWidth(0);
                if (!run.family().isEmpty()) {
                    label.setStyle("-fx-font-family: '" + run.family() + "'; -fx-font-weight: normal;");
                }
                box.getChildren().add(label);
            }
            box.setNodeOrientation(
                    startsRightToLeft(shown) ? NodeOrientation.RIGHT_TO_LEFT : NodeOrientation.LEFT_TO_RIGHT);
            box.setMaxWidth(USE_PREF_SIZE);
            return box;
        }
        var flow = new TextFlow();
        for (var run : runs) {
            var part = new Text(run.text());
            part.getStyleClass().add("text-run");
            if (!run.family().isEmpty()) {
                part.setStyle("-fx-font-family: '" + run.family() + "';");
            }
            flow.getChildren().add(part);
        }
        return flow;
    }

    private static boolean startsRightToLeft(String text) {
        return text.codePoints()
                .map(Character::getDirectionality)
                .filter(d -> d == Character.DIRECTIONALITY_LEFT_TO_RIGHT
                        || d == Character.DIRECTIONALITY_RIGHT_TO_LEFT
                        || d == Character.DIRECTIONALITY_RIGHT_TO_LEFT_ARABIC)
                .mapToObj(d -> d != Character.DIRECTIONALITY_LEFT_TO_RIGHT)
                .findFirst()
                .orElse(false);
    }

    /** Runs of one font each; a space or mark goes with what stands before it. */
    private static List<Run> cut(String text) {
        var runs = new ArrayList<Run>();
        var current = new StringBuilder();
        var family = "";
        var clusters = CLUSTER.matcher(text);
        while (clusters.find()) {
            var cluster = clusters.group();
            var wanted = family(cluster, family);
            if (!wanted.equals(family) && !current.isEmpty()) {
                runs.add(new Run(current.toString(), family));
                current.setLength(0);
            }
            family = wanted;
            current.append(cluster);
        }
        if (!current.isEmpty()) {
            runs.add(new Run(current.toString(), family));
        }
        return runs;
    }

    private static String family(String cluster, String before) {
        int first = cluster.codePointAt(0);
        if (Character.isEmojiPresentation(first)
                || cluster.indexOf('\uFE0F') > 0
                || cluster.codePoints().skip(1).anyMatch(Character::isEmojiModifier)) {
            return Fonts.emojiFamily();
        }
        var script = UnicodeScript.of(first);
        if (script == UnicodeScript.COMMON || script == UnicodeScript.INHERITED) {
            return first < 0x80 && !Character.isWhitespace(first) ? "" : before;
        }
        return Fonts.family(script);
    }
}
