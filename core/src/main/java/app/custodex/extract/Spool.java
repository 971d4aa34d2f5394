package app.custodex.extract;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.StandardOpenOption;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Optional;
import javax.crypto.Cipher;
import javax.crypto.CipherInputStream;
import javax.crypto.CipherOutputStream;
import javax.crypto.spec.IvParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.apache.commons.io.input.CloseShieldInputStream;
import org.apache.commons.io.output.CloseShieldOutputStream;

/**
 * Holds what is written until it is complete. Small content stays in memory; larger content goes to the disk encrypted, under a key that
 * exists nowhere but in memory, into a file that has no name any more as soon as it is open (on Windows: as soon as the program ends). So a
 * program that is killed leaves nothing.
 */
public final class Spool extends OutputStream implements Closeable {
    private static final int IN_MEMORY = 8 << 20;
    private static final int KEY = 32;
    private static final int BLOCK = 16;

    private final SecretKeySpec key;
    private final IvParameterSpec start;
    private Optional<ByteArrayOutputStream> memory = Optional.of(new ByteArrayOutputStream());
    private Optional<FileChannel> file = Optional.empty();
    private OutputStream out;
    private long size;

    public Spool() {
        var random = new SecureRandom();
        var bytes = new byte[KEY];
        random.nextBytes(bytes);
        key = new SecretKeySpec(bytes, "AES");
        var first = new byte[BLOCK];
        random.nextBytes(first);
        start = new IvParameterSpec(first);
        out = memory.get();
    }

    private Cipher cipher(int mode) throws IOException {
        try {
            var cipher = Cipher.getInstance("AES/CTR/NoPadding");
            cipher.init(mode, key, start);
            return cipher;
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
    }

    @Override
    public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
        if (memory.isPresent() && size + length > IN_MEMORY) {
            moveToDisk(memory.get());
        }
        out.write(bytes, offset, length);
        size += length;
    }

    private void moveToDisk(ByteArrayOutputStream soFar) throws IOException {
        var made = FileChannel.open(
                Files.createTempFile("custodex-", ".spool"),
                StandardOpenOption.READ,
                StandardOpenOption.WRITE,
                StandardOpenOption.DELETE_ON_CLOSE);
        file = Optional.of(made);
        out = new CipherOutputStream(
                CloseShieldOutputStream.wrap(Channels.newOutputStream(made)), cipher(Cipher.ENCRYPT_MODE));
        soFar.writeTo(out);
        memory = Optional.empty();
    }

    /** In bytes. */
    public long size() {
        return size;
    }

    /** What was written, from its beginning; nothing more may be written then, and one reads it at a time. */
    public InputStream content() throws IOException {
        out.close();
        if (memory.isPresent()) {
            return new ByteArrayInputStream(memory.get().toByteArray());
        }
        var written = file.orElseThrow().position(0);
        return new CipherInputStream(
                CloseShieldInputStream.wrap(Channels.newInputStream(written)), cipher(Cipher.DECRYPT_MODE));
    }

    @Override
    public void close() throws IOException {
        out.close();
        if (file.isPresent()) {
            file.get().close();
        }
    }
}
