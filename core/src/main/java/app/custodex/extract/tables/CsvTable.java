package app.custodex.extract.tables;

import app.custodex.extract.Clean;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.Writer;
import java.util.List;
import java.util.regex.Pattern;

/** A table of plain text (RFC 4180) in which nothing stands that a spreadsheet would run, unless it is to be faithful. */
final class CsvTable {
    /** "CSV injection" is what OWASP calls text that a spreadsheet takes for a formula. */
    private static final Pattern FORMULA = Pattern.compile("[=+\\-@\\t\\r].*", Pattern.DOTALL);

    private static final Pattern TELEPHONE = Pattern.compile("\\+?[0-9][0-9 ()./-]*");
    private static final Pattern NUMBER = Pattern.compile("[+-]?[0-9]+([.][0-9]+)?([eE][+-]?[0-9]+)?");

    private final CsvWriter csv;
    private final boolean faithful;

    /** @param to is closed by the caller */
    CsvTable(Writer to, boolean faithful) {
        csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(to);
        this.faithful = faithful;
    }

    void headings(List<String> headings) {
        csv.writeRecord(headings);
    }

    void row(List<Cell> cells) {
        csv.writeRecord(cells.stream().map(this::text).toList());
    }

    void flush() throws IOException {
        csv.flush();
    }

    private String text(Cell cell) {
        var clean = Clean.text(cell.text());
        boolean wouldRun = cell instanceof Cell.Text
                && !faithful
                && FORMULA.matcher(clean).matches()
                && !TELEPHONE.matcher(clean).matches()
                && !NUMBER.matcher(clean).matches();
        return wouldRun ? "'" + clean : clean;
    }
}
