package app.custodex.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;

/** Starts the command line. */
public final class Main {
    private Main() {}

    public static void main(String[] args) {
        System.exit(run(
                new PrintWriter(System.out, true, StandardCharsets.UTF_8),
                new PrintWriter(System.err, true, StandardCharsets.UTF_8),
                args));
    }

    /** Runs one command and gives its exit code. */
    static int run(PrintWriter out, PrintWriter err, String... args) {
        return new CommandLine(new CustodexCommand())
                .setOut(new PrintWriter(new TerminalWriter(out), true))
                .setErr(new PrintWriter(new TerminalWriter(err), true))
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler(new ProblemPrinter())
                .execute(args);
    }
}
