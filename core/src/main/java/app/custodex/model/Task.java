package app.custodex.model;

import java.util.Optional;
import java.util.function.Consumer;

/**
 * Something to be done.
 *
 * @param moment by when
 * @param done when it was; absent while it is not
 */
public record Task(
        ThingId id,
        String account,
        String calendar,
        String uid,
        String title,
        String description,
        Optional<Moment> moment,
        Optional<Moment> done)
        implements Thing {
    @Override
    public ThingKind kind() {
        return ThingKind.TASK;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(description);
        to.accept(calendar);
    }
}
