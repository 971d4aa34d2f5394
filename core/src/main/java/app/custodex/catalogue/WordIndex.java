package app.custodex.catalogue;

import java.io.Closeable;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;

/** Where the words of things go by which they are found, while a catalogue is made. One thread uses it. */
interface WordIndex extends Closeable {
    /** In which the words can be looked for meanwhile. */
    Connection connection();

    /** @param thing its number */
    void add(int thing, Filed.Words words) throws SQLException, IOException;

    /** @param words the same with which it was added */
    void remove(int thing, Filed.Words words) throws SQLException, IOException;

    /** Ends what was added at once; it may be written later. */
    void endBatch() throws SQLException, IOException;

    /** Waits until everything that was added can be found. */
    void catchUp() throws SQLException, IOException;

    /** Writes all of it into the catalogue. */
    void finish() throws SQLException, IOException;
}
