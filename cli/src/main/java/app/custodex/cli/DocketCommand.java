package app.custodex.cli;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.docket.Country;
import app.custodex.docket.Docket;
import app.custodex.docket.Docket.Consent;
import app.custodex.docket.HandOut;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.UnaryOperator;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** The records of jobs: whose phone it is, and what its owner allows. */
@Command(
        name = "docket",
        description = "Opens and lists dockets, and writes consent on them.",
        mixinStandardHelpOptions = true)
final class DocketCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    @Command(name = "open", description = "Opens a docket for what is in a bay.", mixinStandardHelpOptions = true)
    int open(
            @Mixin HomeOption home,
            @Parameters(paramLabel = "PHONE", description = "Bay number, name, model, serial number or identifier")
                    String phone,
            @Option(names = "--customer", required = true, description = "The customer's name") String customer,
            @Option(names = "--reason", required = true, description = "What the customer wants, in a sentence")
                    String reason,
            @Option(names = "--reach", defaultValue = "", description = "How the customer is reached meanwhile")
                    String reach,
            @Option(
                            names = "--consent",
                            paramLabel = "EXTENT",
                            description = "The customer has given consent to this; without it nothing may be copied")
                    Optional<String> consent,
            @Option(names = "--own", description = "The phone is the shop's own, so nobody's consent is needed")
                    boolean own,
            @Option(
                            names = "--country",
                            defaultValue = "",
                            description =
                                    "In which country numbers are dialled that have none, such as GB, where the source"
                                            + " does not say (default: that of this computer)")
                    String country)
            throws IOException {
        try (var custodex = home.open()) {
            var bay = PhoneFinder.known(custodex, phone);
            var given = consent.map(extent -> new Consent(custodex.clock().instant(), extent));
            var docket = custodex.dockets()
                    .open(
                            new Docket.Form(customer, reach, reason, given, Optional.empty(), own, Country.of(country)),
                            bay.address());
            var identity = bay.status().flatMap(PhoneStatus::identity);
            if (identity.isPresent()) {
                docket = custodex.dockets().change(docket.number(), d -> d.withPhone(identity.get()));
            }
            spec.commandLine().getOut().println(line(docket));
            return ExitCode.DONE;
        }
    }

    @Command(name = "list", description = "Lists all dockets, the newest first.", mixinStandardHelpOptions = true)
    int list(@Mixin HomeOption home) throws IOException {
        try (var custodex = home.open()) {
            custodex.dockets()
                    .all()
                    .forEach(docket -> spec.commandLine().getOut().println(line(docket)));
            var problems = custodex.dockets().problems();
            Output.problems(spec.commandLine().getErr(), problems);
            return problems.isEmpty() ? ExitCode.DONE : ExitCode.LOSSES;
        }
    }

    @Command(
            name = "consent",
            description = "Writes the customer's consent on a docket.",
            mixinStandardHelpOptions = true)
    int consent(
            @Mixin HomeOption home,
            @Parameters(paramLabel = "NUMBER") int number,
            @Parameters(paramLabel = "EXTENT", description = "What may be done with the data") String extent)
            throws IOException {
        try (var custodex = home.open()) {
            var consent = Optional.of(new Consent(custodex.clock().instant(), extent));
            return change(home, number, docket -> docket.withConsent(consent));
        }
    }

    @Command(
            name = "withdraw",
            description = "Takes the customer's consent off a docket; nothing more is done to the data from then on.",
            mixinStandardHelpOptions = true)
    int withdraw(@Mixin HomeOption home, @Parameters(paramLabel = "NUMBER") int number) throws IOException {
        return change(home, number, docket -> docket.withConsent(Optional.empty()));
    }

    @Command(
            name = "files",
            description =
                    "Lists what was written outside of the strongroom on a docket, and whether it still lies there.",
            mixinStandardHelpOptions = true)
    int files(@Mixin HomeOption home, @Parameters(paramLabel = "NUMBER") int number) throws IOException {
        try (var custodex = home.open()) {
            var out = spec.commandLine().getOut();
            for (var each : custodex.handOuts().of(number)) {
                out.println(Output.oneLine(each.at() + "  into " + each.folder()
                        + (each.complete() ? "" : "  (it did not end; look there for what lies about)")));
                for (var file : each.files()) {
                    out.println(Output.oneLine("  " + lies(file) + "  " + file.path()));
                }
            }
            var problems = custodex.handOuts().problems();
            Output.problems(spec.commandLine().getErr(), problems);
            return problems.isEmpty() ? ExitCode.DONE : ExitCode.LOSSES;
        }
    }

    private static String lies(HandOut.File file) throws IOException {
        var path = Path.of(file.path());
        if (!Files.exists(path, LinkOption.NOFOLLOW_LINKS)) {
            return "gone   ";
        }
        return Files.isRegularFile(path, LinkOption.NOFOLLOW_LINKS) && Files.size(path) == file.bytes()
                ? "there  "
                : "changed";
    }

    private int change(HomeOption home, int number, UnaryOperator<Docket> change) throws IOException {
        try (var custodex = home.open()) {
            if (custodex.dockets().find(number).isEmpty()) {
                throw new ProblemException(Problem.failure(
                        "Docket " + Docket.label(number), "There is no such docket", "See \"docket list\""));
            }
            spec.commandLine().getOut().println(line(custodex.dockets().change(number, change)));
            return ExitCode.DONE;
        }
    }

    private static String line(Docket docket) {
        var consent = docket.own()
                ? "the shop's own"
                : docket.consent().map(given -> "consent: " + given.extent()).orElse("no consent");
        return Output.oneLine("Docket " + docket.label() + "  " + docket.customer() + "  "
                + docket.phone().map(PhoneIdentity::name).orElse("") + "  " + consent);
    }
}
