package app.custodex.strongroom;

import app.custodex.link.PhoneIdentity;
import java.util.List;

/**
 * A phone's stack of layers.
 *
 * @param layers from the lowest up; never empty
 */
public record StoredPhone(List<LayerRecord> layers, Seal seal) {
    /** Whether the stack is sealed. */
    public enum Seal {
        NONE,
        /** Sealed; its content can't be read without the passphrase. */
        CLOSED,
        /** Sealed; the passphrase was given in this run of the program. */
        OPENED
    }

    public StoredPhone {
        layers = List.copyOf(layers);
    }

    public LayerRecord newest() {
        return layers.getLast();
    }

    /** As the phone described itself last. */
    public PhoneIdentity identity() {
        return newest().phone();
    }

    /** Bytes that all layers together store. */
    public long storedBytes() {
        return layers.stream().mapToLong(LayerRecord::freshBytes).sum();
    }
}
