package app.custodex.strongroom;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import io.ocfl.api.OcflRepository;
import io.ocfl.core.OcflRepositoryBuilder;
import io.ocfl.core.extension.storage.layout.config.HashedNTupleLayoutConfig;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** The independent reader: ocfl-java, a library of others, reads and validates what the strongroom wrote. */
public final class OcflReferee {
    private OcflReferee() {}

    public static OcflRepository open(Path strongroom) throws IOException {
        return new OcflRepositoryBuilder()
                .defaultLayoutConfig(new HashedNTupleLayoutConfig())
                .inventoryCache(null)
                .storage(storage -> storage.fileSystem(strongroom.resolve("objects")))
                .workDir(Files.createTempDirectory("ocfl-referee"))
                .build();
    }

    /** Validates every object with all content, and that no folder of the storage root is empty. */
    public static void assertValid(Path strongroom) throws IOException {
        assertValid(strongroom, false, true);
    }

    /** @param content whether to compare the digests of all content, too */
    public static void assertValid(Path strongroom, boolean mayBeEmpty, boolean content) throws IOException {
        var repository = open(strongroom);
        List<String> ids = repository.listObjectIds().toList();
        if (!mayBeEmpty) {
            assertFalse(ids.isEmpty(), "no object");
        }
        for (var id : ids) {
            var results = repository.validateObject(id, content);
            assertEquals(List.of(), results.getErrors(), id);
            assertEquals(List.of(), results.getWarnings(), id);
        }
        if (!mayBeEmpty) {
            try (var folders = Files.walk(strongroom.resolve("objects"))) {
                for (var folder : folders.filter(Files::isDirectory).toList()) {
                    try (var members = Files.list(folder)) {
                        assertFalse(members.findAny().isEmpty(), folder + " is empty");
                    }
                }
            }
        }
        repository.close();
    }
}
