package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.model.KindGroup;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/** Anything as a table of plain text (RFC 4180, UTF-8). */
public final class CsvFormat implements Format {
    private static final char BYTE_ORDER_MARK = '\uFEFF';
    private static final Choice MARKED =
            Choice.whether("byte-order-mark", "Mark as UTF-8, so that spreadsheets show accents", false);
    private static final Choice FAITHFUL =
            Choice.whether("faithful", "Exactly as it is, even what a spreadsheet runs as a formula", false);
    /** "CSV injection" is what OWASP calls text that a spreadsheet takes for a formula. */
    private static final Pattern FORMULA = Pattern.compile("[=+\\-@\\t\\r].*", Pattern.DOTALL);

    private static final Pattern TELEPHONE = Pattern.compile("\\+?[0-9][0-9 ()./-]*");

    @Override
    public String code() {
        return "csv";
    }

    @Override
    public String label() {
        return "CSV, a table of plain text (RFC 4180)";
    }

    @Override
    public String leavesOut() {
        return "Leaves out photos and attachments, which are only named";
    }

    @Override
    public Set<KindGroup> groups() {
        return ALL;
    }

    @Override
    public List<Choice> choices() {
        return List.of(MARKED, FAITHFUL);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var columns = Columns.of(batch);
        boolean faithful = chosen.is(FAITHFUL);
        out.text(batch.title(), ".csv", text -> {
            if (chosen.is(MARKED)) {
                text.write(BYTE_ORDER_MARK);
            }
            @SuppressWarnings("resource") // the caller closes what lies below
            var csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(text);
            csv.writeRecord(Columns.titles(columns).toList());
            for (var row : batch.each(thing -> Columns.row(columns, thing))) {
                csv.writeRecord(row.stream().map(cell -> text(cell, faithful)).toList());
            }
            csv.flush();
        });
    }

    private static String text(Cell cell, boolean faithful) {
        var clean = Clean.text(cell.text());
        boolean wouldRun = cell instanceof Cell.Text
                && !faithful
                && FORMULA.matcher(clean).matches()
                && !TELEPHONE.matcher(clean).matches();
        return wouldRun ? "'" + clean : clean;
    }
}
