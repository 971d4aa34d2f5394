package app.custodex.desktop.reading;

import java.util.ArrayList;
import java.util.List;

/**
 * What is to be printed: a heading and lines.
 *
 * @param under below the title, once
 */
record Printout(String title, List<String> under, List<Line> lines) {
    /** So much goes on paper in one go; whoever wants more takes it out as files. */
    static final int MOST_LINES = 20_000;

    /** Less than a page has room for, whatever it says. */
    private static final int MOST_CHARACTERS = 1_200;

    /**
     * @param when may be empty, as may be who
     */
    record Line(String when, String who, String what) {}

    Printout {
        under = List.copyOf(under);
        lines = lines.stream().flatMap(line -> cut(line).stream()).toList();
    }

    /** A text that is longer than a page goes on in another line. */
    private static List<Line> cut(Line line) {
        var what = line.what();
        if (what.length() <= MOST_CHARACTERS) {
            return List.of(line);
        }
        var pieces = new ArrayList<Line>();
        for (int from = 0; from < what.length(); ) {
            int end = Math.min(what.length(), from + MOST_CHARACTERS);
            if (end < what.length() && Character.isHighSurrogate(what.charAt(end - 1))) {
                end--;
            }
            boolean first = pieces.isEmpty();
            pieces.add(new Line(first ? line.when() : "", first ? line.who() : "", what.substring(from, end)));
            from = end;
        }
        return pieces;
    }
}
