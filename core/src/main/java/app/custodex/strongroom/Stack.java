package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.seal.StackKey;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;

/**
 * One phone's stack of layers: where everything of it lies, whether it is sealed, and the key to it.
 *
 * @param name of its object's folder
 * @param root of the strongroom
 * @param knownSealed whether it is remembered elsewhere that it is sealed
 */
record Stack(String name, Path root, ObjectFolder object, Seals seals, SecondCopies copies, boolean knownSealed) {
    private static final String SEALED_ENDING = ".age";

    static Stack of(String name, Path root, Path objectFolder, Seals seals, Disk disk, boolean knownSealed) {
        return new Stack(
                name,
                root,
                new ObjectFolder(objectFolder, disk),
                seals,
                new SecondCopies(root.resolve(SecondCopies.FOLDER).resolve(name), disk),
                knownSealed);
    }

    /** Where unfinished work on it lies. */
    Path work() {
        return root.resolve("work").resolve(name);
    }

    /**
     * Whether it is sealed, which it is once anything says so: a stack that was sealed is never written in the clear, whatever has
     * become of its key.
     */
    boolean sealed() {
        return knownSealed
                || seals.sealed(name)
                || copies.has(Seals.KEY)
                || Files.exists(object.version(1).resolve("content").resolve(Strongroom.RECORD + SEALED_ENDING));
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

    /** The name of the folder that holds a layer's stored files. */
    static String contentFolder(int layer) {
        return String.format(Locale.ROOT, "layer-%04d", layer);
    }

    /** What the second copy of something of a layer is called. */
    static String copyName(int layer, String name) {
        return String.format(Locale.ROOT, "%04d-%s", layer, name);
    }

    /** A file's name as messages give it, below the strongroom's folder. */
    String shown(Path file) {
        return root.relativize(file).toString();
    }
}
