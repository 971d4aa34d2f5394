package app.custodex.extract.contacts;

import app.custodex.base.Problem;
import app.custodex.extract.Batch;
import app.custodex.model.Contact;
import java.io.IOException;
import java.util.Optional;

/** The photos of contacts while these are written. */
final class ContactPhotos {
    private ContactPhotos() {}

    /** Empty when there is none, and when it can't be read, which is told. */
    static Optional<byte[]> of(Contact contact, Batch batch) {
        if (!contact.hasPhoto()) {
            return Optional.empty();
        }
        try {
            return batch.material().photo(contact);
        } catch (IOException e) {
            batch.problem(Problem.loss(contact.title(), "The photo can't be read", "Check the layer"));
            return Optional.empty();
        }
    }
}
