package app.custodex.drawer;

import java.net.URI;
import java.util.Optional;

/** A simulated remote account that holds copies, and the message in which its owner receives a one-time code. */
public interface PracticeLoft {
    /** Where it answers, ending in "/". */
    URI address();

    /** The account that it knows. */
    String account();

    /** The code that was sent last and still counts. */
    Optional<String> message();
}
