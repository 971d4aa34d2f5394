package app.custodex.seal;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sealed files that were changed in every way are refused here exactly when the age program refuses them. */
class AgeDamageTest {
    private static final int CHUNK = 65_536;
    private static final int SEALED = CHUNK + 16;

    @TempDir
    Path folder;

    private final StackKey key = StackKey.generate();
    private final Random random = new Random(5);
    private Path identity;

    @BeforeEach
    void identity() throws Exception {
        var words = new Passphrase("any words".toCharArray());
        var keyFile = folder.resolve("key.age");
        Files.write(keyFile, key.sealed(words, 4));
        identity = folder.resolve("identity");
        AgeProgram.decryptWithPassphrase("any words", keyFile, identity);
    }

    private byte[] content(int size) {
        var bytes = new byte[size];
        new Random(size).nextBytes(bytes);
        return bytes;
    }

    private record Sealed(byte[] bytes, int header) {
        byte[] headerBytes() {
            return Arrays.copyOf(bytes, header);
        }

        byte[] chunk(int number) {
            int from = header + number * SEALED;
            return Arrays.copyOfRange(bytes, from, Math.min(from + SEALED, bytes.length));
        }
    }

    private Sealed seal(byte[] content) throws IOException {
        var out = new ByteArrayOutputStream();
        var writer = key.writer(piece -> {
            var bytes = new byte[piece.remaining()];
            piece.get(bytes);
            out.writeBytes(bytes);
        });
        int header = out.size();
        writer.write(content, 0, content.length);
        writer.finish();
        return new Sealed(out.toByteArray(), header);
    }

    private static byte[] joined(byte[]... parts) {
        var out = new ByteArrayOutputStream();
        for (var part : parts) {
            out.writeBytes(part);
        }
        return out.toByteArray();
    }

    private Optional<byte[]> byProgram(Path file) throws InterruptedException {
        try {
            return Optional.of(AgeProgram.decrypt(identity, file));
        } catch (IOException refused) {
            return Optional.empty();
        }
    }

    private Optional<byte[]> here(Path file) {
        try (var in = key.decrypting(file)) {
            return Optional.of(in.readAllBytes());
        } catch (IOException refused) {
            return Optional.empty();
        }
    }

    private Map<String, byte[]> damaged(Sealed sealed) {
        var all = new LinkedHashMap<String, byte[]>();
        var whole = sealed.bytes();
        for (int i = 0; i < 12; i++) {
            var flipped = whole.clone();
            int at = random.nextInt(whole.length);
            flipped[at] ^= (byte) (1 << random.nextInt(8));
            all.put("flip at " + at, flipped);
            int end = random.nextInt(whole.length);
            all.put("cut at " + end, Arrays.copyOf(whole, end));
        }
        var head = sealed.headerBytes();
        all.put("one chunk is missing", joined(head, sealed.chunk(0), sealed.chunk(2)));
        all.put("two chunks changed places", joined(head, sealed.chunk(1), sealed.chunk(0), sealed.chunk(2)));
        all.put("a chunk came twice", joined(head, sealed.chunk(0), sealed.chunk(0), sealed.chunk(1), sealed.chunk(2)));
        all.put("it ends behind a whole chunk", joined(head, sealed.chunk(0), sealed.chunk(1)));
        all.put("something follows", joined(whole, new byte[] {1}));
        all.put("a chunk's worth follows", joined(whole, content(SEALED)));
        all.put("no payload", head);
        all.put("half a tag", joined(head, new byte[8]));
        all.put("nothing", new byte[0]);
        return all;
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void whatTheProgramRefusesIsRefusedHere() throws Exception {
        var content = content(3 * CHUNK - 100);
        var file = folder.resolve("sealed");
        int refused = 0;
        for (var each : damaged(seal(content)).entrySet()) {
            Files.write(file, each.getValue());
            var theirs = byProgram(file);
            var ours = here(file);
            assertEquals(theirs.isPresent(), ours.isPresent(), each.getKey());
            if (ours.isPresent()) {
                assertArrayEquals(content, ours.get(), each.getKey());
            } else {
                refused++;
            }
        }
        assertTrue(refused > 30, refused + " were refused");
    }

    /** The end mark is read when a file is opened, so a file that was cut gives nothing at all. */
    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void aFileThatWasCutBehindAChunkIsNotEvenOpened() throws Exception {
        var sealed = seal(content(3 * CHUNK));
        var file = folder.resolve("sealed");
        Files.write(file, joined(sealed.headerBytes(), sealed.chunk(0), sealed.chunk(1)));
        assertThrows(IOException.class, () -> key.seekable(file).close());
    }

    @Test
    void anUnfinishedFileIsReadUpToWhereItIsWhole() throws Exception {
        var content = content(5 * CHUNK);
        var sealed = seal(content);
        var file = folder.resolve("unfinished");
        var begun = new AgeWriter.Begun[1];
        var out = new ByteArrayOutputStream();
        var writer = key.writer(piece -> {
            var bytes = new byte[piece.remaining()];
            piece.get(bytes);
            out.writeBytes(bytes);
        });
        begun[0] = writer.begun();
        writer.write(content, 0, content.length);
        for (int cut : new int[] {
            0, 10, sealed.header(), sealed.header() + SEALED - 1, sealed.header() + 2 * SEALED, out.size()
        }) {
            var bytes = Arrays.copyOf(out.toByteArray(), cut);
            Files.write(file, bytes);
            var read = new ByteArrayOutputStream();
            long there;
            try (var channel = java.nio.channels.FileChannel.open(file)) {
                there = AgeWriter.readUnfinished(channel, begun[0], content.length, chunk -> {
                    var plain = new byte[chunk.remaining()];
                    chunk.get(plain);
                    read.writeBytes(plain);
                });
            }
            long whole = cut < sealed.header() ? -1 : (long) (cut - sealed.header()) / SEALED * CHUNK;
            assertEquals(whole, there, "cut at " + cut);
            assertArrayEquals(Arrays.copyOf(content, (int) Math.max(whole, 0)), read.toByteArray());
        }
        assertTrue(!begun[0].toString().contains(begun[0].key()), "the key gets into no log");
    }
}
