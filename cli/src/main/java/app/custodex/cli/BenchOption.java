package app.custodex.cli;

import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import java.io.IOException;
import java.time.Duration;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** Which phone or other source on the bench is meant, and what it asks for before it gives its files. */
final class BenchOption {
    @Parameters(paramLabel = "PHONE", description = "Bay number, name, model, serial number or identifier")
    private String phone = "";

    @Mixin
    private final SecretOption secrets = new SecretOption();

    @Mixin
    private final SignInOption signIn = new SignInOption();

    /** The words that it was called by. */
    String words() {
        return phone;
    }

    SecretOption secrets() {
        return secrets;
    }

    /** Signs in where that was asked for, and waits until the source gives its files. */
    Bay ready(Custodex custodex, Duration patience, PhoneFinder.Waiting waiting) throws IOException {
        var known = PhoneFinder.bay(custodex, phone);
        if (known.isPresent()) {
            signIn.signIn(known.get(), secrets);
        }
        return PhoneFinder.ready(custodex, phone, patience, waiting);
    }
}
