package app.custodex.strongroom;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhoneIdentity;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * A phone's stack of layers.
 *
 * @param layers from the lowest up; never empty
 * @param problems with the files that the layers need to be opened
 */
public record StoredPhone(List<LayerRecord> layers, Seal seal, List<Problem> problems) {
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
        problems = List.copyOf(problems);
    }

    public LayerRecord newest() {
        return layers.getLast();
    }

    /** The newest layer that holds anything of a kind. */
    public Optional<LayerRecord> newestWith(Kind kind) {
        return layers.stream()
                .filter(layer -> layer.kinds().stream().anyMatch(of -> of.kind() == kind && of.items() > of.missed()))
                .max(Comparator.comparingInt(LayerRecord::number));
    }

    /** As the phone described itself last, as far as that can be read. */
    public PhoneIdentity identity() {
        return layers.reversed().stream()
                .filter(layer -> !StackFrame.isUnknown(layer))
                .findFirst()
                .orElse(newest())
                .phone();
    }

    /** Bytes that all layers together store. */
    public long storedBytes() {
        return layers.stream().mapToLong(LayerRecord::freshBytes).sum();
    }
}
