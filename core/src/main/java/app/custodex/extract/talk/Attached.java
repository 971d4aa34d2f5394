package app.custodex.extract.talk;

import app.custodex.base.Problem;
import app.custodex.extract.Batch;
import app.custodex.extract.OutFolder;
import app.custodex.extract.UnreadableException;
import app.custodex.model.Attachment;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Writes what hangs on messages into a folder beside the transcript, each file once. */
final class Attached {
    private static final Set<String> SHOWN = Set.of("jpg", "jpeg", "png", "gif", "webp");

    private final Batch batch;
    private final OutFolder beside;
    private final Map<String, Line.File> written = new HashMap<>();
    private Optional<OutFolder> folder = Optional.empty();

    /** @param beside the folder in which the transcript lies */
    Attached(Batch batch, OutFolder beside) {
        this.batch = batch;
        this.beside = beside;
    }

    /** Writes one, unless it was written already. */
    Line.File put(Attachment attachment) {
        if (!attachment.there()) {
            batch.leftOut("attachments that the phone no longer has");
            return new Line.File(attachment.title(), "", false);
        }
        return written.computeIfAbsent(attachment.item(), item -> write(attachment));
    }

    /** Only names it. */
    Line.File name(Attachment attachment) {
        batch.leftOut("attachments, which are named only");
        return new Line.File(attachment.title(), "", false);
    }

    private Line.File write(Attachment attachment) {
        var title = attachment.title();
        var ending = title.substring(title.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        try (var content = batch.material().open(attachment.item())) {
            if (folder.isEmpty()) {
                folder = Optional.of(beside.folder("attachments of " + batch.title()));
            }
            var file = folder.get().original(title, content, batch.material().modified(attachment.item()));
            return new Line.File(title, reference(beside.relative(file)), SHOWN.contains(ending));
        } catch (UnreadableException e) {
            batch.problem(Problem.loss(
                    attachment.item(),
                    "It can't be read, so it is only named",
                    "Check the layer; look into an older one"));
            return new Line.File(title, "", false);
        } catch (IOException e) {
            throw new UncheckedIOException(e); // it is called while lines are made
        }
    }

    private static String reference(String path) {
        try {
            return new URI(null, null, path, null).toASCIIString().replace("?", "%3F");
        } catch (URISyntaxException e) {
            throw new IllegalArgumentException(e);
        }
    }
}
