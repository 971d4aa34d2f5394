package app.custodex.base;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** The one digest of the strongroom: SHA-512 (FIPS 180-4), as lower-case hexadecimal. */
public final class Digests {
    /** The digest's name in OCFL and as a file ending. */
    public static final String ALGORITHM = "sha512";

    private Digests() {}

    public static MessageDigest sha512() {
        try {
            return MessageDigest.getInstance("SHA-512");
        } catch (NoSuchAlgorithmException e) {
            throw new AssertionError("every Java platform has SHA-512", e);
        }
    }

    /** Ends the digest and writes it as hexadecimal. */
    public static String hex(MessageDigest digest) {
        return HexFormat.of().formatHex(digest.digest());
    }

    public static String of(byte[] bytes) {
        var digest = sha512();
        digest.update(bytes);
        return hex(digest);
    }

    /** Reads to the end; the caller closes the stream. */
    public static String of(InputStream in) throws IOException {
        var digest = sha512();
        var buffer = new byte[1 << 16];
        for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
            digest.update(buffer, 0, n);
        }
        return hex(digest);
    }
}
