package app.custodex.cli;

import app.custodex.app.Bay;
import app.custodex.app.Source;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.Sizes;
import app.custodex.link.WebDavLink;
import java.io.IOException;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Puts sources on the bench and takes them off. */
@Command(
        name = "source",
        description = "Folders, archives, WebDAV addresses, Loft accounts and makers' backups on the bench.",
        mixinStandardHelpOptions = true)
final class SourceCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    @Command(name = "add", description = "Puts a source on the bench.", mixinStandardHelpOptions = true)
    int add(
            @Mixin HomeOption home,
            @Parameters(
                            paramLabel = "PLACE",
                            description =
                                    "A folder, a ZIP or TAR archive, a maker's backup, an https address, or loft: and its address")
                    String place,
            @Option(names = "--name", defaultValue = "", description = "What to call it") String name)
            throws IOException {
        try (var custodex = home.open()) {
            var bay = custodex.bays().add(place, name);
            spec.commandLine()
                    .getOut()
                    .println("Bay " + bay.number() + ": " + bay.source().name());
            bay.ask();
            fingerprint(bay);
            return ExitCode.DONE;
        }
    }

    private void fingerprint(Bay bay) {
        if (bay.link() instanceof WebDavLink dav && bay.source().certificate().isEmpty()) {
            dav.fingerprint()
                    .ifPresent(shown -> spec.commandLine()
                            .getOut()
                            .println("Its certificate's SHA-256 fingerprint is " + shown
                                    + "\nCompare it with what its owner reads out, then: custodex source trust \""
                                    + bay.source().name() + "\" " + shown));
        }
    }

    @Command(name = "list", description = "Lists what is on the bench.", mixinStandardHelpOptions = true)
    int list(@Mixin HomeOption home) throws IOException {
        try (var custodex = home.open()) {
            for (var bay : custodex.bays().all()) {
                var source = bay.source();
                spec.commandLine()
                        .getOut()
                        .printf(
                                "Bay %d  %-14s  %-20s  %s%n",
                                bay.number(), source.type().label(), source.name(), source.address());
            }
            return ExitCode.DONE;
        }
    }

    @Command(
            name = "look",
            description = "Lists the backups that makers' own programs left on this computer.",
            mixinStandardHelpOptions = true)
    int look(@Mixin HomeOption home) throws IOException {
        var commandLine = spec.commandLine();
        try (var custodex = home.open()) {
            var there = custodex.makerBackups();
            for (var found : there.found()) {
                var label = found.label();
                commandLine
                        .getOut()
                        .println(String.join(
                                "\t",
                                label.made().toString(),
                                Output.oneLine(label.name()),
                                Output.oneLine(label.model()),
                                Output.oneLine(label.system()),
                                Output.oneLine(label.serial()),
                                Sizes.bytes(found.bytes(), Locale.getDefault()),
                                label.sealed() ? "under a passphrase" : "open",
                                Output.oneLine(found.folder().toString())));
            }
            if (there.found().isEmpty()) {
                commandLine.getOut().println("There is none on this computer.");
            }
            Output.problems(commandLine.getErr(), there.problems());
            return there.problems().isEmpty() ? ExitCode.DONE : ExitCode.LOSSES;
        }
    }

    @Command(
            name = "trust",
            description = "Trusts the certificate of a WebDAV address from now on.",
            mixinStandardHelpOptions = true)
    int trust(
            @Mixin HomeOption home,
            @Parameters(paramLabel = "SOURCE") String name,
            @Parameters(paramLabel = "FINGERPRINT", description = "SHA-256, in hexadecimal") String fingerprint)
            throws IOException {
        try (var custodex = home.open()) {
            var bay = PhoneFinder.known(custodex, name);
            bay.ask();
            custodex.bays().trust(bay, fingerprint);
            if (bay.link() instanceof WebDavLink dav && !dav.trusted()) {
                throw new ProblemException(Problem.failure(
                        name,
                        "It shows another certificate than this one",
                        "Compare the fingerprints again; somebody may be in between"));
            }
            spec.commandLine().getOut().println("Trusted.");
            return ExitCode.DONE;
        }
    }

    @Command(
            name = "remove",
            description = "Takes a source off the bench. Its layers stay.",
            mixinStandardHelpOptions = true)
    int remove(@Mixin HomeOption home, @Parameters(paramLabel = "SOURCE") String name) throws IOException {
        try (var custodex = home.open()) {
            var bay = PhoneFinder.known(custodex, name);
            if (bay.source().type() == Source.Type.PHONE) {
                throw new ProblemException(Problem.failure(name, "It is a phone", "Unplug it"));
            }
            custodex.bays().remove(bay);
            return ExitCode.DONE;
        }
    }
}
