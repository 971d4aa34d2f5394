package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.Origin.Fact;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pace;
import app.custodex.extract.Split;
import app.custodex.extract.pdf.Cover;
import app.custodex.extract.pdf.Ink;
import app.custodex.extract.pdf.PaperDocument;
import app.custodex.extract.pdf.Sources;
import app.custodex.extract.pdf.TextBreaker;
import app.custodex.extract.pdf.Typefaces;
import app.custodex.extract.pdf.Volumes;
import app.custodex.model.KindGroup;
import app.custodex.model.Thing;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** Anything but contacts, conversations and notes as a table on paper; those have forms of their own. */
public final class ListPdf implements Format {
    private static final Choice EVIDENCE =
            Choice.whether("evidence", "For evidence: a cover, numbers, sources and digests", false);

    @Override
    public String code() {
        return "pdf";
    }

    @Override
    public String label() {
        return "PDF, a table to read, print and rely on (PDF/A)";
    }

    @Override
    public String leavesOut() {
        return "Leaves out attachments, which are only named";
    }

    @Override
    public Set<KindGroup> groups() {
        return EnumSet.complementOf(
                EnumSet.of(KindGroup.CONTACTS, KindGroup.MESSAGES, KindGroup.CONVERSATIONS, KindGroup.NOTES));
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        var more = new ArrayList<>(Totals.choices(group));
        more.add(EVIDENCE);
        return Split.choices(group, more);
    }

    @Override
    public Pace pace(Chosen chosen) {
        return chosen.is(EVIDENCE) ? Pace.EVIDENCE : Pace.PAPER;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, (part, folder) -> paper(part, chosen, folder));
    }

    private static void paper(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var totals = Totals.of(batch, chosen);
        boolean evidence = chosen.is(EVIDENCE);
        var columns = new PaperColumns(batch, evidence);
        var sources = new Sources(batch);
        try (var typefaces = new Typefaces()) {
            var breaker = new TextBreaker(typefaces);
            try (var volumes =
                    new Volumes(out, batch.title(), true, batch.material().origin(), breaker, paper -> {
                        if (paper.isIn("Table")) {
                            paper.close("Table");
                        }
                        if (evidence) {
                            cover(batch, sources).write(paper);
                        }
                    })) {
                var widths = new double[0];
                for (var row : batch.each(thing -> new Row(thing, columns.cells(thing)))) {
                    var paper = volumes.current();
                    if (volumes.begins()) {
                        widths = columns.widths(paper.width());
                        paper.head(batch);
                        paper.open("Table");
                        paper.headings(columns.headings(), widths);
                    }
                    paper.row("TD", Ink.CELL, row.cells(), widths);
                    sources.add(row.thing());
                    totals.ifPresent(all -> all.add(row.thing()));
                    volumes.added();
                }
                if (totals.isPresent()) {
                    table(volumes.current(), totals.get());
                }
                var written = volumes.end();
                if (evidence) {
                    sources.writeBeside(out, batch.title(), written, item -> item);
                }
            }
            breaker.tellMissing(batch);
        }
    }

    private static void table(PaperDocument paper, Totals totals) throws IOException {
        if (paper.isIn("Table")) {
            paper.close("Table");
        }
        paper.gap(12);
        paper.write("H2", Ink.HEADING, Totals.TITLE);
        paper.open("Table");
        var headings = totals.headings();
        var widths = new double[headings.size()];
        Arrays.fill(widths, paper.width() / (headings.size() + 2));
        widths[0] *= 2;
        widths[1] *= 2;
        paper.headings(headings, widths);
        for (var row : totals.rows()) {
            paper.row(
                    "TD",
                    Ink.CELL,
                    row.stream().map(cell -> Clean.text(cell.text())).toList(),
                    widths);
        }
    }

    private record Row(Thing thing, List<String> cells) {}

    private static Cover cover(Batch batch, Sources sources) throws IOException {
        var about = new ArrayList<Fact>();
        about.add(new Fact(batch.group().label(), batch.count() + " chosen, each with its number"));
        return new Cover(
                batch, batch.title(), "A list, as it was read from a phone.", about, List.of(), sources, item -> item);
    }
}
