package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pages;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;

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
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var columns = Columns.of(batch);
        var rows = batch.each(
                thing -> Columns.row(columns, thing).stream().map(Cell::text).toList());
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
                                rows),
                        text));
    }
}
