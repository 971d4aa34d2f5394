package app.custodex.seal;

import com.exceptionfactory.jagged.RecipientStanzaReader;
import com.exceptionfactory.jagged.RecipientStanzaWriter;
import com.exceptionfactory.jagged.framework.format.StandardPayloadKeyReader;
import com.exceptionfactory.jagged.framework.format.StandardPayloadKeyWriter;
import com.exceptionfactory.jagged.framework.stream.StandardDecryptingChannelFactory;
import com.exceptionfactory.jagged.framework.stream.StandardEncryptingChannelFactory;
import com.exceptionfactory.jagged.x25519.X25519KeyPairGenerator;
import com.exceptionfactory.jagged.x25519.X25519RecipientStanzaReaderFactory;
import com.exceptionfactory.jagged.x25519.X25519RecipientStanzaWriterFactory;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The key of one phone's sealed stack: an age X25519 identity. It lies on the disk only as an age file under the passphrase, in
 * the form that {@code age-keygen} writes, so {@code age -d} opens it and {@code age -d -i} everything else.
 */
public final class StackKey {
    private static final String SEALED_BY_PASSPHRASE = "age-encryption.org/v1\n-> scrypt ";
    private static final Pattern IDENTITY = Pattern.compile("AGE-SECRET-KEY-1[0-9A-Z]+");
    private static final Pattern RECIPIENT = Pattern.compile("# public key: (age1[0-9a-z]+)");

    private final String written;
    private final RecipientStanzaWriter writer;
    private final RecipientStanzaReader reader;

    private StackKey(String written) throws GeneralSecurityException {
        var identity = IDENTITY.matcher(written);
        var recipient = RECIPIENT.matcher(written);
        if (!identity.find() || !recipient.find()) {
            throw new GeneralSecurityException("not an age identity");
        }
        this.written = written;
        this.writer = X25519RecipientStanzaWriterFactory.newRecipientStanzaWriter(recipient.group(1));
        this.reader = X25519RecipientStanzaReaderFactory.newRecipientStanzaReader(identity.group());
    }

    public static StackKey generate() {
        try {
            var pair = new X25519KeyPairGenerator().generateKeyPair();
            return new StackKey("# public key: " + pair.getPublic() + "\n" + pair.getPrivate() + "\n");
        } catch (GeneralSecurityException e) {
            throw new AssertionError("every Java platform has X25519", e);
        }
    }

    /** The key as an age file that the passphrase opens. Takes about a second and 256 MiB. */
    public byte[] sealed(Passphrase passphrase) throws IOException {
        return sealed(passphrase, ScryptStanza.WORK_FACTOR);
    }

    /** @param workFactor the power of two that is scrypt's N */
    byte[] sealed(Passphrase passphrase, int workFactor) throws IOException {
        return encrypt(written.getBytes(StandardCharsets.US_ASCII), ScryptStanza.writer(passphrase, workFactor));
    }

    /**
     * Opens what {@link #sealed} gave. Takes about a second and 256 MiB.
     *
     * @return empty when the passphrase is not the right one
     * @throws IOException when the file is damaged, which can't always be told from a wrong passphrase
     */
    public static Optional<StackKey> open(byte[] sealed, Passphrase passphrase) throws IOException {
        if (!new String(sealed, StandardCharsets.ISO_8859_1).startsWith(SEALED_BY_PASSPHRASE)) {
            throw new IOException("not an age file under a passphrase");
        }
        try {
            var plain = decrypt(sealed, ScryptStanza.reader(passphrase));
            return Optional.of(new StackKey(new String(plain, StandardCharsets.US_ASCII)));
        } catch (GeneralSecurityException wrong) {
            return Optional.empty();
        }
    }

    /** Begins an age file that only this key opens. */
    public AgeWriter writer(AgeWriter.Out out) throws IOException {
        var header = ByteBuffer.allocate(AgeFile.LONGEST_HEADER);
        try {
            var key = new StandardPayloadKeyWriter().writeFileHeader(header, List.of(writer));
            var bytes = new byte[header.flip().remaining()];
            header.get(bytes);
            return AgeWriter.begin(bytes, key.getEncoded(), out);
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
    }

    public byte[] encrypt(byte[] plain) throws IOException {
        return encrypt(plain, writer);
    }

    private static byte[] encrypt(byte[] plain, RecipientStanzaWriter writer) throws IOException {
        var bytes = new ByteArrayOutputStream(plain.length + 512);
        var out = Channels.newChannel(bytes);
        try (var channel = new StandardEncryptingChannelFactory().newEncryptingChannel(out, List.of(writer))) {
            for (var left = ByteBuffer.wrap(plain); left.hasRemaining(); ) {
                channel.write(left);
            }
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
        return bytes.toByteArray();
    }

    /** @throws IOException when it was not encrypted for this key, or was changed since */
    public byte[] decrypt(byte[] sealed) throws IOException {
        try {
            return decrypt(sealed, reader);
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
    }

    private static byte[] decrypt(byte[] sealed, RecipientStanzaReader reader)
            throws IOException, GeneralSecurityException {
        var in = Channels.newChannel(new ByteArrayInputStream(sealed));
        try (var channel = new StandardDecryptingChannelFactory().newDecryptingChannel(in, List.of(reader));
                var stream = Channels.newInputStream(channel)) {
            return stream.readAllBytes();
        }
    }

    /** Reads a sealed file from its start. */
    public InputStream decrypting(Path file) throws IOException {
        return Channels.newInputStream(seekable(file));
    }

    /** Opens a sealed file for reading anywhere in it; positions and sizes are those of the plain content. */
    public AgeFile seekable(Path file) throws IOException {
        var channel = FileChannel.open(file);
        try {
            return new AgeFile(channel, header -> {
                try {
                    return new StandardPayloadKeyReader().getPayloadKey(header, List.of(reader));
                } catch (GeneralSecurityException e) {
                    throw new IOException(e);
                }
            });
        } catch (IOException | RuntimeException e) {
            channel.close();
            throw e;
        }
    }

    @Override
    public String toString() {
        return "a stack key";
    }
}
