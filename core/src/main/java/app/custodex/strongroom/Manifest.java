package app.custodex.strongroom;

import app.custodex.base.Json;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.function.Consumer;
import java.util.zip.Deflater;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/** A layer's list of items as a file: one JSON object a line (RFC 8259), compressed with gzip (RFC 1952). */
final class Manifest {
    static final String NAME = "manifest.jsonl.gz";

    private Manifest() {}

    /** A tenth larger than it could be, in a third of the time. */
    private static final class FastGzip extends GZIPOutputStream {
        FastGzip(OutputStream out) throws IOException {
            super(out, 1 << 16);
            def.setLevel(Deflater.BEST_SPEED);
        }
    }

    /** Writes all items and ends the compression; the caller closes the stream. */
    static void write(OutputStream out, Iterable<ManifestItem> items) throws IOException {
        var gzip = new FastGzip(out);
        var buffered = new BufferedOutputStream(gzip, 1 << 16);
        var writer = Json.LINE
                .writerFor(ManifestItem.class)
                .withRootValueSeparator("\n")
                .writeValues(buffered);
        for (var item : items) {
            writer.write(item);
        }
        writer.flush();
        buffered.write('\n');
        buffered.flush();
        gzip.finish();
    }

    /** @throws IOException when the file is torn or not a manifest; what was read until then was handed out */
    static void read(InputStream in, Consumer<ManifestItem> items) throws IOException {
        try (var plain = new BufferedInputStream(new GZIPInputStream(in, 1 << 16), 1 << 16);
                var values = Json.LINE.readerFor(ManifestItem.class).<ManifestItem>readValues(plain)) {
            while (values.hasNextValue()) {
                items.accept(values.nextValue());
            }
        }
    }
}
