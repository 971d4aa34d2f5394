package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;

/**
 * Which strongroom this is, whatever place it lies in and whatever drive that is on.
 *
 * @param id made at random when the strongroom was made
 * @param form of what lies in it; this program knows 1
 */
public record StrongroomIdentity(String id, int form) {
    static final String FILE = "strongroom.json";

    public StrongroomIdentity {
        Objects.requireNonNull(id);
    }

    static StrongroomIdentity make() {
        return of(UUID.randomUUID().toString());
    }

    static StrongroomIdentity of(String id) {
        return new StrongroomIdentity(id, 1);
    }

    /** As it lies on the disk: with a digest, since a changed digit would make it another strongroom's. */
    private record Written(String id, int form, String sha512) {
        static Written of(StrongroomIdentity identity) {
            var text = identity.id + " " + identity.form;
            return new Written(identity.id, identity.form, Digests.of(text.getBytes(StandardCharsets.UTF_8)));
        }

        Optional<StrongroomIdentity> identity() {
            var said = new StrongroomIdentity(id, form);
            return of(said).equals(this) ? Optional.of(said) : Optional.empty();
        }
    }

    /** Which strongroom lies in a folder; empty when there is none, or that can't be read. */
    public static Optional<StrongroomIdentity> in(Path root) {
        return read(root);
    }

    /** What lies in the strongroom's folder, or what its second copy says; empty when neither can be read. */
    static Optional<StrongroomIdentity> read(Path root) {
        return readFile(root.resolve(FILE))
                .or(() -> readFile(root.resolve(SecondCopies.FOLDER).resolve(FILE)));
    }

    static Optional<StrongroomIdentity> readFile(Path file) {
        try {
            return Files.exists(file)
                    ? Json.PAGE.readValue(file.toFile(), Written.class).identity()
                    : Optional.empty();
        } catch (IOException | RuntimeException damaged) {
            return Optional.empty();
        }
    }

    void write(Path root, Disk disk) throws IOException {
        var bytes = Json.PAGE.writeValueAsBytes(Written.of(this));
        var copies = root.resolve(SecondCopies.FOLDER);
        disk.createFolders(copies);
        disk.replace(copies.resolve(FILE), bytes);
        disk.replace(root.resolve(FILE), bytes);
    }
}
