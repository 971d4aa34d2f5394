package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.seal.Passphrase;
import app.custodex.seal.StackKey;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Which stacks are sealed, and the keys of those that were opened. A stack's key lies here as an age file under its passphrase;
 * without that file nobody can read the stack any more. Beside it lies a label for each layer, which says without the passphrase
 * whose phone it is, when it was copied and how much of each kind it holds. Opened keys are kept in memory only.
 */
final class Seals {
    private final Path folder;
    private final Disk disk;
    private final Map<String, StackKey> opened = new ConcurrentHashMap<>();

    Seals(Path folder, Disk disk) {
        this.folder = folder;
        this.disk = disk;
    }

    private Path keyFile(String stack) {
        return folder.resolve(stack).resolve("key.age");
    }

    private Path labelFile(String stack, int layer) {
        return folder.resolve(stack).resolve("label-%04d.json".formatted(layer));
    }

    /** @param stack the name of its object's folder */
    boolean sealed(String stack) {
        return Files.exists(keyFile(stack));
    }

    /** Empty for a stack that is not sealed, or not opened in this run of the program. */
    Optional<StackKey> key(String stack) {
        return Optional.ofNullable(opened.get(stack));
    }

    /** Makes a key for a stack and keeps it under the passphrase. */
    void seal(String stack, Passphrase passphrase) throws IOException {
        var key = StackKey.generate();
        replace(stack, keyFile(stack), key.sealed(passphrase));
        opened.put(stack, key);
    }

    void remove(String stack) throws IOException {
        opened.remove(stack);
        disk.delete(folder.resolve(stack));
    }

    /** @throws ProblemException when the passphrase is not the right one */
    void open(String stack, String name, Passphrase passphrase) throws IOException {
        byte[] sealed;
        try {
            sealed = Files.readAllBytes(keyFile(stack));
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.failure(
                            name,
                            "The file with its sealed key can't be read",
                            "Bring " + keyFile(stack) + " back from the shop's second copy; nothing opens without it"),
                    e);
        }
        Optional<StackKey> key;
        try {
            key = StackKey.open(sealed, passphrase);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.failure(
                            name,
                            "The file with its sealed key is damaged",
                            "Bring " + keyFile(stack) + " back from the shop's second copy; nothing opens without it"),
                    e);
        }
        opened.put(
                stack,
                key.orElseThrow(() -> new ProblemException(Problem.failure(
                        name, "This is not its passphrase", "Try again; mind capitals and the keyboard's language"))));
    }

    /** Forgets an opened key. */
    void close(String stack) {
        opened.remove(stack);
    }

    void label(String stack, LayerRecord record) throws IOException {
        replace(stack, labelFile(stack, record.number()), Json.PAGE.writeValueAsBytes(record));
    }

    /** @throws IOException when there is none, or it is torn */
    LayerRecord label(String stack, int layer) throws IOException {
        return Json.PAGE.readValue(labelFile(stack, layer).toFile(), LayerRecord.class);
    }

    private void replace(String stack, Path file, byte[] bytes) throws IOException {
        var part = file.resolveSibling(file.getFileName() + ".part");
        disk.createFolders(folder.resolve(stack));
        disk.delete(part);
        disk.write(part, bytes);
        disk.move(part, file);
        disk.syncFolder(folder.resolve(stack));
        disk.syncFolder(folder);
    }
}
