package app.custodex.seal;

import com.exceptionfactory.jagged.framework.stream.StandardEncryptingChannelFactory;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.security.GeneralSecurityException;
import java.util.List;

/** Seals a file under a passphrase alone (age-encryption.org/v1, scrypt), so that the program age opens it anywhere. */
public final class PassphraseSeal {
    private PassphraseSeal() {}

    /**
     * What is written is sealed; the file is whole once the stream is closed.
     *
     * @param out is closed with it
     */
    public static OutputStream over(OutputStream out, Passphrase passphrase) throws IOException {
        try {
            return Channels.newOutputStream(new StandardEncryptingChannelFactory()
                    .newEncryptingChannel(
                            Channels.newChannel(out),
                            List.of(ScryptStanza.writer(passphrase, ScryptStanza.WORK_FACTOR))));
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
    }
}
