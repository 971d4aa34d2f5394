package app.custodex.extract.pdf;

import app.custodex.extract.Batch;
import app.custodex.extract.Clean;
import com.ibm.icu.text.Bidi;
import com.ibm.icu.text.BreakIterator;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Breaks text into lines where its language allows it (Unicode Standard Annex 14), with each sign in a font that has it and words of both
 * directions in the order in which they are read (Annex 9).
 */
public final class TextBreaker {
    private static final String TAB = " ".repeat(4);
    private static final Pattern SIGN = Pattern.compile("\\X");
    private static final int ODD = 1;
    /** Behind Latin, all of which the plain font has; before the first sign that joins another one. */
    private static final int FIRST_MARK = 0x250;
    /** A longer word is broken between its signs without being measured whole. */
    private static final int LONGEST_WORD = 200;

    private final Typefaces typefaces;
    private final BreakIterator breaks = BreakIterator.getLineInstance(Locale.ROOT);
    private final BreakIterator clusters = BreakIterator.getCharacterInstance(Locale.ROOT);
    private int missing;

    public TextBreaker(Typefaces typefaces) {
        this.typefaces = typefaces;
    }

    /** Counts the signs that no font had; their Unicode numbers stand in their places. */
    public void tellMissing(Batch batch) {
        batch.leftOut("signs that no font of this program has; their Unicode numbers are given", missing);
    }

    /** A stretch that one font draws in one direction; the level is that of the direction. */
    private record Stretch(int start, int end, byte level, Typeface typeface, Optional<String> instead) {}

    private record Piece(byte level, Shaped shaped) {}

    /**
     * Breaks at the ends of lines too.
     *
     * @param width in thousandths of the size at which it is drawn
     * @param strong whether it is to look like a heading
     */
    List<TextLine> lines(String text, double width, boolean strong) {
        var lines = new ArrayList<TextLine>();
        var clean = Clean.text(text).replace("\t", TAB);
        for (var paragraph : clean.split("\n", -1)) {
            new Paragraph(paragraph, width, strong).breakInto(lines);
        }
        return lines;
    }

    /** Text on a line of its own, however long. */
    TextLine line(String text, boolean strong) {
        return lines(text.replace('\n', ' '), Double.MAX_VALUE, strong).getFirst();
    }

    private final class Paragraph {
        private final String text;
        private final double most;
        private final boolean rightToLeft;
        private final List<Stretch> stretches;
        private final List<Piece> line = new ArrayList<>();
        private double width;

        Paragraph(String text, double most, boolean strong) {
            this.text = text;
            this.most = most;
            var signs = text.toCharArray();
            var levels = new byte[signs.length];
            if (Bidi.requiresBidi(signs, 0, signs.length)) {
                var bidi = new Bidi(text, Bidi.LEVEL_DEFAULT_LTR);
                for (int i = 0; i < levels.length; i++) {
                    levels[i] = bidi.getLevelAt(i);
                }
                rightToLeft = !bidi.baseIsLeftToRight();
            } else {
                rightToLeft = false;
            }
            stretches = stretches(levels, strong);
        }

        private List<Stretch> stretches(byte[] levels, boolean strong) {
            if (!text.isEmpty()
                    && text.chars().allMatch(c -> c < FIRST_MARK)) { // most texts, and the quick way for them
                return List.of(new Stretch(0, text.length(), (byte) 0, typefaces.plain(strong), Optional.empty()));
            }
            var found = new ArrayList<Stretch>();
            clusters.setText(text);
            Optional<Typeface> before = Optional.empty();
            for (int start = 0, end = clusters.next(); end != BreakIterator.DONE; start = end, end = clusters.next()) {
                var cluster = text.substring(start, end);
                var typeface = typefaces.of(cluster, before, strong);
                var instead = Optional.<String>empty();
                if (typeface.isEmpty()) {
                    missing++;
                    instead = Optional.of(String.format(Locale.ROOT, "[U+%04X]", cluster.codePointAt(0)));
                    typeface = typefaces.of("[", before, strong);
                }
                add(found, new Stretch(start, end, levels[start], typeface.orElseThrow(), instead));
                before = typeface;
            }
            return found;
        }

        private static void add(List<Stretch> to, Stretch next) {
            if (!to.isEmpty() && next.instead().isEmpty()) {
                var last = to.getLast();
                if (last.instead().isEmpty() && last.level() == next.level() && last.typeface() == next.typeface()) {
                    to.removeLast();
                    to.add(new Stretch(last.start(), next.end(), last.level(), last.typeface(), Optional.empty()));
                    return;
                }
            }
            to.add(next);
        }

        void breakInto(List<TextLine> lines) {
            int before = lines.size();
            breaks.setText(text);
            for (int start = 0, end = breaks.next(); end != BreakIterator.DONE; start = end, end = breaks.next()) {
                place(start, end, lines);
            }
            if (!line.isEmpty() || lines.size() == before) {
                lines.add(finished());
            }
        }

        /** Puts a word on the line, or on the next one; a word that no line can hold is broken between its signs. */
        private void place(int start, int end, List<TextLine> lines) {
            if (end - start <= LONGEST_WORD) {
                int shown = start + text.substring(start, end).stripTrailing().length();
                double needed = width(pieces(start, shown));
                if (width + needed > most && !line.isEmpty()) {
                    lines.add(finished());
                }
                if (needed <= most) {
                    append(pieces(start, end));
                    return;
                }
            }
            placeInPieces(start, end, lines);
        }

        private void placeInPieces(int start, int end, List<TextLine> lines) {
            var signs = SIGN.matcher(text).region(start, end);
            int from = start;
            double needed = 0;
            while (signs.find()) {
                double more = width(pieces(signs.start(), signs.end()));
                if (width + needed + more > most && width + needed > 0) {
                    append(pieces(from, signs.start()));
                    lines.add(finished());
                    from = signs.start();
                    needed = 0;
                }
                needed += more;
            }
            append(pieces(from, end));
        }

        private void append(List<Piece> pieces) {
            line.addAll(pieces);
            width += width(pieces);
        }

        private static double width(List<Piece> pieces) {
            return pieces.stream().mapToDouble(piece -> piece.shaped().width()).sum();
        }

        /** What stands between two places, in the order in which it was written. */
        private List<Piece> pieces(int start, int end) {
            var found = new ArrayList<Piece>(2);
            for (int i = stretchAt(start); i < stretches.size(); i++) {
                var stretch = stretches.get(i);
                if (stretch.start() >= end) {
                    break;
                }
                var part = stretch.instead()
                        .orElseGet(
                                () -> text.substring(Math.max(start, stretch.start()), Math.min(end, stretch.end())));
                found.add(new Piece(
                        stretch.level(), typefaces.shape(stretch.typeface(), part, (stretch.level() & ODD) == ODD)));
            }
            return found;
        }

        private int stretchAt(int place) {
            int low = 0;
            int high = stretches.size();
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (stretches.get(middle).end() <= place) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            return low;
        }

        private TextLine finished() {
            var levels = new byte[line.size()];
            for (int i = 0; i < levels.length; i++) {
                levels[i] = line.get(i).level();
            }
            var ordered = line.toArray(new Piece[0]);
            if (ordered.length > 0) {
                Bidi.reorderVisually(levels, 0, ordered, 0, ordered.length);
            }
            var made = new TextLine(List.of(ordered).stream().map(Piece::shaped).toList(), width, rightToLeft);
            line.clear();
            width = 0;
            return made;
        }
    }
}
