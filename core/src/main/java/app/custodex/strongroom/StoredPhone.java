package app.custodex.strongroom;

import app.custodex.link.PhoneIdentity;
import java.util.List;

/**
 * A phone's stack of layers.
 *
 * @param layers from the lowest up; never empty
 */
public record StoredPhone(List<LayerRecord> layers) {
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
