package app.custodex.seal;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The independent reader and writer: the age program of Debian (package "age"), written by others in another language. */
public final class AgeProgram {
    private AgeProgram() {}

    /** Decrypts a file with an identity. */
    public static byte[] decrypt(Path identity, Path file) throws IOException, InterruptedException {
        return run(new byte[0], "age", "--decrypt", "--identity", identity.toString(), file.toString());
    }

    /** Encrypts for a recipient. */
    public static byte[] encrypt(String recipient, byte[] plain) throws IOException, InterruptedException {
        return run(plain, "age", "--recipient", recipient);
    }

    /** Decrypts a file under a passphrase; age reads it from a terminal only, so it is given one. */
    public static void decryptWithPassphrase(String passphrase, Path file, Path out)
            throws IOException, InterruptedException {
        var command = "age --decrypt --output '" + out + "' '" + file + "'";
        run((passphrase + "\n").getBytes(StandardCharsets.UTF_8), "script", "-qec", command, "/dev/null");
    }

    private static byte[] run(byte[] in, String... command) throws IOException, InterruptedException {
        var builder = new ProcessBuilder(new ArrayList<>(List.of(command)));
        builder.redirectError(ProcessBuilder.Redirect.INHERIT);
        var process = builder.start();
        var feeder = Thread.ofVirtual().start(() -> {
            try (var to = process.getOutputStream()) {
                to.write(in);
                to.flush();
                if (command[0].equals("script")) {
                    process.waitFor(); // a terminal that closes early takes the question with it
                }
            } catch (IOException e) {
                // It ended without reading all; its exit code tells.
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        var out = process.getInputStream().readAllBytes();
        int code = process.waitFor();
        feeder.join();
        if (code != 0) {
            throw new IOException(
                    String.join(" ", command) + " ended with " + code + ": " + new String(out, StandardCharsets.UTF_8));
        }
        return out;
    }
}
