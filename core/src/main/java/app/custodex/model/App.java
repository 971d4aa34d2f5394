package app.custodex.model;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * A program on the phone.
 *
 * @param title its name
 * @param version as it calls itself; may be empty
 * @param bytes of the program and its data on the phone; zero when the phone does not say
 * @param dataThere whether its data is in the layer
 */
public record App(
        ThingId id,
        String account,
        String title,
        String version,
        long bytes,
        boolean dataThere,
        Optional<Moment> moment)
        implements Thing {
    @Override
    public ThingKind kind() {
        return ThingKind.APP;
    }

    @Override
    public List<Party> people() {
        return List.of();
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(id.item());
    }
}
