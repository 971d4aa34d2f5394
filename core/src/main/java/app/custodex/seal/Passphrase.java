package app.custodex.seal;

import java.io.IOException;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** What a person types to open a seal. It never becomes a string, is never printed, and is wiped when it is closed. */
public final class Passphrase implements AutoCloseable {
    private final char[] characters;

    /** Copies the characters; the caller wipes its own. */
    public Passphrase(char[] characters) {
        this.characters = characters.clone();
    }

    public boolean isEmpty() {
        return characters.length == 0;
    }

    /** Whether the same was typed twice; takes the same time wherever they differ. */
    public boolean same(Passphrase other) {
        int differences = characters.length ^ other.characters.length;
        for (int i = 0; i < Math.min(characters.length, other.characters.length); i++) {
            differences |= characters[i] ^ other.characters[i];
        }
        return differences == 0;
    }

    /** Takes the characters for a moment. */
    public interface Borrower {
        void take(char[] characters) throws IOException;
    }

    /** Lends the characters to something that copies them, if it must keep them. */
    public void lend(Borrower borrower) throws IOException {
        borrower.take(characters);
    }

    /** A copy for estimators, which wipe what they were given. */
    CharSequence copy() {
        return CharBuffer.wrap(characters.clone());
    }

    /** UTF-8, as the age program reads it from a terminal; the caller wipes it. */
    byte[] utf8() {
        var encoded = StandardCharsets.UTF_8.encode(CharBuffer.wrap(characters));
        var bytes = new byte[encoded.remaining()];
        encoded.get(bytes);
        Arrays.fill(encoded.array(), (byte) 0);
        return bytes;
    }

    @Override
    public void close() {
        Arrays.fill(characters, '\0');
    }

    @Override
    public String toString() {
        return "a passphrase";
    }
}
