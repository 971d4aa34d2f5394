package app.custodex.drawer;

import java.io.IOException;
import java.net.URI;
import java.time.Instant;
import java.util.Optional;

/** A visit of an islander's phone to the shop, in the past. */
public interface PastVisit {
    Instant at();

    String customer();

    /** What the customer wanted, in a sentence. */
    String reason();

    /** With which the phone's layers are sealed. */
    Optional<String> passphrase();

    /** The phone as it was then: drawn, plugged in and ready as long as it is in use. */
    void bring(Use use) throws IOException;

    interface Use {
        /** @param address where the phone answers */
        void of(URI address) throws IOException;
    }
}
