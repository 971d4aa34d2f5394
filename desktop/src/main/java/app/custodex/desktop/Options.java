package app.custodex.desktop;

import app.custodex.app.Home;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/**
 * What was asked for at the start.
 *
 * @param demo practice phones and demo data
 * @param fresh starts over: what is in the home folder is removed first
 */
record Options(Home home, boolean demo, boolean fresh) {
    static final String USAGE = """
            custodex demo [--home FOLDER] [--fresh]   start with practice phones and demo data
            custodex open [--home FOLDER]             start without practice phones""";

    /** @throws IllegalArgumentException when it is not understood; the message is for the person who wrote it */
    static Options parse(List<String> arguments) {
        var command = arguments.isEmpty() ? "open" : arguments.getFirst();
        boolean demo = command.equals("demo");
        if (!demo && !command.equals("open")) {
            throw new IllegalArgumentException("Not understood: " + command + "\n" + USAGE);
        }
        Optional<Path> home = Optional.empty();
        boolean fresh = false;
        for (int i = 1; i < arguments.size(); i++) {
            var word = arguments.get(i);
            if (word.equals("--fresh") && command.equals("demo")) {
                fresh = true;
            } else if (word.equals("--home") && i + 1 < arguments.size()) {
                home = Optional.of(Path.of(arguments.get(++i)).toAbsolutePath());
            } else {
                throw new IllegalArgumentException("Not understood: " + word + "\n" + USAGE);
            }
        }
        var data =
                Home.userData(System.getenv(), System.getProperty("os.name"), Path.of(System.getProperty("user.home")));
        return new Options(new Home(home.orElse(data.resolve(demo ? "custodex-demo" : "custodex"))), demo, fresh);
    }
}
