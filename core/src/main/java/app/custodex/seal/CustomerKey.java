package app.custodex.seal;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import com.exceptionfactory.jagged.RecipientStanzaReader;
import com.exceptionfactory.jagged.framework.stream.StandardDecryptingChannelFactory;
import com.exceptionfactory.jagged.x25519.X25519RecipientStanzaReaderFactory;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.channels.Channels;
import java.nio.channels.ReadableByteChannel;
import java.security.GeneralSecurityException;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;

/** A key that a customer keeps for the copies of an app: an age identity (age-encryption.org/v1). */
public final class CustomerKey {
    private CustomerKey() {}

    /**
     * Whether a key opens an age file, told by its header and first block.
     *
     * @param sealed the file from its start; read no further than needed, and not closed
     */
    public static boolean opens(Passphrase key, InputStream sealed) throws IOException {
        var opened = new boolean[1];
        key.lend(characters -> opened[0] = opens(CharBuffer.wrap(characters), sealed));
        return opened[0];
    }

    private static boolean opens(CharSequence key, InputStream sealed) throws IOException {
        try {
            channel(key, sealed).read(ByteBuffer.allocate(1));
            return true;
        } catch (GeneralSecurityException wrong) {
            return false;
        }
    }

    /**
     * What an age file holds.
     *
     * @param subject what the file is called, for what is told
     * @throws ProblemException when the key does not open it
     */
    public static InputStream decrypting(Passphrase key, InputStream sealed, String subject) throws IOException {
        var opened = new AtomicReference<InputStream>();
        key.lend(characters -> {
            try {
                opened.set(Channels.newInputStream(channel(CharBuffer.wrap(characters), sealed)));
            } catch (GeneralSecurityException wrong) {
                sealed.close();
                throw new ProblemException(
                        Problem.failure(
                                subject, "This key does not open the app's copy", "Ask the customer for the key again"),
                        wrong);
            }
        });
        return Objects.requireNonNull(opened.get());
    }

    private static ReadableByteChannel channel(CharSequence key, InputStream sealed)
            throws IOException, GeneralSecurityException {
        RecipientStanzaReader reader;
        try {
            reader = X25519RecipientStanzaReaderFactory.newRecipientStanzaReader(key);
        } catch (IllegalArgumentException notAKey) {
            throw new GeneralSecurityException(notAKey);
        }
        return new StandardDecryptingChannelFactory()
                .newDecryptingChannel(Channels.newChannel(sealed), List.of(reader));
    }
}
