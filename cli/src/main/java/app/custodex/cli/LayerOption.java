package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.app.Mandate;
import app.custodex.app.OpenPhone;
import app.custodex.app.ReadingProgress;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.Kind;
import app.custodex.link.PhoneIdentity;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
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
    /** Stands for every phone in the strongroom, where that is allowed. */
    private static final String ALL = "all";

    @Parameters(
            index = "0",
            paramLabel = "PHONE",
            description = "Name, model, serial number or identifier of a phone in the strongroom; with --straight also"
                    + " a bay's number; with --loose a file or folder of this computer")
    private String phone = "";

    @Option(names = "--layer", paramLabel = "NUMBER", description = "Which layer (default: the newest)")
    private Optional<Integer> layer = Optional.empty();

    @Option(names = "--straight", description = "Read the phone that is plugged in, not a layer; nothing of it is kept")
    private boolean straight;

    @Option(
            names = "--loose",
            description =
                    "PHONE is a file or folder of this computer; it is read as it is, under the shop's own docket")
    private boolean loose;

    @Option(
            names = "--burrow-key",
            description = "Ask for the customer's key of Burrow, and read its copy too; nothing of that is kept")
    private boolean burrowKey;

    @Mixin
    private SecretOption secrets = new SecretOption();

    @Mixin
    private MandateOption mandate = new MandateOption();

    /** Asks for what must not stand on a command line. */
    SecretOption secrets() {
        return secrets;
    }

    boolean everywhere() {
        return phone.equals(ALL);
    }

    /** The phones that are meant, with their seals opened where their passphrases are given. */
    List<StoredPhone> phones(Custodex custodex) throws IOException {
        refuse(loose, "--loose");
        refuse(straight, "--straight");
        refuse(burrowKey, "--burrow-key");
        refuse(layer.isPresent(), "--layer");
        if (everywhere()) {
            return custodex.strongroom().holdings().phones();
        }
        unseal(custodex, phone(custodex));
        return List.of(phone(custodex));
    }

    /** @throws ProblemException when the phone itself, or more than is stored, is asked for */
    void requireStored() throws ProblemException {
        refuse(loose, "--loose");
        refuse(straight, "--straight");
        refuse(burrowKey, "--burrow-key");
    }

    private static void refuse(boolean given, String option) throws ProblemException {
        if (given) {
            throw new ProblemException(Problem.failure(option, "It means nothing here", "Leave it out"));
        }
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
        return open(custodex, ReadingProgress.NONE);
    }

    /** @param progress is told how it goes, when it has to be read first */
    OpenPhone open(Custodex custodex, ReadingProgress progress) throws IOException {
        if (loose) {
            refuse(straight, "--straight");
            refuse(layer.isPresent(), "--layer");
            refuse(burrowKey, "--burrow-key");
            var bay = custodex.loose(List.of(path()));
            return custodex.straight()
                    .open(
                            mandate.of(custodex, bay),
                            bay,
                            Locale.getDefault(),
                            Optional.empty(),
                            progress,
                            new CancelToken());
        }
        if (straight) {
            if (layer.isPresent()) {
                throw new ProblemException(Problem.failure(
                        phone, "A phone that is read straight has no layers", "Leave out --layer or --straight"));
            }
            return straight(custodex, progress);
        }
        return open(custodex, phone(custodex), OptionalInt.empty(), progress);
    }

    private Path path() throws ProblemException {
        try {
            return Path.of(phone);
        } catch (InvalidPathException e) {
            throw new ProblemException(
                    Problem.failure(phone, "This is no name of a file or folder", "Give one of this computer"), e);
        }
    }

    private OpenPhone straight(Custodex custodex, ReadingProgress progress) throws IOException {
        var known = PhoneFinder.bay(custodex, phone);
        if (known.isPresent()) {
            known.get().ask();
            SignInOption.unlock(known.get(), secrets);
        }
        var bay = PhoneFinder.ready(custodex, phone, Duration.ZERO, waiting -> {});
        var behalf = mandate.of(custodex, bay);
        try (var key = new Key(bay.source().name())) {
            return custodex.straight().open(behalf, bay, Locale.getDefault(), key.given, progress, new CancelToken());
        }
    }

    /** The customer's key, if it is to be used; it is not needed any more once a phone is open. */
    private final class Key implements AutoCloseable {
        private final Optional<Passphrase> given;

        Key(String phone) throws IOException {
            given = burrowKey ? Optional.of(secrets.ask("Key of Burrow on " + phone)) : Optional.empty();
        }

        @Override
        public void close() {
            given.ifPresent(Passphrase::close);
        }
    }

    /** Another layer of the same phone. */
    OpenPhone open(Custodex custodex, StoredPhone stored, OptionalInt other) throws IOException {
        return open(custodex, stored, other, ReadingProgress.NONE);
    }

    private OpenPhone open(Custodex custodex, StoredPhone stored, OptionalInt other, ReadingProgress progress)
            throws IOException {
        unseal(custodex, stored);
        int number = other.isPresent() ? number(stored, other.getAsInt()) : number(stored);
        var identity = stored.identity();
        var behalf = mandate.of(custodex, identity);
        try (var key = new Key(identity.name())) {
            return key.given.isPresent()
                    ? custodex.reading()
                            .openWithKey(
                                    behalf,
                                    identity.identifier(),
                                    number,
                                    Locale.getDefault(),
                                    key.given.get(),
                                    progress)
                    : custodex.reading().open(behalf, identity.identifier(), number, Locale.getDefault(), progress);
        }
    }

    /** @throws ProblemException when there are no contacts, with the layer that has them */
    static void requireContacts(Custodex custodex, OpenPhone open) throws IOException {
        if (!open.contacts().ascending().isEmpty()) {
            return;
        }
        var with = custodex.strongroom().holdings().phones().stream()
                .filter(phone ->
                        phone.identity().identifier().equals(open.phone().identifier()))
                .flatMap(phone -> phone.newestWith(Kind.CONTACTS).stream())
                .filter(layer -> !open.layer().equals(Optional.of(layer)))
                .findFirst();
        throw new ProblemException(Problem.failure(
                open.phone().name(),
                "There are no contacts in it",
                with.map(layer -> "Layer " + layer.number() + " has them: open it with --layer " + layer.number())
                        .orElse("No layer of this phone has any")));
    }
}
