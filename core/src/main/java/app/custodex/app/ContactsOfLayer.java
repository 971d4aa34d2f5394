package app.custodex.app;

import app.custodex.base.PrivatePlace;
import app.custodex.readers.ContactBook;
import app.custodex.search.ContactIndex;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredLayer;
import java.io.Closeable;
import java.io.IOException;

/** The contacts of one layer, open for reading. Closing it removes what was put on the disk for it. */
public record ContactsOfLayer(StoredLayer layer, PrivatePlace place, ContactBook book, ContactIndex index)
        implements Closeable {
    public LayerRecord record() {
        return layer.record();
    }

    @Override
    public void close() throws IOException {
        try (layer;
                place;
                book) {
            // Closed in the order book, place, layer.
        }
    }
}
