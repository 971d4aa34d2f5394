package app.custodex.extract.pdf;

import app.custodex.extract.Batch;
import app.custodex.extract.Clean;
import app.custodex.extract.Origin.Fact;
import app.custodex.extract.ZoneText;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * The first page of what somebody has to rely on: where it comes from, what is in it and what is not, and the digests of the files that it
 * was read from.
 *
 * @param about what it says of its content
 * @param notIn what is not in it, but for what the batch has counted
 * @param open gives a text without what was blacked out
 */
public record Cover(
        Batch batch,
        String title,
        String what,
        List<Fact> about,
        List<Fact> notIn,
        Sources sources,
        UnaryOperator<String> open) {
    private static final double LABELS = 110;

    /** Puts it before everything else. */
    public void write(PaperDocument paper) throws IOException {
        paper.front();
        paper.open("Sect");
        paper.write("H1", Ink.TITLE, Clean.line(title));
        paper.write("P", Ink.TEXT, what);
        paper.gap(10);
        var facts = new ArrayList<Fact>();
        batch.material().origin().facts().forEach(fact -> facts.add(new Fact(fact.label(), open.apply(fact.value()))));
        facts.add(
                new Fact("Times", "in " + ZoneText.of(batch.material().zone()) + ", each with its distance from UTC"));
        table(paper, "Where it comes from", facts);
        table(paper, "What is in it", about);
        var left = new ArrayList<>(notIn);
        batch.leftOutSoFar().forEach(line -> left.add(new Fact("Left out", line)));
        table(paper, "What is not in it", left.isEmpty() ? List.of(new Fact("Left out", "nothing")) : left);
        var digests = new ArrayList<Fact>();
        sources.read()
                .forEach((item, digest) ->
                        digests.add(new Fact(open.apply(item), digest.orElse("can't be read, so it has no digest"))));
        table(paper, "Digests of the files that it was read from (SHA-512)", digests);
        paper.close("Sect");
    }

    private static void table(PaperDocument paper, String heading, List<Fact> facts) throws IOException {
        paper.gap(8);
        paper.need(60);
        paper.write("H2", Ink.HEADING, heading);
        paper.open("Table");
        for (var fact : facts) {
            paper.row("TD", Ink.TEXT, List.of(Clean.line(fact.label()), Clean.line(fact.value())), new double[] {
                LABELS, paper.width() - LABELS
            });
        }
        paper.close("Table");
    }
}
