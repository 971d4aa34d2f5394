package app.custodex.model;

import java.util.Optional;
import java.util.function.Consumer;

/**
 * An app that is installed on the phone.
 *
 * @param title the name under which its owner knows it
 * @param identifier by which the system knows it
 * @param bytes that the app itself takes; 0 when the phone does not say
 * @param installed when it was put on the phone
 * @param data what became of the data that it keeps
 * @param folder in which that lies on the phone; empty when it keeps none, or the phone does not say
 */
public record App(
        ThingId id,
        String account,
        String title,
        String identifier,
        String version,
        long bytes,
        Optional<Moment> installed,
        Data data,
        String folder)
        implements Thing {
    /** Where an app's own data is. */
    public enum Data {
        NONE("keeps no data of its own"),
        HERE("its data came along"),
        NOT_HERE("its data did not come along: the phone did not give it, or it was not asked for");

        private final String label;

        Data(String label) {
            this.label = label;
        }

        /** The words shown to people. */
        public String label() {
            return label;
        }
    }

    @Override
    public ThingKind kind() {
        return ThingKind.APP;
    }

    @Override
    public Optional<Moment> moment() {
        return installed;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(identifier);
    }
}
