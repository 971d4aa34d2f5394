package app.custodex.strongroom;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.seal.StackKey;
import java.io.IOException;
import java.util.Optional;

/** One phone's stack of layers, as far as sealing goes: the names of its stored files and the key to them. */
record Stack(String name, Seals seals) {
    private static final String SEALED_ENDING = ".age";

    boolean sealed() {
        return seals.sealed(name);
    }

    /** Empty when the stack is not sealed, or its key was not opened. */
    Optional<StackKey> key() {
        return seals.key(name);
    }

    /** Whether its content can be read now. */
    boolean open() {
        return !sealed() || key().isPresent();
    }

    void requireOpen(String phone) throws ProblemException {
        if (!open()) {
            throw locked(phone);
        }
    }

    static ProblemException locked(String phone) {
        return new ProblemException(
                Problem.failure(phone, "Its layers are sealed", "Enter the passphrase that it was sealed with"));
    }

    /** What a file of the layer is called where it is stored. */
    String stored(String plainName) {
        return sealed() ? plainName + SEALED_ENDING : plainName;
    }

    /** Puts a layer's label where it can be read without the passphrase. */
    void label(LayerRecord record) throws IOException {
        if (sealed()) {
            seals.label(name, record);
        }
    }
}
