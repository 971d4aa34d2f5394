package app.custodex.practice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import app.custodex.media.StreamSource;
import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Everything on the island can be seen or heard. */
final class IslandMediaTest {
    static List<Path> files() throws IOException, URISyntaxException {
        var folder = Path.of(IslandMediaTest.class
                .getResource("/app/custodex/practice/media/grandfather.amr")
                .toURI());
        try (var files = Files.list(folder.getParent())) {
            return files.sorted().toList();
        }
    }

    private static MediaSource open(Path file) throws IOException {
        return new StreamSource(Files.size(file), () -> Files.newInputStream(file));
    }

    @ParameterizedTest
    @MethodSource("files")
    void canBeSeenOrHeard(Path file) throws IOException {
        var name = file.getFileName().toString();
        boolean seen = name.matches(".*\\.(heic|webp|mp4)");
        boolean heard = !name.matches(".*\\.(heic|webp)");
        if (seen) {
            try (var source = open(file)) {
                var picture = MediaWorkers.shared().picture(source, 320, false);
                assertEquals(320, Math.max(picture.width(), picture.height()));
                assertFalse(picture.damaged());
            }
        }
        if (heard) {
            try (var source = open(file)) {
                var peaks = MediaWorkers.shared().peaks(source, 50, false);
                assertTrue(peaks.length().compareTo(Duration.ofSeconds(1)) > 0, name);
                double loudest = 0;
                for (int part = 0; part < 50; part++) {
                    loudest = Math.max(loudest, peaks.at(part));
                }
                assertTrue(loudest > 0.1, name + " " + loudest);
            }
        }
    }
}
