package app.custodex.seal;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Sealing against the age program of others, in both directions, and against tampering. */
class SealTest {
    private static final String WORDS = "harbour bucket ostrich 7 lantern";

    @TempDir
    Path folder;

    private static Passphrase passphrase(String words) {
        return new Passphrase(words.toCharArray());
    }

    private static byte[] random(int size) {
        var bytes = new byte[size];
        new Random(size).nextBytes(bytes);
        return bytes;
    }

    @Test
    void theAgeProgramOpensTheKeyWithThePassphraseAndEverythingElseWithTheKey() throws Exception {
        var key = StackKey.generate();
        var keyFile = folder.resolve("key.age");
        Files.write(keyFile, key.sealed(passphrase(WORDS)));
        var identity = folder.resolve("identity");
        AgeProgram.decryptWithPassphrase(WORDS, keyFile, identity);
        for (int size : new int[] {0, 1, 65_535, 65_536, 65_537, 200_000}) {
            var file = folder.resolve("content-" + size);
            Files.write(file, key.encrypt(random(size)));
            assertArrayEquals(random(size), AgeProgram.decrypt(identity, file), "size " + size);
        }
    }

    /** Written in pieces of odd lengths, left at the end of a chunk and gone on with. */
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 65_535, 65_536, 65_537, 131_072, 400_000})
    void theAgeProgramReadsWhatIsWrittenInPieces(int size) throws Exception {
        var key = StackKey.generate();
        var keyFile = folder.resolve("key.age");
        Files.write(keyFile, key.sealed(passphrase(WORDS)));
        var identity = folder.resolve("identity");
        AgeProgram.decryptWithPassphrase(WORDS, keyFile, identity);
        var file = folder.resolve("content");
        try (var channel = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
            var writer = key.writer(piece -> channel.write(piece));
            int done = pieces(writer, random(size), 0, size / 2);
            if (done > 1 << 16) {
                done &= -1 << 16; // what waits in the writer is gone, as after a kill
                channel.truncate(writer.begun().storedSize(done - (1 << 16)));
                done -= 1 << 16;
                channel.position(channel.size());
                writer = AgeWriter.goOn(writer.begun(), done, piece -> channel.write(piece));
            }
            pieces(writer, random(size), done, size);
            writer.finish();
        }
        assertArrayEquals(random(size), AgeProgram.decrypt(identity, file));
        try (var in = key.decrypting(file)) {
            assertArrayEquals(random(size), in.readAllBytes());
        }
    }

    private static int pieces(AgeWriter writer, byte[] whole, int from, int to) throws IOException {
        for (int at = from; at < to; ) {
            int n = Math.min(to - at, 7_001);
            writer.write(whole, at, n);
            at += n;
        }
        return to;
    }

    @Test
    void theNativeCipherAndThePlatformsWriteTheSame() throws Exception {
        var key = new SecretKeySpec(random(32), "ChaCha20");
        var plain = ByteBuffer.wrap(random(70_000));
        var natively = ByteBuffer.allocate(80_000);
        new ChunkCipher(key).encrypt(3, true, plain.duplicate(), natively);
        var onPlatform = ByteBuffer.allocate(80_000);
        new ChunkCipher(key, Optional.empty()).encrypt(3, true, plain.duplicate(), onPlatform);
        assertEquals(onPlatform, natively);
        var back = ByteBuffer.allocate(80_000);
        new ChunkCipher(key, Optional.empty()).decrypt(3, true, natively, back);
        assertEquals(plain, back);
    }

    @Test
    void whatTheAgeProgramEncryptsIsReadHere() throws Exception {
        var keyFile = folder.resolve("key.age");
        var key = StackKey.generate();
        Files.write(keyFile, key.sealed(passphrase(WORDS)));
        var identity = folder.resolve("identity");
        AgeProgram.decryptWithPassphrase(WORDS, keyFile, identity);
        var recipient = Files.readAllLines(identity).stream()
                .filter(line -> line.startsWith("# public key: "))
                .findFirst()
                .orElseThrow()
                .substring("# public key: ".length());

        assertArrayEquals(random(150_000), key.decrypt(AgeProgram.encrypt(recipient, random(150_000))));

        var secret = Files.readAllLines(identity).stream()
                .filter(line -> line.startsWith("AGE-SECRET-KEY-1"))
                .findFirst()
                .orElseThrow();
        var copy = AgeProgram.encrypt(recipient, random(70_000));
        assertTrue(CustomerKey.opens(passphrase(secret), new ByteArrayInputStream(copy)));
        assertFalse(CustomerKey.opens(passphrase("AGE-SECRET-KEY-1NOTONE"), new ByteArrayInputStream(copy)));
        assertFalse(CustomerKey.opens(passphrase("a guess"), new ByteArrayInputStream(copy)));
    }

    @Test
    void onlyTheRightPassphraseOpens() throws IOException {
        var sealed = WeakSeal.key(WORDS);
        assertTrue(StackKey.open(sealed, passphrase(WORDS)).isPresent());
        for (var wrong : List.of("", WORDS + " ", "Harbour bucket ostrich 7 lantern")) {
            assertTrue(StackKey.open(sealed, passphrase(wrong)).isEmpty(), wrong);
        }
        var again = StackKey.open(sealed, passphrase(WORDS)).orElseThrow();
        var first = StackKey.open(sealed, passphrase(WORDS)).orElseThrow();
        assertArrayEquals(random(1_000), again.decrypt(first.encrypt(random(1_000))));
        assertThrows(IOException.class, () -> StackKey.generate().decrypt(first.encrypt(random(10))));
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 25, 100, 190, 215, 70_000})
    void aChangedByteIsNoticedWhereverItIs(int at) throws IOException {
        var key = StackKey.generate();
        var sealed = key.encrypt(random(100_000));
        sealed[at] ^= 1;
        assertThrows(IOException.class, () -> key.decrypt(sealed));
        assertThrows(
                IOException.class,
                () -> key.decrypt(Arrays.copyOf(key.encrypt(random(100_000)), 70_000)),
                "a file that was cut");
    }

    @ParameterizedTest
    @CsvSource({
        "0,0,10",
        "0,5,0",
        "65536,65530,6",
        "65537,65530,7",
        "200000,65535,2",
        "200000,131072,65536",
        "200000,199990,50"
    })
    void isReadAnywhereInIt(int size, int from, int length) throws IOException {
        var key = StackKey.generate();
        var file = folder.resolve("sealed");
        Files.write(file, key.encrypt(random(size)));
        try (var sealed = key.seekable(file)) {
            assertEquals(size, sealed.size());
            sealed.position(from);
            var buffer = ByteBuffer.allocate(length);
            while (buffer.hasRemaining() && sealed.read(buffer) >= 0) {
                // as much as comes at once
            }
            assertArrayEquals(
                    Arrays.copyOfRange(random(size), Math.min(from, size), Math.min(from + length, size)),
                    Arrays.copyOf(buffer.array(), buffer.position()));
        }
        var bytes = Files.readAllBytes(file);
        bytes[bytes.length - 1] ^= 1;
        Files.write(file, bytes);
        assertThrows(IOException.class, () -> {
            try (var in = key.decrypting(file)) {
                in.readAllBytes();
            }
        });
    }

    @Test
    void theMeterIsHonest() {
        for (var weak : List.of("password", "123456789", "qwertyuiop", "Fenna Rook", "lighthouse")) {
            var strength = PassphraseStrength.of(passphrase(weak), List.of("Fenna Rook"));
            assertFalse(strength.enough(), weak);
            assertFalse(strength.advice().isEmpty(), weak);
        }
        var measured = passphrase(WORDS);
        var strong = PassphraseStrength.of(measured, List.of());
        assertTrue(measured.same(passphrase(WORDS)), "measuring leaves it as it is");
        assertTrue(strong.enough());
        assertTrue(strong.time().contains("centuries"), strong.time());
    }

    @Test
    void aPassphraseIsComparedAndWipedAndNeverPrinted() throws IOException {
        try (var one = passphrase("käse 🧀");
                var same = passphrase("käse 🧀")) {
            assertTrue(one.same(same));
            assertFalse(one.same(passphrase("käse")));
            assertEquals("a passphrase", one.toString());
            one.close();
            one.lend(characters -> assertArrayEquals(new char[characters.length], characters));
        }
    }
}
