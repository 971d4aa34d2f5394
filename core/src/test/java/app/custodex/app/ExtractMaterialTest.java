package app.custodex.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import app.custodex.extract.Origin;
import app.custodex.extract.UnreadableException;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.media.SoundCoding;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What can't be read of a picture or a sound costs that one thing; it must not look like a folder that can't be written. */
class ExtractMaterialTest {
    private static final OpenPhone OPEN = mock(OpenPhone.class);

    private static ExtractMaterial material(FileSource source) {
        var origin = new Origin("", List.of(), "a test", Instant.EPOCH);
        return new ExtractMaterial(OPEN, source, ZoneOffset.UTC, origin, contact -> Optional.empty());
    }

    /** Several threads convert while one holds the phone open; if they asked it too, one that waits to close it would stop them all. */
    @AfterEach
    void thePhoneIsNotAsked() {
        verifyNoInteractions(OPEN);
    }

    private static FileSource.Facts bytes(long size) {
        return new FileSource.Facts(size, Instant.EPOCH, "1");
    }

    @Test
    void whatIsTornIsUnreadable() throws IOException {
        var source = mock(FileSource.class);
        when(source.facts(new PhonePath("torn.jpg"))).thenReturn(bytes(1_000_000));
        when(source.open(new PhonePath("torn.jpg"))).thenReturn(new InputStream() {
            @Override
            public int read() throws IOException {
                throw new IOException("the pack is torn");
            }
        });
        when(source.facts(new PhonePath("gone.jpg"))).thenThrow(new IOException("it is not there"));
        var material = material(source);
        for (var item : List.of("torn.jpg", "gone.jpg")) {
            assertThrows(UnreadableException.class, () -> material.picture(item, 640));
            assertThrows(
                    UnreadableException.class,
                    () -> material.convert(item, SoundCoding.MP3, 192, new ByteArrayOutputStream()));
        }
    }

    @Test
    void whatIsNoPictureIsNone() throws IOException {
        var text = "no picture at all ".repeat(100).getBytes(StandardCharsets.UTF_8);
        var source = mock(FileSource.class);
        when(source.facts(new PhonePath("note.jpg"))).thenReturn(bytes(text.length));
        when(source.open(new PhonePath("note.jpg"))).thenAnswer(asked -> new ByteArrayInputStream(text));
        assertEquals(Optional.empty(), material(source).picture("note.jpg", 640));
    }
}
