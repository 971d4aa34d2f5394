package app.custodex.cli;

import app.custodex.app.Bay;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.CrateLink;
import app.custodex.link.LoftCopy;
import app.custodex.link.LoftLink;
import app.custodex.link.PhoneStatus;
import app.custodex.link.ReadinessStep;
import app.custodex.link.WebDavLink;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Option;

/** What a source asks for before it gives its files, beyond what a hand does on a phone. */
final class SignInOption {
    @Option(
            names = "--user",
            paramLabel = "NAME",
            description = "WebDAV: sign in with this name; asks for the password")
    private Optional<String> user = Optional.empty();

    @Option(
            names = "--account",
            paramLabel = "NAME",
            description = "Loft: sign in to this account; asks for the one-time code that its owner receives")
    private Optional<String> account = Optional.empty();

    @Option(names = "--copy", paramLabel = "ID", description = "Loft: which of the account's copies to fetch")
    private Optional<String> copy = Optional.empty();

    /** Does what can be done from here; what is still wanting is told by the readiness that follows. */
    void signIn(Bay bay, SecretOption secrets) throws IOException {
        bay.ask();
        switch (bay.link()) {
            case WebDavLink dav
            when user.isPresent() -> {
                if (next(bay).filter(step -> step == ReadinessStep.CERTIFICATE).isPresent()) {
                    return; // a password goes to nobody who was not trusted yet
                }
                try (var password = secrets.ask("Password of " + user.get())) {
                    password.lend(characters -> dav.signIn(user.get(), characters));
                }
            }
            case LoftLink loft
            when account.isPresent() -> {
                loft.signIn(account.get());
                try (var code = secrets.ask("One-time code")) {
                    code.lend(characters -> loft.code(new String(characters)));
                }
                loft.choose(chosen(loft.copies()));
            }
            default -> {}
        }
        bay.ask();
        unlock(bay, secrets);
    }

    /** Asks for the passphrase of a maker's backup that waits for it. */
    static void unlock(Bay bay, SecretOption secrets) throws IOException {
        if (bay.link() instanceof CrateLink crate
                && next(bay).filter(step -> step == ReadinessStep.PASSPHRASE).isPresent()) {
            try (var passphrase = secrets.ask("Passphrase of " + bay.source().name())) {
                crate.unlock(passphrase);
            }
            bay.ask();
        }
    }

    private static Optional<ReadinessStep> next(Bay bay) {
        return bay.status().map(PhoneStatus::readiness).flatMap(readiness -> readiness.next());
    }

    private LoftCopy chosen(List<LoftCopy> copies) throws ProblemException {
        return copies.stream()
                .filter(c -> copy.equals(Optional.of(c.id())))
                .findFirst()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        account.orElse("Loft"),
                        copy.isEmpty() ? "It was not said which copy to fetch" : "It holds no such copy",
                        "Name one with --copy: "
                                + copies.stream()
                                        .map(c -> c.id() + " (" + c.title() + ")")
                                        .collect(Collectors.joining(", ")))));
    }
}
