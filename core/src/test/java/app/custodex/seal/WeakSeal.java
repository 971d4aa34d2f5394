package app.custodex.seal;

import java.io.IOException;

/** Seals that open fast, for tests that open hundreds of them. */
public final class WeakSeal {
    private static final int WORK_FACTOR = 4;

    private WeakSeal() {}

    public static byte[] key(String passphrase) throws IOException {
        try (var typed = new Passphrase(passphrase.toCharArray())) {
            return StackKey.generate().sealed(typed, WORK_FACTOR);
        }
    }
}
