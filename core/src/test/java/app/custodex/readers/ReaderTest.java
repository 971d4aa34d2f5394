package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** With a place where databases lie while they are read. */
@SuppressWarnings("NullAway.Init") // set before each test
abstract class ReaderTest {
    @TempDir
    Path folder;

    PrivatePlace place;

    @BeforeEach
    void open() throws IOException {
        place = PrivatePlace.open(folder.resolve("reading"));
    }

    @AfterEach
    void close() throws IOException {
        place.close();
    }
}
