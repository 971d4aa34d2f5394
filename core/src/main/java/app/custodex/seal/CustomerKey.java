package app.custodex.seal;

import com.exceptionfactory.jagged.RecipientStanzaReader;
import com.exceptionfactory.jagged.framework.stream.StandardDecryptingChannelFactory;
import com.exceptionfactory.jagged.x25519.X25519RecipientStanzaReaderFactory;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.channels.Channels;
import java.security.GeneralSecurityException;
import java.util.List;

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
        RecipientStanzaReader reader;
        try {
            reader = X25519RecipientStanzaReaderFactory.newRecipientStanzaReader(key);
        } catch (GeneralSecurityException | IllegalArgumentException notAKey) {
            return false;
        }
        try {
            var plain = new StandardDecryptingChannelFactory()
                    .newDecryptingChannel(Channels.newChannel(sealed), List.of(reader));
            plain.read(ByteBuffer.allocate(1));
            return true;
        } catch (GeneralSecurityException wrong) {
            return false;
        }
    }
}
