package app.custodex.twins;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.ProblemException;
import app.custodex.twins.Listing.Track;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

final class ListingTest {
    @TempDir
    Path folder;

    private List<Track> read(String name, String content) throws IOException {
        return Listing.read(Files.writeString(folder.resolve(name), content)).tracks();
    }

    /** Extended M3U has no standard; this is how players write it (common practice, no source). */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "#EXTINF:123,Choir - Tide|123000",
                "#EXTINF:123.5 group=\"a\",Choir - Tide|123500",
                "#EXTINF:0,Choir - Tide|-1",
                "#EXTINF:-1,Choir - Tide|-1",
                "#EXTINF:99999999999999,Choir - Tide|-1",
                "#EXTINF:123|-1",
                "#EXTINF:|-1",
                "#EXTINF:123,Tide|-1",
                "#EXTINF:a - b,c|-1"
            })
    void anEntrySaysWhatItIs(String line, long millis) throws IOException {
        var track = read("a.m3u", "\ufeff#EXTM3U\r\n" + line + "\r\nmusic/tide.mp3\r\n")
                .getFirst();
        assertEquals(
                millis < 0 ? Optional.empty() : Optional.of(Duration.ofMillis(millis)),
                track.song().map(OnlyHere.Song::length));
        assertEquals(Optional.of(folder.resolve("music/tide.mp3")), track.file());
    }

    @Test
    void whatIsNoFileOfThisComputerIsNone() throws IOException {
        var tracks =
                read("a.m3u8", "https://example.org/a.mp3\nbad\0name\n..\\up.mp3\nfile:///tmp/x%20y.mp3\n#note\n\n");
        assertEquals(
                List.of(
                        Optional.empty(),
                        Optional.empty(),
                        Optional.of(folder.resolve("../up.mp3")),
                        Optional.of(Path.of("/tmp/x y.mp3"))),
                tracks.stream().map(Track::file).toList());
    }

    /** XSPF 1, section 4.1.1.2.14: what stands outside of a track belongs to the list. */
    @Test
    void theTitleOfAListIsThatOfNoTrack() throws IOException {
        var tracks = read("a.xspf", """
                <playlist version="1" xmlns="http://xspf.org/ns/0/"><title>Mine</title><creator>Me</creator>
                <trackList><track><duration>1000</duration></track>
                <track><title>Tide</title><creator>Choir</creator><duration>2000</duration><location>t.mp3</location></track>
                </trackList></playlist>
                """);
        assertEquals(2, tracks.size());
        assertEquals(Optional.empty(), tracks.getFirst().song());
        assertEquals("choir\ntide", tracks.getLast().song().orElseThrow().known());
        assertEquals(Optional.of(folder.resolve("t.mp3")), tracks.getLast().file());
    }

    @ParameterizedTest
    @CsvSource({"a.xspf, <playlist", "a.xspf, <playlist><track><duration>long</duration></track></playlist>", "a.txt, x"
    })
    void whatIsNoListSaysSo(String name, String content) {
        var told = assertThrows(ProblemException.class, () -> read(name, content));
        assertTrue(told.problem().subject().endsWith(name));
    }
}
