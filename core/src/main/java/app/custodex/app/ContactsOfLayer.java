package app.custodex.app;

import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.extract.ContactExtraction;
import app.custodex.extract.ContactFormat;
import app.custodex.extract.ExtractResult;
import app.custodex.model.Contact;
import app.custodex.readers.ContactBook;
import app.custodex.search.ContactIndex;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredLayer;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.IntConsumer;

/** The contacts of one layer, open for reading. Closing it removes what was put on the disk for it. */
public record ContactsOfLayer(
        ConsentGate gate, Mandate mandate, StoredLayer layer, PrivatePlace place, ContactBook book, ContactIndex index)
        implements Closeable {
    public LayerRecord record() {
        return layer.record();
    }

    /**
     * Writes contacts into open files.
     *
     * @param progress is told how many contacts are written
     * @throws app.custodex.base.ProblemException when the customer's consent was withdrawn, or the folder can't be written
     */
    public ExtractResult extract(
            List<Contact> contacts, ContactFormat format, Path folder, IntConsumer progress, CancelToken cancel)
            throws IOException {
        gate.ask(Operation.EXTRACT, mandate, record().phone());
        return new ContactExtraction(format, book::photo)
                .write(contacts, "Contacts of " + record().phone().name(), folder, progress, cancel);
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
