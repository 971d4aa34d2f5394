package app.custodex.link;

import app.custodex.base.Digests;
import app.custodex.base.Json;
import com.fasterxml.jackson.databind.MappingIterator;
import java.io.ByteArrayInputStream;
import java.io.Closeable;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.Objects;
import java.util.OptionalLong;
import java.util.zip.GZIPInputStream;
import java.util.zip.Inflater;
import java.util.zip.InflaterInputStream;

/**
 * Where the files of a crate are: each packed by itself (RFC 1951), one behind the other, then the index, a JSON line a file packed by
 * GZIP, then its place, its length, its SHA-512 and the end mark. Numbers are of 64 bits, the highest first.
 */
final class CrateBody {
    static final byte[] HEAD = "CRATE 1\n".getBytes(StandardCharsets.US_ASCII);
    static final byte[] END = "ENDCRATE".getBytes(StandardCharsets.US_ASCII);

    private static final int DIGEST = 64;
    private static final int TAIL = 2 * Long.BYTES + DIGEST + END.length;

    /** Bytes; some millions of files. */
    private static final long LONGEST_INDEX = 256L << 20;

    private CrateBody() {}

    /** Reads anywhere, from several threads at once. */
    interface Source extends Closeable {
        int read(ByteBuffer into, long from) throws IOException;

        long size();
    }

    /**
     * A line of the index.
     *
     * @param size bytes of the file
     * @param from where its packed bytes begin
     * @param packed how many they are
     * @param crc CRC-32 of the file
     */
    record Line(String path, long size, long from, long packed, Instant modified, long crc) {}

    /** @throws IOException when it is cut, or is not what was written */
    static ArchiveIndex index(Source body, Limits limits) throws IOException {
        long size = body.size();
        if (size < HEAD.length + TAIL || !Arrays.equals(bytes(body, 0, HEAD.length), HEAD)) {
            throw new EOFException("no crate, or one that is cut");
        }
        var tail = ByteBuffer.wrap(bytes(body, size - TAIL, TAIL));
        long from = tail.getLong();
        long length = tail.getLong();
        var digest = new byte[DIGEST];
        tail.get(digest);
        var end = new byte[END.length];
        tail.get(end);
        if (!Arrays.equals(end, END)) {
            throw new EOFException("its end is not there");
        }
        if (from < HEAD.length || length < 0 || length > LONGEST_INDEX || from + length != size - TAIL) {
            throw new IOException("its index is nowhere");
        }
        var index = bytes(body, from, (int) length);
        if (!Arrays.equals(Digests.sha512().digest(index), digest)) {
            throw new IOException("its index is not what was written");
        }
        return read(index, from, body, limits);
    }

    private static ArchiveIndex read(byte[] index, long end, Source body, Limits limits) throws IOException {
        var builder = new ArchiveIndex.Builder(limits);
        try (var in = new GZIPInputStream(new ByteArrayInputStream(index), 1 << 16);
                MappingIterator<Line> lines = Json.LINE.readerFor(Line.class).readValues(in)) {
            while (lines.hasNextValue()) {
                var line = lines.nextValue();
                var path = builder.path(line.path());
                if (path.isEmpty()) {
                    continue;
                }
                if (line.size() < 0
                        || line.packed() < 0
                        || line.from() < HEAD.length
                        || line.packed() > end - line.from()) {
                    builder.refuse(
                            path.get().text(),
                            "The index says a place for it where no file can be",
                            "Nothing can be done");
                    continue;
                }
                builder.file(
                        path.get(),
                        line.size(),
                        Objects.requireNonNull(line.modified()),
                        Long.toHexString(line.crc()) + "-" + line.size(),
                        OptionalLong.of(line.crc()),
                        () -> unpacking(body, line));
            }
        } catch (RuntimeException strange) {
            throw new IOException(strange);
        }
        return builder.index(body, body.size());
    }

    private static InputStream unpacking(Source body, Line line) {
        var inflater = new Inflater(true);
        return new InflaterInputStream(new Packed(body, line.from(), line.packed()), inflater, 1 << 14) {
            @Override
            public void close() throws IOException {
                inflater.end();
                super.close();
            }
        };
    }

    /** The packed bytes of one file. */
    private static final class Packed extends InputStream {
        private final Source body;
        private long at;
        private long left;

        Packed(Source body, long from, long length) {
            this.body = body;
            this.at = from;
            this.left = length;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            if (left == 0) {
                return -1;
            }
            int n = body.read(ByteBuffer.wrap(buffer, offset, (int) Math.min(length, left)), at);
            if (n < 0) {
                throw new EOFException("the crate became shorter");
            }
            at += n;
            left -= n;
            return n;
        }
    }

    private static byte[] bytes(Source body, long from, int length) throws IOException {
        var bytes = ByteBuffer.allocate(length);
        while (bytes.hasRemaining()) {
            if (body.read(bytes, from + bytes.position()) < 0) {
                throw new EOFException("the crate became shorter");
            }
        }
        return bytes.array();
    }
}
