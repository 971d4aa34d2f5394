package app.custodex.strongroom;

import app.custodex.base.Json;
import com.fasterxml.jackson.databind.ObjectWriter;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Gatherers;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/** A layer's list of items as a file: one JSON object a line (RFC 8259), compressed with gzip (RFC 1952). */
final class Manifest {
    static final String NAME = "manifest.jsonl.gz";
    private static final int LINES_AT_ONCE = 4096;
    private static final ObjectWriter LINES = Json.LINE
            .writerFor(ManifestItem.class)
            .without(SerializationFeature.FLUSH_AFTER_WRITE_VALUE)
            .withRootValueSeparator("\n");

    private Manifest() {}

    /** A tenth larger than it could be, in a third of the time. */
    private static final class FastGzip extends GZIPOutputStream {
        FastGzip(OutputStream out) throws IOException {
            super(out, 1 << 16);
            def.setLevel(Deflater.BEST_SPEED);
        }
    }

    /** Writes all items and ends the compression; the caller closes the stream. Lines are made beside the compression of others. */
    static void write(OutputStream out, List<ManifestItem> items) throws IOException {
        var gzip = new FastGzip(out);
        try {
            items.stream()
                    .gather(Gatherers.windowFixed(LINES_AT_ONCE))
                    .gather(Gatherers.mapConcurrent(2, Manifest::lines))
                    .forEachOrdered(lines -> write(lines, gzip));
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
        gzip.finish();
    }

    private static byte[] lines(List<ManifestItem> items) {
        var bytes = new ByteArrayOutputStream(items.size() * 400);
        try (var writer = LINES.writeValues(bytes)) {
            writer.writeAll(items);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        bytes.write('\n');
        return bytes.toByteArray();
    }

    private static void write(byte[] lines, OutputStream out) {
        try {
            out.write(lines);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Reads lines beside the reading of others, and hands out their items in order.
     *
     * @throws IOException when the file is torn or not a manifest; what was read until then was handed out
     */
    static void read(InputStream in, Consumer<ManifestItem> items) throws IOException {
        try (var pieces = new Pieces(new GZIPInputStream(in, 1 << 16))) {
            Stream.generate(pieces::next)
                    .takeWhile(
                            piece -> piece.lines().length > 0 || piece.failure().isPresent())
                    .gather(Gatherers.mapConcurrent(2, Manifest::read))
                    .forEachOrdered(part -> handOut(part, items));
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /** Items of a list, and the failure behind them. */
    private record Part(List<ManifestItem> items, Optional<IOException> failure) {}

    private static Part read(Piece piece) {
        var items = new ArrayList<ManifestItem>();
        try (var values = Json.LINE
                .readerFor(ManifestItem.class)
                .withAttribute(ItemJson.Shared.class, new ItemJson.Shared())
                .<ManifestItem>readValues(piece.lines())) {
            while (values.hasNextValue()) {
                items.add(values.nextValue());
            }
        } catch (IOException e) {
            return new Part(items, Optional.of(e));
        }
        return new Part(items, piece.failure());
    }

    private static void handOut(Part part, Consumer<ManifestItem> items) {
        part.items().forEach(items);
        if (part.failure().isPresent()) {
            throw new UncheckedIOException(part.failure().get());
        }
    }

    /** Lines of a list, and the failure behind them. */
    private record Piece(byte[] lines, Optional<IOException> failure) {}

    /** Cuts a list between its lines. */
    private static final class Pieces implements Closeable {
        /** Of a piece, about. */
        private static final int BYTES = 1 << 18;

        private static final int BUFFER = 1 << 16;
        private static final int LONGEST = 1 << 26;

        private final InputStream in;
        /** The beginning of a line. */
        private byte[] rest = {};

        Pieces(InputStream in) {
            this.in = in;
        }

        /** Empty at the end of the list. */
        Piece next() {
            var lines = new ByteArrayOutputStream(rest.length + BYTES);
            lines.writeBytes(rest);
            rest = new byte[0];
            var buffer = new byte[BUFFER];
            try {
                for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                    int end = lines.size() + n < BYTES ? 0 : endOfLine(buffer, n);
                    lines.write(buffer, 0, end == 0 ? n : end);
                    if (end > 0) {
                        rest = Arrays.copyOfRange(buffer, end, n);
                        break;
                    }
                    if (lines.size() > LONGEST) {
                        throw new IOException("a line without end");
                    }
                }
                return new Piece(lines.toByteArray(), Optional.empty());
            } catch (IOException e) {
                return new Piece(lines.toByteArray(), Optional.of(e));
            }
        }

        /** Behind the last line that ends among so many bytes; 0 when none does. */
        private static int endOfLine(byte[] bytes, int n) {
            int end = n;
            while (end > 0 && bytes[end - 1] != '\n') {
                end--;
            }
            return end;
        }

        @Override
        public void close() throws IOException {
            in.close();
        }
    }
}
