package app.custodex.extract.originals;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Choice.Value;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pace;
import app.custodex.extract.pdf.PaperDocument.Captioned;
import app.custodex.extract.pdf.PaperDocument.Picture;
import app.custodex.extract.pdf.PaperPictures;
import app.custodex.extract.pdf.TextBreaker;
import app.custodex.extract.pdf.Typefaces;
import app.custodex.extract.pdf.Volumes;
import app.custodex.model.KindGroup;
import app.custodex.model.Thing;
import java.io.IOException;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** All pictures and the first frames of videos, small, side by side on paper. */
public final class ContactSheet implements Format {
    private static final Choice COLUMNS =
            Choice.one("columns", "In a row", new Value("4", "four"), new Value("3", "three"), new Value("6", "six"));
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm", Locale.ROOT);

    @Override
    public String code() {
        return "contact-sheet";
    }

    @Override
    public String label() {
        return "PDF, a contact sheet (PDF/A)";
    }

    @Override
    public String leavesOut() {
        return "Shows pictures smaller than they are, and of videos the first frame";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.PICTURES);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return List.of(COLUMNS);
    }

    @Override
    public Pace pace(Chosen chosen) {
        return Pace.OVERVIEW;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        int columns = Integer.parseInt(chosen.of(COLUMNS));
        try (var typefaces = new Typefaces()) {
            var breaker = new TextBreaker(typefaces);
            try (var volumes =
                    new Volumes(out, batch.title(), false, batch.material().origin(), breaker, paper -> {})) {
                var row = new ArrayList<Captioned>();
                var pictures = new PaperPictures(batch);
                for (var thing : batch.each(thing -> thing)) {
                    var paper = volumes.current();
                    if (volumes.begins() && row.isEmpty()) {
                        pictures = new PaperPictures(batch);
                        paper.head(batch);
                    }
                    Optional<Picture> picture =
                            thing.bytes() > 0 ? pictures.of(paper, thing.id().item()) : Optional.empty();
                    if (picture.isEmpty()) {
                        batch.leftOut("pictures that can't be shown, which are named only");
                    }
                    row.add(new Captioned(picture, caption(thing, batch)));
                    if (row.size() == columns) {
                        paper.row(row, columns, paper.width() / columns * 0.75);
                        row.clear();
                        volumes.added(columns);
                    }
                }
                if (!row.isEmpty()) {
                    volumes.current().row(row, columns, volumes.current().width() / columns * 0.75);
                }
                volumes.end();
            }
            breaker.tellMissing(batch);
        }
    }

    private static String caption(Thing thing, Batch batch) {
        var zone = batch.material().zone();
        var time = thing.moment()
                .map(at -> TIME.format(LocalDateTime.ofInstant(at.instant(zone), zone)))
                .orElse("no time");
        return Clean.line(thing.title()) + "\n" + time;
    }
}
