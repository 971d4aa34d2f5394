package app.custodex.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.custodex.extract.Origin;
import app.custodex.extract.UnreadableException;
import app.custodex.link.FileSource;
import app.custodex.media.MediaSource;
import app.custodex.media.SoundCoding;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** What can't be read of a picture or a sound costs that one thing; it must not look like a folder that can't be written. */
class ExtractMaterialTest {
    private static final MediaSource TORN = new MediaSource() {
        @Override
        public long size() {
            return 1_000_000;
        }

        @Override
        public int read(long position, ByteBuffer into) throws IOException {
            throw new IOException("the pack is torn");
        }

        @Override
        public void close() {
            // nothing is held
        }
    };

    private static ExtractMaterial material(OpenPhone open) {
        var origin = new Origin("", List.of(), "a test", Instant.EPOCH);
        return new ExtractMaterial(open, mock(FileSource.class), ZoneOffset.UTC, origin, contact -> Optional.empty());
    }

    @Test
    void whatIsTornIsUnreadable() throws IOException {
        var open = mock(OpenPhone.class);
        when(open.media("torn.jpg")).thenReturn(TORN);
        when(open.media("gone.jpg")).thenThrow(new IOException("it is not there"));
        var material = material(open);
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
        var open = mock(OpenPhone.class);
        when(open.media("note.jpg")).thenReturn(new MediaSource() {
            @Override
            public long size() {
                return text.length;
            }

            @Override
            public int read(long position, ByteBuffer into) {
                int n = (int) Math.min(into.remaining(), text.length - position);
                if (n <= 0) {
                    return -1;
                }
                into.put(text, (int) position, n);
                return n;
            }

            @Override
            public void close() {
                // nothing is held
            }
        });
        assertEquals(Optional.empty(), material(open).picture("note.jpg", 640));
    }
}
