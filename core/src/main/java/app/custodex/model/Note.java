package app.custodex.model;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * A note.
 *
 * @param folder in which it lies; may be empty
 * @param text with the marks of Markdown (CommonMark), where the phone keeps them
 * @param moment when it was last changed
 * @param made when it was begun, where the phone keeps that
 */
public record Note(
        ThingId id,
        String account,
        String folder,
        String title,
        String text,
        Optional<Moment> moment,
        List<Attachment> attachments,
        Optional<Moment> made)
        implements Thing {
    public Note {
        attachments = List.copyOf(attachments);
    }

    /** One of which nobody knows when it was made. */
    public Note(
            ThingId id,
            String account,
            String folder,
            String title,
            String text,
            Optional<Moment> moment,
            List<Attachment> attachments) {
        this(id, account, folder, title, text, moment, attachments, Optional.empty());
    }

    @Override
    public ThingKind kind() {
        return ThingKind.NOTE;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(text);
        to.accept(folder);
        attachments.forEach(attachment -> to.accept(attachment.title()));
    }
}
