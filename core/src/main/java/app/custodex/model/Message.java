package app.custodex.model;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * One message.
 *
 * @param sent by the owner of the phone
 * @param sender absent for the owner's own, and where the phone does not know
 * @param service by which it went, such as "SMS"; may be empty
 * @param replyTo what it answers
 * @param edited when it was last changed
 * @param deleted whether the app says that it was taken back; there may still be text
 */
public record Message(
        ThingId id,
        String account,
        ThingId conversation,
        Optional<Moment> moment,
        boolean sent,
        Optional<Party> sender,
        String text,
        String service,
        State state,
        List<Attachment> attachments,
        Optional<ThingId> replyTo,
        List<Reaction> reactions,
        Optional<Moment> edited,
        boolean deleted)
        implements Thing {
    public Message {
        attachments = List.copyOf(attachments);
        reactions = List.copyOf(reactions);
    }

    /** How far a message came. */
    public enum State {
        UNKNOWN,
        FAILED,
        SENT,
        DELIVERED,
        READ
    }

    /** @param who absent for the owner of the phone */
    public record Reaction(Optional<Party> who, String sign) {}

    @Override
    public ThingKind kind() {
        return ThingKind.MESSAGE;
    }

    @Override
    public List<Party> people() {
        return sender.stream().toList();
    }

    @Override
    public String title() {
        if (!text.isBlank()) {
            return text.lines().findFirst().orElse("");
        }
        return attachments.isEmpty()
                ? deleted ? "(taken back)" : "(no text)"
                : attachments.getFirst().title();
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(text);
        attachments.forEach(attachment -> {
            to.accept(attachment.name());
            to.accept(attachment.item());
            to.accept(attachment.type());
        });
    }

    @Override
    public Optional<ThingId> within() {
        return Optional.of(conversation);
    }

    @Override
    public Optional<Boolean> outgoing() {
        return Optional.of(sent);
    }
}
