package app.custodex.base;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;

class DigestAsideTest {
    /** The example "abc" of FIPS 180-4 (NIST, "SHA-512", Examples with Intermediate Values). */
    @Test
    void itIsTheDigestOfTheStandard() throws IOException {
        var out = new DigestAside(new ByteArrayOutputStream());
        out.write('a');
        out.write("bc".getBytes(StandardCharsets.US_ASCII));
        assertEquals(
                "ddaf35a193617abacc417349ae20413112e6fa4e89a97ea20a9eeee64b55d39a"
                        + "2192992a274fc1a836ba3c23a3feebbd454d4423643ce80e2a9ac94fa54ca49f",
                out.digest().join());
    }

    @Test
    void manyAtOnceAreEachTheDigestOfTheirOwn() throws IOException {
        var random = new Random(7);
        var expected = new ArrayList<String>();
        var found = new ArrayList<CompletableFuture<String>>();
        for (int i = 0; i < 40; i++) {
            var bytes = new byte[random.nextInt(2_000_000)];
            random.nextBytes(bytes);
            var below = new ByteArrayOutputStream();
            var out = new DigestAside(below);
            for (int at = 0; at < bytes.length; ) {
                int length = Math.min(random.nextInt(300_000), bytes.length - at);
                out.write(bytes, at, length);
                at += length;
            }
            assertArrayEquals(bytes, below.toByteArray());
            expected.add(Digests.of(bytes));
            found.add(out.digest());
        }
        assertEquals(expected, found.stream().map(CompletableFuture::join).toList());
    }
}
