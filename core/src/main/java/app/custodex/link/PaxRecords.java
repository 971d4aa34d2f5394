package app.custodex.link;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/**
 * The extended headers of a TAR member as bytes (POSIX.1-2017, pax, "pax Extended Header"). The library takes them for UTF-8, which
 * they should be; some programs write names there that are not.
 */
final class PaxRecords {
    private static final int BLOCK = 512;
    private static final int TYPE = 156;
    private static final int SIZE = 124;
    private static final int SIZE_LENGTH = 12;
    /** A name can't be longer on any system. */
    private static final int LONGEST = 1 << 20;

    private PaxRecords() {}

    /**
     * The value of a keyword.
     *
     * @param start where the member's headers begin
     * @param end where its own header begins
     */
    static Optional<byte[]> value(FileChannel channel, long start, long end, String keyword) throws IOException {
        if (start < 0 || end <= start || end - start > LONGEST) {
            return Optional.empty();
        }
        var headers = ByteBuffer.allocate((int) (end - start));
        while (headers.hasRemaining() && channel.read(headers, start + headers.position()) >= 0) {
            // until all of them are here
        }
        var bytes = headers.array();
        for (int at = 0; at + BLOCK <= bytes.length; ) {
            int size = size(bytes, at);
            if (bytes[at + TYPE] == 'x') {
                return find(Arrays.copyOfRange(bytes, at + BLOCK, Math.min(bytes.length, at + BLOCK + size)), keyword);
            }
            at += BLOCK + (size + BLOCK - 1) / BLOCK * BLOCK;
        }
        return Optional.empty();
    }

    private static int size(byte[] bytes, int at) {
        var digits =
                new String(bytes, at + SIZE, SIZE_LENGTH, StandardCharsets.ISO_8859_1).replaceAll("[^0-7]|^0+", "");
        return digits.isEmpty() || digits.length() > 8 ? 0 : Integer.parseInt(digits, 8);
    }

    /** Each record is its own length in decimal, a blank, the keyword, "=", the value and a line break. */
    private static Optional<byte[]> find(byte[] records, String keyword) {
        for (int at = 0; at < records.length; ) {
            int blank = at;
            int length = 0;
            for (;
                    blank < records.length && records[blank] >= '0' && records[blank] <= '9' && blank - at < 7;
                    blank++) {
                length = length * 10 + records[blank] - '0';
            }
            if (length < 4 || at + length > records.length) {
                return Optional.empty();
            }
            var record = new String(records, blank + 1, at + length - blank - 2, StandardCharsets.ISO_8859_1);
            if (record.startsWith(keyword + "=")) {
                return Optional.of(record.substring(keyword.length() + 1).getBytes(StandardCharsets.ISO_8859_1));
            }
            at += length;
        }
        return Optional.empty();
    }
}
