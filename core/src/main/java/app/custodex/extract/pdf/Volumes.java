package app.custodex.extract.pdf;

import app.custodex.base.Digests;
import app.custodex.extract.Clean;
import app.custodex.extract.Origin;
import app.custodex.extract.OutFolder;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Writes one document, and further ones when it grows larger than readers can bear. */
public final class Volumes implements Closeable {
    private static final int MOST_THINGS = 20_000;
    private static final long MOST_PICTURES = 150L << 20;

    private final OutFolder out;
    private final String title;
    private final boolean wide;
    private final Origin origin;
    private final TextBreaker breaker;
    private final Finish finish;
    private final List<Written> written = new ArrayList<>();
    private Optional<PaperDocument> open = Optional.empty();
    private int things;

    /** Ends a document, such as with its cover. */
    public interface Finish {
        void end(PaperDocument document) throws IOException;
    }

    /** A document that is complete. */
    public record Written(Path file, String sha512) {}

    /**
     * @param title of the documents, and so of their files
     * @param wide whether their longer side lies below
     */
    public Volumes(OutFolder out, String title, boolean wide, Origin origin, TextBreaker breaker, Finish finish) {
        this.out = out;
        this.title = Clean.line(title);
        this.wide = wide;
        this.origin = origin;
        this.breaker = breaker;
        this.finish = finish;
    }

    /** The document into which the next thing is written. */
    public PaperDocument current() {
        if (open.isEmpty()) {
            open = Optional.of(new PaperDocument(breaker, name(), wide));
        }
        return open.get();
    }

    private String name() {
        return written.isEmpty() ? title : title + ", part " + (written.size() + 1);
    }

    /** One more thing stands in the document; it is ended when it is full. */
    public void added() throws IOException {
        added(1);
    }

    /** Several more things stand in it. */
    public void added(int more) throws IOException {
        things += more;
        if (things >= MOST_THINGS || current().pictureBytes() > MOST_PICTURES) {
            end();
        }
    }

    /** Whether the document that is open has nothing in it yet. */
    public boolean begins() {
        return things == 0;
    }

    /** Ends the last document, if one is open. */
    public List<Written> end() throws IOException {
        if (open.isPresent()) {
            try (var document = open.get()) {
                finish.end(document);
                var digest = Digests.sha512();
                var file = out.file(
                        name(),
                        ".pdf",
                        to -> document.save(new DigestOutputStream(to, digest), origin.tool(), origin.written()));
                written.add(new Written(file, Digests.hex(digest)));
            }
            open = Optional.empty();
            things = 0;
        }
        return List.copyOf(written);
    }

    @Override
    public void close() throws IOException {
        if (open.isPresent()) {
            open.get().close();
        }
    }
}
