package app.custodex.extract.talk;

import app.custodex.extract.Batch;
import app.custodex.extract.Clean;
import app.custodex.extract.Origin.Fact;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Redaction;
import app.custodex.extract.ZoneText;
import app.custodex.extract.pdf.Cover;
import app.custodex.extract.pdf.Ink;
import app.custodex.extract.pdf.PaperDocument;
import app.custodex.extract.pdf.PaperPictures;
import app.custodex.extract.pdf.Sources;
import app.custodex.extract.pdf.TextBreaker;
import app.custodex.extract.pdf.Volumes;
import app.custodex.model.Attachment;
import app.custodex.model.Moment;
import java.io.IOException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/** Lays conversations out on paper. */
final class TranscriptPaper {
    /** How far in the owner's messages stand, and where those of others end. */
    private static final double ASIDE = 110;

    private static final double PICTURE_WIDTH = 230;
    private static final double PICTURE_HEIGHT = 190;
    /** A message is begun on a page only if so much of it fits. */
    private static final double BEGINNING = 44;

    private static final DateTimeFormatter WEEKDAY = DateTimeFormatter.ofPattern("EEEE, uuuu-MM-dd", Locale.UK);

    private final Batch batch;
    private final String title;
    private final Form form;
    private final Redaction redaction;
    private final OutFolder out;
    private final Volumes volumes;
    private final Sources sources;
    private final int all;
    private final List<Fact> about = new ArrayList<>();
    private PaperPictures pictures;
    private String day = "";
    private int number;

    /**
     * How a transcript is to be.
     *
     * @param evidence whether somebody has to rely on it: with a cover, numbers, sources and digests
     * @param pictures whether pictures are shown
     */
    record Form(boolean evidence, boolean pictures) {}

    TranscriptPaper(
            Batch batch,
            String title,
            Form form,
            Redaction redaction,
            Sources read,
            TextBreaker breaker,
            OutFolder out) {
        this.batch = batch;
        this.title = redaction.text(title);
        this.form = form;
        this.redaction = redaction;
        this.out = out;
        sources = read.ofDocument(batch);
        all = batch.count();
        volumes = new Volumes(out, fileTitle(), false, batch.material().origin(), breaker, this::finish);
        pictures = new PaperPictures(batch);
    }

    /** On every page, and the name of the file. */
    private String fileTitle() {
        var docket = batch.material().origin().docket();
        return form.evidence() && !docket.isEmpty() ? title + ", docket " + docket : title;
    }

    void write(List<Talk> talks) throws IOException {
        try (volumes) {
            for (var talk : talks) {
                about(talk);
                boolean first = true;
                day = "";
                for (var entry : talk.messages().each(thing -> Entry.of(thing, talk.messages(), redaction))) {
                    if (first || volumes.begins()) {
                        head(talk);
                        first = false;
                    }
                    write(entry);
                    volumes.added();
                    if (volumes.begins()) {
                        pictures = new PaperPictures(batch);
                    }
                }
            }
            var written = volumes.end();
            if (form.evidence()) {
                sources.writeBeside(out, fileTitle(), written, redaction::text);
            }
        }
    }

    /** Collects what the cover says of a conversation. */
    private void about(Talk talk) throws IOException {
        var messages = talk.messages();
        about.add(new Fact("Conversation", redaction.text(messages.title())));
        if (talk.conversation().isPresent()) {
            var conversation = talk.conversation().get();
            if (!conversation.service().isBlank()) {
                about.add(new Fact("Service", conversation.service()));
            }
            about.add(new Fact(
                    "Members",
                    "the owner of the phone; "
                            + TranscriptPage.members(talk).stream()
                                    .map(member -> redaction.text(member.inOne()))
                                    .collect(Collectors.joining("; "))));
            int there = batch.material().catalogue().within(conversation.id()).length;
            int left = there - messages.count();
            about.add(new Fact(
                    "Messages",
                    left == 0
                            ? "all " + there + " that the phone holds of it"
                            : messages.count() + " of " + there + "; " + left + " were not chosen"));
        } else {
            about.add(new Fact("Messages", Integer.toString(messages.count())));
        }
        range(messages).ifPresent(range -> about.add(new Fact("Range", range)));
    }

