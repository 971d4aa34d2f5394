package app.custodex.extract.talk;

import app.custodex.extract.Batch;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pages;
import app.custodex.extract.UnreadableException;
import app.custodex.model.Attachment;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Writes what hangs on messages into a folder beside the transcript, each file once. */
final class Attached {
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
        try {
            if (folder.isEmpty()) {
                batch.material().open(attachment.item()).close(); // else an empty folder would stay
                folder = Optional.of(beside.folder("attachments of " + batch.title()));
            }
            var file = batch.original(folder.get(), title, attachment.item());
            return new Line.File(title, Pages.reference(beside.relative(file)), Pages.isPicture(title));
        } catch (UnreadableException e) {
            batch.unreadable(attachment.item(), "so it is only named");
            return new Line.File(title, "", false);
        } catch (IOException e) {
            throw new UncheckedIOException(e); // it is called while lines are made
        }
    }
}
