package app.custodex.extract.talk;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pace;
import app.custodex.extract.Redaction;
import app.custodex.extract.pdf.Sources;
import app.custodex.extract.pdf.TextBreaker;
import app.custodex.extract.pdf.Typefaces;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.List;
import java.util.Set;

/** Conversations as PDF files to read, to print, and to rely on: tagged, for the archive (PDF/A-2a). */
public final class TranscriptPdf implements Format {
    private static final Choice EVIDENCE =
            Choice.whether("evidence", "For evidence: a cover, numbers, sources and digests", false);
    private static final Choice PICTURES = Choice.whether("pictures", "With the pictures, made smaller", true);
    private static final Choice FILE_EACH = Choice.whether("file-each", "One file a conversation", true);
    private static final Choice BLACK_OUT =
            Choice.words("black-out", "Black out people, numbers and words, with commas between");

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
        return Set.of(KindGroup.MESSAGES);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return List.of(EVIDENCE, PICTURES, FILE_EACH, BLACK_OUT);
    }

    @Override
    public Pace pace(Chosen chosen) {
        return chosen.is(EVIDENCE) ? Pace.EVIDENCE : Pace.PAPER;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var form = new TranscriptPaper.Form(chosen.is(EVIDENCE), chosen.is(PICTURES));
        var redaction = Redaction.of(chosen.of(BLACK_OUT));
        var talks = Talk.of(batch.saying(thing -> Entry.said(thing, batch, redaction)));
        var sources = new Sources(batch);
        for (var talk : talks) {
            talk.conversation()
                    .ifPresent(conversation -> conversation
                            .members()
                            .forEach(party -> redaction.learn(
                                    party, batch.material().names().of(party, conversation))));
        }
        try (var typefaces = new Typefaces()) {
            var breaker = new TextBreaker(typefaces);
            if (chosen.is(FILE_EACH)) {
                var folder = out.folder(redaction.text(batch.title()));
                for (var talk : talks) {
                    new TranscriptPaper(
                                    talk.messages(), talk.messages().title(), form, redaction, sources, breaker, folder)
                            .write(List.of(talk));
                }
            } else {
                new TranscriptPaper(batch, batch.title(), form, redaction, sources, breaker, out).write(talks);
            }
            breaker.tellMissing(batch);
        }
    }
}
