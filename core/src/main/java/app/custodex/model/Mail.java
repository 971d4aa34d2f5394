package app.custodex.model;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * An electronic mail (RFC 5322).
 *
 * @param title its subject; may be empty
 * @param moment when it was written, in the zone it was written in
 * @param text as plain text
 * @param attachments whose item is the file that the mail lies in
 */
public record Mail(
        ThingId id,
        String account,
        String title,
        Optional<Party> sender,
        List<Party> receivers,
        Optional<Moment> moment,
        String text,
        List<Attachment> attachments)
        implements Thing {
    public Mail {
        receivers = List.copyOf(receivers);
        attachments = List.copyOf(attachments);
    }

    @Override
    public ThingKind kind() {
        return ThingKind.MAIL;
    }

    @Override
    public List<Party> people() {
        return Stream.concat(sender.stream(), receivers.stream()).toList();
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(text);
        attachments.forEach(attachment -> to.accept(attachment.name()));
    }
}
