package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Clean;
import app.custodex.model.Thing;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * The columns of a table on paper: those in which something stands, as wide as they need to be. A time has its distance from UTC in the
 * same cell when somebody has to rely on it, and where a thing was read from stands at the end.
 */
final class PaperColumns {
    private static final String OFFSET = " (offset)";
    private static final List<String> FOR_EVIDENCE = List.of("Source", "File", "Account");
    /** What a sign takes on average, in points. */
    private static final double SIGN = 4.6;

    private static final int SHORTEST = 5;
    private static final int LONGEST = 60;
    private static final double GAP = 8;

    private final List<Column> columns;
    private final List<Integer> shown = new ArrayList<>();
    private final boolean evidence;
    private final int all;
    private final int[] lengths;
    private int number;

    PaperColumns(Batch batch, boolean evidence) {
        this.evidence = evidence;
        columns = Columns.of(batch);
        all = batch.count();
        lengths = new int[columns.size()];
        var aside = batch.aside();
        var looking = Columns.of(aside);
        for (var thing : aside.look()) {
            var cells = Columns.row(looking, thing);
            for (int i = 0; i < lengths.length; i++) {
                lengths[i] = Math.max(lengths[i], cells.get(i).text().length());
            }
        }
        for (int i = 0; i < lengths.length; i++) {
            var title = columns.get(i).title();
            if (lengths[i] > 0 && !title.endsWith(OFFSET) && (evidence || !FOR_EVIDENCE.contains(title))) {
                shown.add(i);
            }
        }
    }

    /** The number of a thing, and the headings of the columns. */
    List<String> headings() {
        var headings = new ArrayList<String>();
        if (evidence) {
            headings.add("Number");
        }
        shown.forEach(i -> headings.add(columns.get(i).title()));
        return headings;
    }

    /** What stands in the cells of the next thing. */
    List<String> cells(Thing thing) {
        var row = Columns.row(columns, thing);
        var cells = new ArrayList<String>();
        number++;
        if (evidence) {
            cells.add(number + " of " + all);
        }
        for (int i : shown) {
            var text = row.get(i).text();
            cells.add(Clean.text(
                    offset(i).filter(at -> evidence && !text.isEmpty()).isPresent()
                            ? text + " " + row.get(i + 1).text()
                            : text));
        }
        return cells;
    }

    /** Where the offset of a time stands. */
    private Optional<Integer> offset(int column) {
        return column + 1 < columns.size() && columns.get(column + 1).title().endsWith(OFFSET)
                ? Optional.of(column + 1)
                : Optional.empty();
    }

    /** Divides the room by what stands in the columns; none is so wide that another can't be read. */
    double[] widths(double room) {
        var wanted = new ArrayList<Double>();
        if (evidence) {
            wanted.add((2.0 * Integer.toString(all).length() + 4) * SIGN + GAP);
        }
        for (int i : shown) {
            int offset = evidence && offset(i).isPresent() ? " UTC+01:00".length() : 0;
            int signs = Math.clamp(lengths[i] + offset, SHORTEST, LONGEST);
            wanted.add(Math.max(signs, heading(i)) * SIGN + GAP);
        }
        double sum = wanted.stream().mapToDouble(Double::doubleValue).sum();
        return wanted.stream().mapToDouble(each -> each * room / sum).toArray();
    }

    /** The longest word of a heading. */
    private int heading(int column) {
        return Arrays.stream(columns.get(column).title().split(" "))
                .mapToInt(String::length)
                .max()
                .orElse(0);
    }
}
