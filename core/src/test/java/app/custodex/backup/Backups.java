package app.custodex.backup;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.base.CancelToken;
import app.custodex.base.Disk;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Map;
import java.util.TreeSet;

/** Runs backups of fake phones, and compares layers with what the phone held. */
public final class Backups {
    private Backups() {}

    public static BackupRun run(FakePhone phone, Strongroom strongroom) {
        return new BackupRun(
                phone,
                strongroom,
                BackupRequest.everything(Duration.ZERO, "test"),
                Clock.systemUTC(),
                new CancelToken());
    }

    public static BackupResult backUp(FakePhone phone, Path root, Disk disk) throws IOException {
        return run(phone, Strongroom.make(root, disk)).run();
    }

    /** Asserts that a layer gives exactly this state. */
    public static void assertHolds(Strongroom strongroom, FakePhone phone, int number, Map<PhonePath, byte[]> state)
            throws IOException {
        try (var layer = strongroom.layer(phone.identity().identifier(), number).orElseThrow()) {
            assertEquals(new TreeSet<>(state.keySet()), new TreeSet<>(layer.in(PhonePath.ROOT)));
            for (var entry : state.entrySet()) {
                try (var in = layer.open(entry.getKey())) {
                    assertArrayEquals(
                            entry.getValue(), in.readAllBytes(), entry.getKey().text());
                }
            }
        }
    }
}
