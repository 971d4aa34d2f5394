package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Split;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** Anything as a table of plain text (RFC 4180, UTF-8). */
public final class CsvFormat implements Format {
    private static final char BYTE_ORDER_MARK = '\uFEFF';
    private static final Choice MARKED =
            Choice.whether("byte-order-mark", "Mark as UTF-8, so that spreadsheets show accents", false);
    private static final Choice FAITHFUL =
            Choice.whether("faithful", "Exactly as it is, even what a spreadsheet runs as a formula", false);

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
    public List<Choice> choices(KindGroup group) {
        var more = new ArrayList<>(Totals.choices(group));
        more.addAll(ContactColumns.choices(group));
        more.addAll(List.of(MARKED, FAITHFUL));
        return Split.choices(group, more);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, (part, folder) -> table(part, chosen, folder));
    }

    private static void table(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var columns = Columns.of(batch, chosen);
        var totals = Totals.of(batch, chosen);
        var rows = batch.each(thing -> {
            totals.ifPresent(all -> all.add(thing));
            return Columns.row(columns, thing);
        });
        write(batch.title(), Columns.titles(columns).toList(), rows, chosen, out);
        if (totals.isPresent()) {
            write(
                    batch.title() + ", totals",
                    totals.get().headings(),
                    totals.get().rows(),
                    chosen,
                    out);
        }
    }

    private static void write(
            String title, List<String> headings, Iterable<List<Cell>> rows, Chosen chosen, OutFolder out)
            throws IOException {
        out.text(title, ".csv", text -> {
            if (chosen.is(MARKED)) {
                text.write(BYTE_ORDER_MARK);
            }
            var csv = new CsvTable(text, chosen.is(FAITHFUL));
            csv.headings(headings);
            for (var row : rows) {
                csv.row(row);
            }
            csv.flush();
        });
    }
}
