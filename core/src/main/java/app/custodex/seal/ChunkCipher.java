package app.custodex.seal;

import java.nio.ByteBuffer;
import java.security.GeneralSecurityException;
import java.security.Provider;
import java.util.Optional;
import javax.crypto.Cipher;
import javax.crypto.SecretKey;
import javax.crypto.spec.IvParameterSpec;
import org.conscrypt.Conscrypt;

/**
 * Encrypts and decrypts the chunks of an age payload ("Payload", age-encryption.org/v1) with ChaCha20-Poly1305 (RFC 8439). A native
 * library does it where there is one for this computer, at several times the speed of the platform's own cipher.
 */
final class ChunkCipher {
    /** Bytes of content in a chunk. */
    static final int CHUNK = 1 << 16;

    /** Bytes that a chunk is longer when it is encrypted. */
    static final int TAG = 16;

    private static final Optional<Provider> NATIVE =
            Conscrypt.isAvailable() ? Optional.of(Conscrypt.newProvider()) : Optional.empty();

    private final SecretKey key;
    private final Cipher cipher;

    ChunkCipher(SecretKey key) {
        this(key, NATIVE);
    }

    ChunkCipher(SecretKey key, Optional<Provider> provider) {
        this.key = key;
        try {
            cipher = provider.isPresent()
                    ? Cipher.getInstance("ChaCha20/Poly1305/NoPadding", provider.get())
                    : Cipher.getInstance("ChaCha20-Poly1305");
        } catch (GeneralSecurityException e) {
            throw new AssertionError("every Java platform has ChaCha20-Poly1305", e);
        }
    }

    /** A buffer of the sort that this cipher is fast with. */
    static ByteBuffer buffer(int size) {
        return NATIVE.isPresent() ? ByteBuffer.allocateDirect(size) : ByteBuffer.allocate(size);
    }

    /**
     * @param last whether the file ends with this chunk
     * @param out is left ready for reading
     */
    void encrypt(long number, boolean last, ByteBuffer plain, ByteBuffer out) throws GeneralSecurityException {
        code(Cipher.ENCRYPT_MODE, number, last, plain, out);
    }

    /**
     * @param out is left ready for reading
     * @throws GeneralSecurityException when the chunk is not what was written
     */
    void decrypt(long number, boolean last, ByteBuffer sealed, ByteBuffer out) throws GeneralSecurityException {
        code(Cipher.DECRYPT_MODE, number, last, sealed, out);
    }

    private void code(int mode, long number, boolean last, ByteBuffer in, ByteBuffer out)
            throws GeneralSecurityException {
        var nonce = new byte[12];
        ByteBuffer.wrap(nonce).putLong(3, number);
        nonce[11] = (byte) (last ? 1 : 0);
        cipher.init(mode, key, new IvParameterSpec(nonce));
        out.clear();
        cipher.doFinal(in, out);
        out.flip();
    }
}
