package app.custodex.seal;

import com.exceptionfactory.jagged.FileKey;
import com.exceptionfactory.jagged.RecipientStanza;
import com.exceptionfactory.jagged.RecipientStanzaReader;
import com.exceptionfactory.jagged.RecipientStanzaWriter;
import com.exceptionfactory.jagged.UnsupportedRecipientStanzaException;
import com.exceptionfactory.jagged.framework.codec.CanonicalBase64;
import com.exceptionfactory.jagged.framework.crypto.CipherKey;
import com.exceptionfactory.jagged.framework.crypto.EncryptedFileKey;
import com.exceptionfactory.jagged.framework.crypto.FileKeyDecryptorFactory;
import com.exceptionfactory.jagged.framework.crypto.FileKeyEncryptorFactory;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import org.bouncycastle.crypto.generators.SCrypt;

/** The passphrase recipient of age ("The scrypt recipient type", age-encryption.org/v1). */
final class ScryptStanza {
    /** Two to this power is scrypt's N; about a second of a core and 256 MiB. */
    static final int WORK_FACTOR = 18;

    /** More than this is not ours, and would take minutes and gigabytes to refuse. */
    private static final int HIGHEST_WORK_FACTOR = 20;

    private static final String TYPE = "scrypt";
    private static final byte[] LABEL = "age-encryption.org/v1/scrypt".getBytes(StandardCharsets.US_ASCII);
    private static final int SALT = 16;
    private static final Pattern NUMBER = Pattern.compile("[1-9][0-9]?");
    private static final SecureRandom RANDOM = new SecureRandom();

    private ScryptStanza() {}

    private record Stanza(List<String> arguments, byte[] body) implements RecipientStanza {
        @Override
        public String getType() {
            return TYPE;
        }

        @Override
        public List<String> getArguments() {
            return arguments;
        }

        @Override
        public byte[] getBody() {
            return body;
        }
    }

    private static CipherKey wrapKey(Passphrase passphrase, byte[] salt, int workFactor) {
        var labelled = Arrays.copyOf(LABEL, LABEL.length + SALT);
        System.arraycopy(salt, 0, labelled, LABEL.length, SALT);
        var bytes = passphrase.utf8();
        try {
            return new CipherKey(SCrypt.generate(bytes, labelled, 1 << workFactor, 8, 1, 32));
        } finally {
            Arrays.fill(bytes, (byte) 0);
        }
    }

    static RecipientStanzaWriter writer(Passphrase passphrase, int workFactor) {
        return fileKey -> {
            var salt = new byte[SALT];
            RANDOM.nextBytes(salt);
            var body = new FileKeyEncryptorFactory()
                    .newFileKeyEncryptor()
                    .getEncryptedFileKey(fileKey, wrapKey(passphrase, salt, workFactor))
                    .getEncoded();
            return List.of(new Stanza(
                    List.of(CanonicalBase64.getEncoder().encodeToString(salt), Integer.toString(workFactor)), body));
        };
    }

    static RecipientStanzaReader reader(Passphrase passphrase) {
        return new RecipientStanzaReader() {
            @Override
            public FileKey getFileKey(Iterable<RecipientStanza> stanzas) throws GeneralSecurityException {
                return fileKey(stanzas, passphrase);
            }
        };
    }

    private static FileKey fileKey(Iterable<RecipientStanza> stanzas, Passphrase passphrase)
            throws GeneralSecurityException {
        var all = stanzas.iterator();
        var stanza = all.next();
        // The format demands that a passphrase stands alone.
        if (all.hasNext()
                || !stanza.getType().equals(TYPE)
                || stanza.getArguments().size() != 2) {
            throw new UnsupportedRecipientStanzaException("not sealed by one passphrase");
        }
        var written = stanza.getArguments().get(1);
        if (!NUMBER.matcher(written).matches() || Integer.parseInt(written) > HIGHEST_WORK_FACTOR) {
            throw new UnsupportedRecipientStanzaException("work factor " + written);
        }
        var salt = CanonicalBase64.getDecoder()
                .decode(stanza.getArguments().getFirst().getBytes(StandardCharsets.US_ASCII));
        if (salt.length != SALT || stanza.getBody().length != 32) {
            throw new UnsupportedRecipientStanzaException("malformed scrypt stanza");
        }
        return new FileKeyDecryptorFactory()
                .newFileKeyDecryptor()
                .getFileKey(
                        new EncryptedFileKey(stanza.getBody()), wrapKey(passphrase, salt, Integer.parseInt(written)));
    }
}
