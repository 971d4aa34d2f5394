package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.app.OpenLayer;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.util.Locale;
import java.util.Optional;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Which layer of which phone; asks for its passphrase when it is sealed. */
final class LayerOption {
    @Parameters(
            index = "0",
            paramLabel = "PHONE",
            description = "Name, model, serial number or identifier of a phone in the strongroom")
    private String phone = "";

    @Option(names = "--layer", paramLabel = "NUMBER", description = "Which layer (default: the newest)")
    private Optional<Integer> layer = Optional.empty();

    @Mixin
    private SecretOption secrets = new SecretOption();

    @Mixin
    private MandateOption mandate = new MandateOption();

    StoredPhone phone(Custodex custodex) throws IOException {
        return PhoneFinder.stored(custodex, phone);
    }

    int number(StoredPhone stored) throws ProblemException {
        return number(stored, layer.orElse(stored.newest().number()));
    }

    /** @throws ProblemException when the phone has no such layer */
    static int number(StoredPhone stored, int number) throws ProblemException {
        if (number < 1 || number > stored.newest().number()) {
            throw new ProblemException(Problem.failure(
                    stored.identity().name(),
                    "There is no layer " + number,
                    "It has layers 1 to " + stored.newest().number()));
        }
        return number;
    }

    /** Opens the seal, if there is one that was not opened yet. */
    void unseal(Custodex custodex, StoredPhone stored) throws IOException {
        if (stored.seal() == StoredPhone.Seal.CLOSED) {
            try (var passphrase =
                    secrets.ask("Passphrase of " + stored.identity().name())) {
                custodex.strongroom().open(stored.identity(), passphrase);
            }
        }
    }

    /** The layer, open for reading; the caller closes it. */
    OpenLayer open(Custodex custodex) throws IOException {
        var stored = phone(custodex);
        unseal(custodex, stored);
        return custodex.reading()
                .open(
                        mandate.of(custodex, stored.identity()),
                        stored.identity().identifier(),
                        number(stored),
                        Locale.getDefault());
    }
}