    private Optional<String> range(Batch messages) {
        Optional<Moment> first = Optional.empty();
        Optional<Moment> last = Optional.empty();
        for (var thing : messages.look()) {
            if (thing.moment().isPresent()) {
                first = first.or(thing::moment);
                last = thing.moment();
            }
        }
        var zone = batch.material().zone();
        return first.isEmpty()
                ? Optional.empty()
                : Optional.of(ZoneText.time(first.get().instant(zone), zone) + " to "
                        + ZoneText.time(last.orElseThrow().instant(zone), zone));
    }

    private void head(Talk talk) throws IOException {
        var paper = volumes.current();
        var messages = talk.messages();
        paper.need(4 * BEGINNING);
        paper.write("H1", Ink.TITLE, Clean.line(redaction.text(messages.title())));
        paper.open("P");
        paper.write(
                Ink.LESSER,
                0,
                0,
                messages.count() + (messages.count() == 1 ? " message" : " messages") + " from "
                        + Clean.line(redaction.text(batch.material().phone())) + ". Times in "
                        + ZoneText.of(batch.material().zone()) + ".");
        for (var member : TranscriptPage.members(talk)) {
            paper.write(Ink.LESSER, 0, 0, Clean.line(redaction.text(member.inOne())));
        }
        paper.close("P");
        paper.gap(4);
    }

    private void write(Entry entry) throws IOException {
        var paper = volumes.current();
        var line = entry.line();
        if (!line.day().equals(day)) {
            day = line.day();
            paper.gap(6);
            paper.need(2 * BEGINNING);
            paper.rule();
            paper.write("H2", Ink.HEADING, dayWords(day));
        }
        number++;
        double indent = line.sent() && !form.evidence() ? ASIDE : 0;
        double right = form.evidence() || line.sent() ? 0 : ASIDE;
        paper.need(BEGINNING);
        paper.gap(4);
        paper.open("P");
        paper.write(
                Ink.STRONG,
                Ink.LESSER,
                indent,
                right,
                Clean.line(line.who()),
                entry.when(form.evidence(), number, all));
        if (!line.subject().isBlank()) {
            paper.write(Ink.STRONG, indent, right, Clean.line(line.subject()));
        }
        if (!line.text().isBlank()) {
            paper.write(Ink.TEXT, indent, right, line.text());
        }
        if (!line.marks().isEmpty()) {
            paper.write(Ink.LESSER, indent, right, Clean.line(String.join(" · ", line.marks())));
        }
        paper.close("P");
        for (var attachment : entry.files()) {
            attachment(paper, attachment, indent, right);
        }
        if (form.evidence()) {
            sources.add(entry.thing());
            paper.open("P");
            paper.write(
                    Ink.LESSER,
                    indent,
                    right,
                    "Source: " + Clean.line(redaction.text(entry.thing().id().text())));
            paper.close("P");
        }
    }

    private static String dayWords(String day) {
        try {
            return day.isEmpty() ? "Without a time" : WEEKDAY.format(LocalDate.parse(day));
        } catch (DateTimeParseException farAway) {
            return day;
        }
    }

    private void attachment(PaperDocument paper, Attachment attachment, double indent, double right)
            throws IOException {
        var name = Clean.line(redaction.text(attachment.title()));
        boolean shown = false;
        if (form.pictures() && attachment.there()) {
            var picture = pictures.of(paper, attachment.item());
            if (picture.isPresent()) {
                paper.show(picture.get(), "Attachment " + name, indent, PICTURE_WIDTH, PICTURE_HEIGHT);
                shown = true;
            }
        }
        if (!shown) {
            batch.leftOut(
                    attachment.there()
                            ? "attachments, which are named only"
                            : "attachments that the phone no longer has");
        }
        paper.open("P");
        var words = "Attachment: " + name;
        if (form.evidence()) {
            words += attachment.there()
                    ? "\nSHA-512: " + sources.digest(attachment.item()).orElse("can't be read")
                    : "\nThe phone no longer has it.";
        }
        paper.write(Ink.LESSER, indent, right, words);
        paper.close("P");
    }

    private void finish(PaperDocument paper) throws IOException {
        if (form.evidence()) {
            int places = redaction.places();
            var notIn = places == 0
                    ? List.<Fact>of()
                    : List.of(new Fact(
                            "Blacked out",
                            places + (places == 1 ? " place" : " places") + " that somebody chose: " + Redaction.BLACK
                                    + " stands there, and nothing is left under it"));
            new Cover(
                            batch,
                            title,
                            "Transcript of messages, as they were read from a phone.",
                            about,
                            notIn,
                            sources,
                            redaction::text)
                    .write(paper);
        }
    }
}
