package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.seal.Passphrase;
import app.custodex.seal.StackKey;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Which stacks are sealed, and the keys of those that were opened. A stack's key lies here as an age file under its passphrase;
 * without that file nobody can read the stack any more. Beside it lies a label for each layer, which says without the passphrase
 * whose phone it is, when it was copied and how much of each kind it holds. Opened keys are kept in memory only.
 */
final class Seals {
    static final String FOLDER = "seals";
    static final String KEY = "key.age";

    private final Path folder;
    private final Disk disk;
    private final Map<String, StackKey> opened = new ConcurrentHashMap<>();

    Seals(Path folder, Disk disk) {
        this.folder = folder;
        this.disk = disk;
    }

    Path folder(String stack) {
        return folder.resolve(stack);
    }

    Path keyFile(String stack) {
        return folder(stack).resolve(KEY);
    }

    static String labelName(int layer) {
        return String.format(Locale.ROOT, "label-%04d.json", layer);
    }

    Path labelFile(String stack, int layer) {
        return folder(stack).resolve(labelName(layer));
    }

    /**
     * Whether there is a seal, or what is left of one.
     *
     * @param stack the name of its object's folder
     */
    boolean sealed(String stack) {
        return Files.isDirectory(folder(stack));
    }

    /** The names of all stacks that have a seal. */
    List<String> stacks() throws IOException {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (var members = Files.list(folder)) {
            return members.map(member -> String.valueOf(member.getFileName()))
                    .sorted()
                    .toList();
        }
    }

    /** Empty for a stack that is not sealed, or not opened in this run of the program. */
    Optional<StackKey> key(String stack) {
        return Optional.ofNullable(opened.get(stack));
    }

    /** Makes a key for a stack, keeps it under the passphrase and gives the file that it is kept in. */
    byte[] seal(String stack, Passphrase passphrase) throws IOException {
        var key = StackKey.generate();
        var sealed = key.sealed(passphrase);
        replace(stack, keyFile(stack), sealed);
        opened.put(stack, key);
        return sealed;
    }

    void remove(String stack) throws IOException {
        opened.remove(stack);
        disk.delete(folder.resolve(stack));
    }

    /** @throws ProblemException when the passphrase is not the right one, or the file with the key can't be read */
    void open(Stack stack, String name, Passphrase passphrase) throws IOException {
        var file = keyFile(stack.name());
        var key = Files.isRegularFile(file) ? open(Files.readAllBytes(file), passphrase) : Attempt.DAMAGED;
        if (key.damaged()) {
            // The copy is of the same bytes; its passphrase is the same.
            var copy = stack.copies().sound(KEY);
            key = copy.isPresent() ? open(copy.get(), passphrase) : key;
        }
        if (key.damaged()) {
            throw keyGone(stack, name);
        }
        opened.put(
                stack.name(),
                key.key()
                        .orElseThrow(() -> new ProblemException(Problem.failure(
                                name,
                                "This is not its passphrase",
                                "Try again; mind capitals and the keyboard's language"))));
    }

    /** @param key empty for a wrong passphrase */
    private record Attempt(boolean damaged, Optional<StackKey> key) {
        static final Attempt DAMAGED = new Attempt(true, Optional.empty());
    }

    private static Attempt open(byte[] sealed, Passphrase passphrase) {
        try {
            return new Attempt(false, StackKey.open(sealed, passphrase));
        } catch (IOException damaged) {
            return Attempt.DAMAGED;
        }
    }

    /** Nothing is written into a sealed stack whose key is not on the disk: nobody could open it. */
    static void requireKey(Stack stack, String name) throws ProblemException {
        if (stack.sealed() && !Files.isRegularFile(stack.seals().keyFile(stack.name()))) {
            throw keyGone(stack, name);
        }
    }

    private static ProblemException keyGone(Stack stack, String name) {
        return new ProblemException(Problem.failure(
                name,
                "The file with its sealed key is damaged or gone",
                "Bring " + stack.shown(stack.seals().keyFile(stack.name()))
                        + " back from the shop's second copy; nothing opens without it"));
    }

    /** Forgets an opened key. */
    void close(String stack) {
        opened.remove(stack);
    }

    void label(String stack, int layer, byte[] record) throws IOException {
        replace(stack, labelFile(stack, layer), record);
    }

    private void replace(String stack, Path file, byte[] bytes) throws IOException {
        disk.createFolders(folder(stack));
        disk.replace(file, bytes);
    }
}
