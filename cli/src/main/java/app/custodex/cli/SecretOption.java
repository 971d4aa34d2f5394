package app.custodex.cli;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import picocli.CommandLine.Option;

/** Asks for secrets: on the terminal without showing them, or on standard input. They are never words of the command. */
final class SecretOption {
    private static final int LONGEST = 4096;

    /** Replaced by tests. */
    static InputStream in = System.in;

    @Option(
            names = "--secrets-stdin",
            description =
                    "Read passphrases, passwords and codes from standard input, one a line, in the order of asking")
    private boolean standardInput;

    /** @param what is asked for, shown on the terminal */
    Passphrase ask(String what) throws IOException {
        if (standardInput) {
            return line(what);
        }
        var console = System.console();
        if (console == null || !console.isTerminal()) {
            throw new ProblemException(Problem.failure(
                    what, "It is needed, and there is no terminal to ask on", "Give it with --secrets-stdin"));
        }
        var typed = console.readPassword("%s: ", what);
        if (typed == null) {
            throw new ProblemException(Problem.failure(what, "Nothing was entered", "Start again"));
        }
        try {
            return new Passphrase(typed);
        } finally {
            Arrays.fill(typed, '\0');
        }
    }

    private static Passphrase line(String what) throws IOException {
        var bytes = new byte[LONGEST];
        int length = 0;
        int b = in.read();
        for (; b >= 0 && b != '\n' && length < LONGEST; b = in.read()) {
            bytes[length++] = (byte) b;
        }
        if (b < 0 && length == 0) {
            throw new ProblemException(
                    Problem.failure(what, "Standard input ended before it", "Write one secret a line"));
        }
        if (length > 0 && bytes[length - 1] == '\r') {
            length--;
        }
        var decoded = StandardCharsets.UTF_8.decode(ByteBuffer.wrap(bytes, 0, length));
        var characters = new char[decoded.remaining()];
        decoded.get(characters);
        try {
            return new Passphrase(characters);
        } finally {
            Arrays.fill(bytes, (byte) 0);
            Arrays.fill(decoded.array(), '\0');
            Arrays.fill(characters, '\0');
        }
    }
}
