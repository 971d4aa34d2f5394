package app.custodex.extract.calendars;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.Origin.Fact;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pace;
import app.custodex.extract.ZoneText;
import app.custodex.extract.pdf.Cover;
import app.custodex.extract.pdf.Ink;
import app.custodex.extract.pdf.PaperDocument;
import app.custodex.extract.pdf.PaperPictures;
import app.custodex.extract.pdf.Sources;
import app.custodex.extract.pdf.TextBreaker;
import app.custodex.extract.pdf.Typefaces;
import app.custodex.extract.pdf.Volumes;
import app.custodex.model.KindGroup;
import app.custodex.model.Note;
import app.custodex.model.Thing;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Notes on paper, with their pictures. */
public final class NotePdf implements Format {
    private static final Choice EVIDENCE =
            Choice.whether("evidence", "For evidence: a cover, numbers, sources and digests", false);
    private static final double PICTURE_HEIGHT = 320;

    @Override
    public String code() {
        return "pdf";
    }

    @Override
    public String label() {
        return "PDF, to read, print and rely on (PDF/A)";
    }

    @Override
    public String leavesOut() {
        return "Shows pictures smaller than they are, and only names other attachments";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.NOTES);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return List.of(EVIDENCE);
    }

    @Override
    public Pace pace(Chosen chosen) {
        return chosen.is(EVIDENCE) ? Pace.EVIDENCE : Pace.PAPER;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        boolean evidence = chosen.is(EVIDENCE);
        var sources = new Sources(batch);
        try (var typefaces = new Typefaces()) {
            var breaker = new TextBreaker(typefaces);
            try (var volumes =
                    new Volumes(out, batch.title(), false, batch.material().origin(), breaker, paper -> {
                        if (evidence) {
                            var about = new Fact("Notes", batch.count() + " chosen, each with its number");
                            new Cover(
                                            batch,
                                            batch.title(),
                                            "Notes, as they were read from a phone.",
                                            List.of(about),
                                            List.of(),
                                            sources,
                                            item -> item)
                                    .write(paper);
                        }
                    })) {
                var pictures = new PaperPictures(batch);
                int number = 0;
                for (var thing : batch.each(thing -> thing)) {
                    number++;
                    if (volumes.begins()) {
                        pictures = new PaperPictures(batch);
                    }
                    write(volumes.current(), thing, batch, evidence ? number + " of " + batch.count() : "", pictures);
                    if (evidence) {
                        source(volumes.current(), thing, sources);
                    }
                    volumes.added();
                }
                var written = volumes.end();
                if (evidence) {
                    sources.writeBeside(out, batch.title(), written, item -> item);
                }
            }
            breaker.tellMissing(batch);
        }
    }

    private static void write(PaperDocument paper, Thing thing, Batch batch, String number, PaperPictures pictures)
            throws IOException {
        var zone = batch.material().zone();
        var time =
                thing.moment().map(at -> ZoneText.time(at.instant(zone), zone)).orElse("no time");
        var folder = thing instanceof Note note ? note.folder() : "";
        paper.need(70);
        paper.gap(8);
        paper.write("H1", Ink.HEADING, thing.title().isBlank() ? "(no title)" : Clean.line(thing.title()));
        paper.write(
                "P",
                Ink.LESSER,
                Clean.line(
                        (number.isEmpty() ? "" : number + " · ") + time + (folder.isBlank() ? "" : " · in " + folder)));
        paper.gap(3);
        if (thing instanceof Note note && !note.text().isBlank()) {
            paper.write("P", Ink.TEXT, note.text());
        }
        for (var attachment : thing.attachments()) {
            var name = Clean.line(attachment.title());
            var picture = attachment.there()
                    ? pictures.of(paper, attachment.item())
                    : Optional.<PaperDocument.Picture>empty();
            if (picture.isPresent()) {
                paper.show(picture.get(), name, 0, paper.width(), PICTURE_HEIGHT);
            } else {
                batch.leftOut("attachments, which are named only");
            }
            paper.write("P", Ink.LESSER, "Attachment: " + name);
        }
    }

    private static void source(PaperDocument paper, Thing thing, Sources sources) throws IOException {
        sources.add(thing);
        paper.write("P", Ink.LESSER, "Source: " + Clean.line(thing.id().text()));
        for (var attachment : thing.attachments()) {
            paper.write(
                    "P",
                    Ink.LESSER,
                    Clean.line(attachment.title()) + ", SHA-512: "
                            + (attachment.there()
                                    ? sources.digest(attachment.item()).orElse("can't be read")
                                    : "the phone no longer has it"));
        }
    }
}
