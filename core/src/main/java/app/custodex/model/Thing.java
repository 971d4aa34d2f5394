package app.custodex.model;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** Something in a phone that is worth reading. */
public sealed interface Thing
        permits Contact,
                Conversation,
                Message,
                Mail,
                Playlist,
                Album,
                Alarm,
                App,
                Call,
                Voicemail,
                Event,
                Task,
                Note,
                Bookmark,
                PageVisit,
                MediaFile {
    ThingId id();

    ThingKind kind();

    /** The account or app that it belongs to; empty for the phone's own. */
    String account();

    /** When it was; absent for what has no time of its own. */
    default Optional<Moment> moment() {
        return Optional.empty();
    }

    /** Everybody in it, its owner excepted. */
    default List<Party> people() {
        return List.of();
    }

    /** One line that tells it from others of its kind. */
    String title();

    /** Gives every text in it by which somebody would look for it. */
    void texts(Consumer<String> to);

    /** What hangs on it. */
    default List<Attachment> attachments() {
        return List.of();
    }

    /** The conversation that it is part of. */
    default Optional<ThingId> within() {
        return Optional.empty();
    }

    /** The size of its own file; 0 for what has none, or when that is not known. */
    default long bytes() {
        return 0;
    }

    /** Whether the owner of the phone sent or made it, rather than somebody else; absent where that means nothing. */
    default Optional<Boolean> outgoing() {
        return Optional.empty();
    }
}
