package app.custodex.extract;

import app.custodex.model.Contact;
import java.io.IOException;
import java.util.Optional;

/** Gives the photo of a contact while it is written. */
@FunctionalInterface
public interface Photos {
    Optional<byte[]> of(Contact contact) throws IOException;
}
