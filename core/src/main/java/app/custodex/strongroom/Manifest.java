package app.custodex.strongroom;

import app.custodex.base.Json;
import com.fasterxml.jackson.databind.ObjectWriter;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Gatherers;
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

    /** @throws IOException when the file is torn or not a manifest; what was read until then was handed out */
    static void read(InputStream in, Consumer<ManifestItem> items) throws IOException {
        try (var plain = new BufferedInputStream(new GZIPInputStream(in, 1 << 16), 1 << 16);
                var values = Json.LINE
                        .readerFor(ManifestItem.class)
                        .withAttribute(ItemJson.Shared.class, new ItemJson.Shared())
                        .<ManifestItem>readValues(plain)) {
            while (values.hasNextValue()) {
                items.accept(values.nextValue());
            }
        }
    }
}
