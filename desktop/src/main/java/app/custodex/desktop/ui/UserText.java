package app.custodex.desktop.ui;

import app.custodex.search.Marks.Mark;
import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import javafx.css.PseudoClass;
import javafx.geometry.NodeOrientation;
import javafx.geometry.Orientation;
import javafx.geometry.VPos;
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
    /** Style classes whose words are strong. */
    private static final Set<String> STRONG = Set.of("strong", "heading", "title");

    private static final Pattern CLUSTER = Pattern.compile("\\X");
    private static final PseudoClass VEILED = PseudoClass.getPseudoClass("veiled");

    private final boolean oneLine;
    /** Present when the text is private. */
    private final Optional<Veil> veil;

    private final ChangeListener<Boolean> redraw = (o, was, is) -> draw();
    private String text = "";
    private List<Mark> marks = List.of();
    /** What shows plain text; made when there is some. */
    private Optional<Plain> plain = Optional.empty();

    private boolean open;
    private boolean onPaper;

    private UserText(boolean oneLine, Optional<Veil> veil, String... styleClasses) {
        this.oneLine = oneLine;
        this.veil = veil;
        veil.ifPresent(by -> by.down().addListener(new WeakChangeListener<>(redraw)));
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
        return made(true, Optional.empty(), text, styleClasses);
    }

    /** Text that wraps. */
    public static UserText paragraph(String text, String... styleClasses) {
        return made(false, Optional.empty(), text, styleClasses);
    }

    /** Text that wraps, for paper: a label cuts its text to the width that it has on the screen, which is not quite that on paper. */
    public static UserText printed(String text, String... styleClasses) {
        var node = new UserText(false, Optional.empty(), styleClasses);
        node.onPaper = true;
        node.setText(text);
        return node;
    }

    static UserText made(boolean oneLine, Optional<Veil> veil, String text, String... styleClasses) {
        var node = new UserText(oneLine, veil, styleClasses);
        node.setText(text);
        return node;
    }

    /** The text itself, whether or not it can be seen. */
    public String getText() {
        return text;
    }

    public void setText(String newText) {
        show(newText, false, List.of());
    }

    /** A text in which some words are marked. */
    public void setText(String newText, List<Mark> newMarks) {
        show(newText, false, newMarks);
    }

    /** Words of our own that tell nothing private, where private ones may stand too. */
    public void setOpenText(String newText) {
        show(newText, true, List.of());
    }

    private void show(String newText, boolean newOpen, List<Mark> newMarks) {
        if (!newText.equals(text)
                || newOpen != open
                || !newMarks.equals(marks)
                || getChildren().isEmpty()) {
            text = newText;
            marks = newMarks;
            open = newOpen;
            draw();
        }
    }

    private void draw() {
        boolean veiled = veil.filter(Veil::isDown).isPresent() && !open && !text.isBlank();
        pseudoClassStateChanged(VEILED, veiled);
        setAccessibleText(veiled ? Veil.SAID : text);
        var seen = veiled ? Veil.DRAWN : text;
        var marked = veiled ? List.<Mark>of() : marks;
        var shown =
                !oneLine ? seen : seen.replaceAll(marked.isEmpty() ? "\\s+" : "\\s", " "); // marks keep their places
        if (onPaper || !marked.isEmpty() || !isPlain(shown)) {
            show(runs(shown, marked));
        } else {
            if (plain.isEmpty()) {
                plain = Optional.of(oneLine ? new PlainLine() : new PlainParagraph());
            }
            plain.get().setText(shown);
            if (!isShownPlain()) { // a node that is there already needs no new style
                show(plain.get().node());
            }
        }
    }

    /** Shows text that needs one font alone. */
    private sealed interface Plain {
        Node node();

        void setText(String text);

        /** @param width negative for as wide as it is */
        double height(double width);

        double width();

        void place(double x, double y, double width, double height);
    }

    /** A label cuts its text where there is no more room. */
    private static final class PlainLine implements Plain {
        private final Label label = new Label();

        PlainLine() {
            label.setTextOverrun(OverrunStyle.ELLIPSIS);
            label.setMinWidth(0);
            label.setMaxWidth(Double.MAX_VALUE);
        }

        @Override
        public Node node() {
            return label;
        }

        @Override
        public void setText(String text) {
            label.setText(text);
        }

        @Override
        public double height(double width) {
            return label.prefHeight(width);
        }

        @Override
        public double width() {
            return label.prefWidth(-1);
        }

        @Override
        public void place(double x, double y, double width, double height) {
            label.resizeRelocate(x, y, width, height);
        }
    }

    /** Of what wraps nothing is cut, and a label would lay it out twice. */
    private final class PlainParagraph implements Plain {
        private final Text lines = new Text();

        PlainParagraph() {
            lines.getStyleClass().add("text-run");
            lines.setTextOrigin(VPos.TOP);
            // To measure it changes its bounds, which would ask for another layout, and so on for ever.
            lines.setManaged(false);
            lines.fontProperty().addListener(o -> requestLayout());
        }

        @Override
        public Node node() {
            return lines;
        }

        @Override
        public void setText(String text) {
            lines.setText(text);
            requestLayout();
        }

        @Override
        public double height(double width) {
            lines.setWrappingWidth(Math.max(0, width));
            return Math.ceil(lines.getLayoutBounds().getHeight());
        }

        @Override
        public double width() {
            lines.setWrappingWidth(0);
            return Math.ceil(lines.getLayoutBounds().getWidth());
        }

        @Override
        public void place(double x, double y, double width, double height) {
            lines.relocate(x, y + Math.max(0, Math.floor((height - height(width)) / 2)));
        }
    }

    /** With its style, so that whoever lays it out by hand can measure it at once. */
    private void show(Node node) {
        getChildren().setAll(node);
        node.applyCss();
    }

    private boolean isShownPlain() {
        return plain.isPresent() && getChildren().contains(plain.get().node());
    }

    @Override
    protected double computePrefWidth(double height) {
        return isShownPlain()
                ? snappedLeftInset() + plain.orElseThrow().width() + snappedRightInset()
                : super.computePrefWidth(height);
    }

    @Override
    protected double computePrefHeight(double width) {
        if (!isShownPlain()) {
            return super.computePrefHeight(width);
        }
        double across = snappedLeftInset() + snappedRightInset();
        double height = plain.orElseThrow().height(width < 0 ? width : Math.max(1, width - across));
        return snappedTopInset() + height + snappedBottomInset();
    }

    /** Plain text fills its room by itself, and need not be measured once more for it. */
    @Override
    protected void layoutChildren() {
        if (isShownPlain()) {
            double x = snappedLeftInset();
            double y = snappedTopInset();
            plain.orElseThrow()
                    .place(x, y, getWidth() - x - snappedRightInset(), getHeight() - y - snappedBottomInset());
        } else {
            super.layoutChildren();
        }
    }

    /** What wraps is higher where there is less room. */
    @Override
    public Orientation getContentBias() {
        return oneLine ? super.getContentBias() : Orientation.HORIZONTAL;
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

    /** @param strong whether it is drawn strongly, where its font can */
    private record Run(String text, String family, boolean marked, boolean strong) {
        /** Empty for the interface's own font, which the style sheet gives. */
        String style() {
            return family.isEmpty()
                    ? ""
                    : "-fx-font-family: '" + (strong ? Fonts.strong(family) : family) + "'; -fx-font-weight: normal;";
        }

        /** A mark needs a background, which only a region has. */
        Node node() {
            var label = new Label(text);
            label.setMinWidth(0);
            if (marked) {
                label.getStyleClass().add("found");
            }
            label.setStyle(style());
            return label;
        }
    }

    private Node runs(String shown, List<Mark> marked) {
        var runs = cut(shown, marked);
        if (oneLine) {
            var box = new HBox();
            box.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
            box.setMinWidth(0);
            for (var run : runs) {
                box.getChildren().add(run.node());
            }
            box.setNodeOrientation(
                    startsRightToLeft(shown) ? NodeOrientation.RIGHT_TO_LEFT : NodeOrientation.LEFT_TO_RIGHT);
            box.setMaxWidth(USE_PREF_SIZE);
            return box;
        }
        var flow = new TextFlow();
        for (var run : runs) {
            if (run.marked()) {
                flow.getChildren().add(run.node());
                continue;
            }
            var part = new Text(run.text());
            part.getStyleClass().add("text-run");
            part.setStyle(run.style());
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
    private List<Run> cut(String text, List<Mark> marks) {
        boolean strong = getStyleClass().stream().anyMatch(STRONG::contains);
        var runs = new ArrayList<Run>();
        var current = new StringBuilder();
        var family = "";
        boolean marked = false;
        var clusters = CLUSTER.matcher(text);
        while (clusters.find()) {
            var cluster = clusters.group();
            var wanted = family(cluster, family);
            int at = clusters.start();
            boolean found = marks.stream().anyMatch(mark -> mark.from() <= at && at < mark.until());
            if ((found != marked || !wanted.equals(family)) && !current.isEmpty()) {
                runs.add(new Run(current.toString(), family, marked, strong));
                current.setLength(0);
            }
            family = wanted;
            marked = found;
            current.append(cluster);
        }
        if (!current.isEmpty()) {
            runs.add(new Run(current.toString(), family, marked, strong));
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
