package app.custodex.readers;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.Map;

/**
 * The log beside a database, as SQLite's "Database File Format", §4, describes it.
 *
 * @param pages where in the log the newest state of a page lies, of what was committed; bytes from its beginning
 * @param torn whether it is not whole, so that the newest changes may be missing
 */
record WriteAheadLog(Map<Integer, Long> pages, boolean torn) {
    static final WriteAheadLog NONE = new WriteAheadLog(Map.of(), false);

    private static final int HEADER = 32;
    private static final int FRAME_HEADER = 24;
    private static final int MAGIC = 0x377f0682;
    private static final WriteAheadLog USELESS = new WriteAheadLog(Map.of(), true);

    WriteAheadLog {
        pages = Map.copyOf(pages);
    }

    /** The running checksum of §4.2: of words in the order that the header names. */
    private static final class Sum {
        private final ByteOrder order;
        private int first;
        private int second;

        Sum(ByteOrder order) {
            this.order = order;
        }

        void add(ByteBuffer bytes) {
            bytes.order(order);
            while (bytes.remaining() >= 8) {
                first += bytes.getInt() + second;
                second += bytes.getInt() + first;
            }
            bytes.order(ByteOrder.BIG_ENDIAN);
        }

        boolean equals(int one, int other) {
            return first == one && second == other;
        }
    }

    /** @param file may not be there */
    static WriteAheadLog read(Path file) throws IOException {
        if (!Files.exists(file) || Files.size(file) == 0) {
            return NONE;
        }
        try (var channel = FileChannel.open(file, StandardOpenOption.READ)) {
            var header = bytes(channel, 0, HEADER);
            if (header.remaining() < HEADER || (header.getInt(0) & ~1) != MAGIC) {
                return USELESS;
            }
            int page = header.getInt(8);
            var sum = new Sum((header.getInt(0) & 1) == 1 ? ByteOrder.BIG_ENDIAN : ByteOrder.LITTLE_ENDIAN);
            sum.add(header.slice(0, FRAME_HEADER));
            if (!sum.equals(header.getInt(24), header.getInt(28)) || page < 512 || page > 65_536) {
                return USELESS;
            }
            return frames(channel, page, header.getLong(16), sum);
        }
    }

    /** @param salts those of the header: frames with others are left from an older use of the log */
    private static WriteAheadLog frames(FileChannel channel, int page, long salts, Sum sum) throws IOException {
        var committed = new HashMap<Integer, Long>();
        var pending = new HashMap<Integer, Long>();
        long at = HEADER;
        long length = (long) FRAME_HEADER + page;
        boolean whole = true;
        for (; whole && at + length <= channel.size(); at += length) {
            var frame = bytes(channel, at, (int) length);
            sum.add(frame.slice(0, 8));
            sum.add(frame.slice(FRAME_HEADER, page));
            whole = frame.getLong(8) == salts && sum.equals(frame.getInt(16), frame.getInt(20));
            if (whole) {
                pending.put(frame.getInt(0), at + FRAME_HEADER);
                if (frame.getInt(4) != 0) { // the last frame of a transaction
                    committed.putAll(pending);
                    pending.clear();
                }
            }
        }
        // Behind the last whole frame nothing of this use of the log may follow.
        boolean torn = !pending.isEmpty();
        for (at = whole ? at : at - length; !torn && at + 16 <= channel.size(); at += length) {
            torn = bytes(channel, at, 16).getLong(8) == salts;
        }
        return new WriteAheadLog(committed, torn);
    }

    private static ByteBuffer bytes(FileChannel channel, long at, int length) throws IOException {
        var bytes = ByteBuffer.allocate(length);
        for (long from = at; bytes.hasRemaining(); ) {
            int n = channel.read(bytes, from);
            if (n < 0) {
                break;
            }
            from += n;
        }
        return bytes.flip();
    }
}
