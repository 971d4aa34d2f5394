package app.custodex.base;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlaceFailureTest {
    @TempDir
    Path folder;

    /** "Result and Error Codes" of SQLite: the lower eight bits of an extended code are the primary one. */
    @ParameterizedTest
    @CsvSource({"13, no room", "10, Nothing can be written", "778, Nothing can be written", "8, Nothing can be written"
    })
    void whatADatabaseSaysOfItsDiskIsThePlaces(int code, String words) {
        var failure = new IOException(new IOException(new SQLException("no", "", code)));
        var told = PlaceFailure.behind(failure, folder).orElseThrow();
        assertEquals(folder.toString(), told.problem().subject());
        assertTrue(told.problem().what().contains(words), told.problem().what());
    }

    @Test
    void whatElseGoesWrongIsNot() {
        assertTrue(PlaceFailure.behind(new IOException(new SQLException("corrupt", "", 11)), folder)
                .isEmpty());
        assertTrue(PlaceFailure.behind(new IOException("cut"), folder).isEmpty());
    }

    @Test
    void aPlaceThatIsGoneIsTheFaultOfNothingThatIsRead() throws IOException {
        try (var place = PrivatePlace.open(folder.resolve("reading"))) {
            var own = place.folder();
            assertEquals(3, place.copy(new ByteArrayInputStream(new byte[3]), own.resolve("a")));
            assertEquals(3, Files.size(own.resolve("a")));

            var cut = assertThrows(IOException.class, () -> place.copy(new Cut(), own.resolve("b")));
            assertFalse(cut instanceof PlaceFailure);

            place.remove(own);
            assertThrows(PlaceFailure.class, () -> place.copy(new ByteArrayInputStream(new byte[3]), own.resolve("c")));
        }
    }

    /** A source that fails. */
    private static final class Cut extends InputStream {
        @Override
        public int read() throws IOException {
            throw new IOException("the cable was pulled");
        }
    }
}
