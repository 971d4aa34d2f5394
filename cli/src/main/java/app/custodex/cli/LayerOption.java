package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.app.Mandate;
import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.PhoneIdentity;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Which layer of which phone; asks for its passphrase when it is sealed. */
final class LayerOption {
    @Parameters(
            index = "0",
            paramLabel = "PHONE",
            description = "Name, model, serial number or identifier of a phone in the strongroom; with --straight also"
                    + " a bay's number")
    private String phone = "";

    @Option(names = "--layer", paramLabel = "NUMBER", description = "Which layer (default: the newest)")
    private Optional<Integer> layer = Optional.empty();

    @Option(names = "--straight", description = "Read the phone that is plugged in, not a layer; nothing of it is kept")
    private boolean straight;

    @Option(
            names = "--burrow-key",
            description = "Ask for the customer's key of Burrow, and read its copy too; nothing of that is kept")
    private boolean burrowKey;

    @Mixin
    private SecretOption secrets = new SecretOption();

    @Mixin
    private MandateOption mandate = new MandateOption();

    /** Stands for every phone in the strongroom, where that is allowed. */
    private static final String ALL = "all";

    boolean everywhere() {
        return phone.equals(ALL);
    }

    /** The phones that are meant, with their seals opened where their passphrases are given. */
    List<StoredPhone> phones(Custodex custodex) throws IOException {
        if (everywhere()) {
            return custodex.strongroom().holdings().phones();
        }
        unseal(custodex, phone(custodex));
        return List.of(phone(custodex));
    }

    Mandate mandate(Custodex custodex, PhoneIdentity of) throws IOException {
        return mandate.of(custodex, of);
    }

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

    /** The layer, or the phone itself, open for reading; the caller closes it. */
    OpenPhone open(Custodex custodex) throws IOException {
        if (straight) {
            if (layer.isPresent()) {
                throw new ProblemException(Problem.failure(
                        phone, "A phone that is read straight has no layers", "Leave out --layer or --straight"));
            }
            var bay = PhoneFinder.ready(custodex, phone, Duration.ZERO, waiting -> {});
            return custodex.straight()
                    .open(mandate.of(custodex, bay), bay, Locale.getDefault(), n -> {}, new CancelToken());
        }
        return open(custodex, phone(custodex), OptionalInt.empty());
    }

    /** Another layer of the same phone. */
    OpenPhone open(Custodex custodex, StoredPhone stored, OptionalInt other) throws IOException {
        unseal(custodex, stored);
        if (burrowKey) {
            try (var key = secrets.ask("Key of Burrow on " + stored.identity().name())) {
                return custodex.reading()
                        .openWithKey(
                                mandate.of(custodex, stored.identity()),
                                stored.identity().identifier(),
                                other.isPresent() ? number(stored, other.getAsInt()) : number(stored),
                                Locale.getDefault(),
                                key,
                                n -> {});
            }
        }
        return custodex.reading()
                .open(
                        mandate.of(custodex, stored.identity()),
                        stored.identity().identifier(),
                        other.isPresent() ? number(stored, other.getAsInt()) : number(stored),
                        Locale.getDefault());
    }
}
