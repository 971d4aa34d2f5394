package app.custodex.model;

import java.util.Optional;
import java.util.function.Consumer;

/** A page on the web that was looked at. */
public record PageVisit(ThingId id, String account, String title, String address, Optional<Moment> moment)
        implements Thing {
    @Override
    public ThingKind kind() {
        return ThingKind.VISIT;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(address);
    }
}
