package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import picocli.CommandLine.Option;

/** Where this Custodex keeps everything. */
final class HomeOption {
    @Option(
            names = "--home",
            paramLabel = "FOLDER",
            description =
                    "Where Custodex keeps its strongroom and dockets (default: \"custodex\" in the user's data folder)")
    private Optional<Path> folder = Optional.empty();

    @Option(names = "--demo", description = "Use the demo's folder")
    private boolean demo;

    boolean isDemo() {
        return demo;
    }

    Home home() {
        return new Home(folder.orElseGet(() -> Home.userData(
                        System.getenv(), System.getProperty("os.name"), Path.of(System.getProperty("user.home")))
                .resolve(demo ? "custodex-demo" : "custodex")));
    }

    Custodex open() throws IOException {
        return Custodex.open(home(), Clock.systemUTC());
    }
}
