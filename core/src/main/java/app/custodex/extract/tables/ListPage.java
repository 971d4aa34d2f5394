package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pages;
import app.custodex.extract.Split;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;

/** Anything but contacts and conversations as a table on an HTML page; those have pages of their own. */
public final class ListPage implements Format {
    @Override
    public String code() {
        return "list";
    }

    @Override
    public String label() {
        return "HTML, a list to read and print";
    }

    @Override
    public String leavesOut() {
        return "Leaves out attachments, which are only named";
    }

    @Override
    public Set<KindGroup> groups() {
        return EnumSet.complementOf(EnumSet.of(KindGroup.CONTACTS, KindGroup.MESSAGES, KindGroup.CONVERSATIONS));
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return Split.choices(group, Totals.choices(group));
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, (part, folder) -> page(part, chosen, folder));
    }

    private static List<String> texts(List<Cell> cells) {
        return cells.stream().map(Cell::text).toList();
    }

    private static void page(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var columns = Columns.of(batch, chosen);
        var totals = Totals.of(batch, chosen);
        var rows = batch.each(thing -> {
            totals.ifPresent(all -> all.add(thing));
            return texts(Columns.row(columns, thing));
        });
        out.text(
                batch.title(),
                ".html",
                text -> Pages.render(
                        "list.jte",
                        Map.of(
                                "title",
                                Clean.line(batch.title()),
                                "count",
                                batch.count(),
                                "headings",
                                Columns.titles(columns).toList(),
                                "rows",
                                rows,
                                "totalHeadings",
                                totals.map(Totals::headings).orElse(List.of()),
                                "totals",
                                // The rows are read before these are asked for.
                                (Supplier<List<List<String>>>) () -> totals.map(all -> all.rows().stream()
                                                .map(ListPage::texts)
                                                .toList())
                                        .orElse(List.of())),
                        text));
    }
}
