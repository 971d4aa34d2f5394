package app.custodex.base;

import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.zip.CRC32C;

/**
 * A list that only grows: one JSON object a line (RFC 8259), each with a checksum (CRC-32C, RFC 3720 appendix B.4) as its last
 * member, "sum". A line whose bytes changed costs itself and nothing else; a last line that was cut while it was written gives way to
 * the next one. Several programs may append to one file.
 */
public final class JsonLog<T> {
    private static final Pattern WHOLE = Pattern.compile(",\"sum\":\"[0-9a-f]{8}\"}");
    private static final Pattern SUM = Pattern.compile(",\"sum\":\"([0-9a-f]{8})\"}$");
    /** Nothing that is logged comes near it; a line of this length is damage. */
    private static final int LONGEST_LINE = 64 << 20;

    /** Whatever stands behind the entry is damage. */
    private static final ObjectMapper ONE_LINE =
            Json.LINE.copy().enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS);

    private final Path file;
    private final Disk disk;
    private final Class<T> type;

    public JsonLog(Path file, Disk disk, Class<T> type) {
        this.file = file;
        this.disk = disk;
        this.type = type;
    }

    /**
     * What can be read of a list.
     *
     * @param damaged the numbers of lines that can't be read, from 1
     */
    public record Read<T>(List<T> entries, List<Integer> damaged) {
        public Read {
            entries = List.copyOf(entries);
            damaged = List.copyOf(damaged);
        }

        /** What is to be said about lines that can't be read, if there are any. */
        public Optional<Problem> problem(String subject) {
            return damaged.isEmpty()
                    ? Optional.empty()
                    : Optional.of(Problem.loss(
                            subject,
                            damaged.size() == 1
                                    ? "Line " + damaged.getFirst() + " of it can't be read; the others can"
                                    : damaged.size() + " of its lines can't be read, the first is line "
                                            + damaged.getFirst() + "; the others can",
                            "Check the disk for errors"));
        }
    }

    /** The bytes of one line, with its checksum and its line break. */
    static byte[] line(Object entry) throws IOException {
        var json = Json.LINE.writeValueAsString(entry);
        var summed = json.substring(0, json.length() - 1) + ",\"sum\":\"" + sum(json) + "\"}\n";
        return summed.getBytes(StandardCharsets.UTF_8);
    }

    private static String sum(String json) {
        var crc = new CRC32C();
        crc.update(json.getBytes(StandardCharsets.UTF_8));
        return HexFormat.of().toHexDigits((int) crc.getValue());
    }

    /** Appends an entry; it is on the medium when this returns. */
    public void append(T entry) throws IOException {
        append(entry, true);
    }

    /**
     * Appends an entry.
     *
     * @param durable whether it is on the medium when this returns; else it survives the end of the program, not a cut of the power
     */
    public void append(T entry, boolean durable) throws IOException {
        var parent = Disk.parent(file);
        disk.createFolders(parent);
        try (var lease = FileLease.awaitAlone(file.resolveSibling(file.getFileName() + ".lock"))) {
            boolean isNew = !Files.exists(file);
            try (var out = isNew ? disk.append(file) : behindWhatIsWhole()) {
                out.write(ByteBuffer.wrap(line(entry)));
                if (durable) {
                    out.sync();
                }
            }
            if (isNew) {
                disk.syncFolder(parent);
            }
        }
    }

    /** A last line that was cut while it was written says nothing: what is appended takes its place. */
    private Disk.Out behindWhatIsWhole() throws IOException {
        var last = new byte[0];
        long begin;
        try (var in = new RandomAccessFile(file.toFile(), "r")) {
            begin = in.length();
            for (long step = 1 << 12; begin > 0 && !endsALine(in, begin); step = Math.min(step * 2, LONGEST_LINE)) {
                long from = Math.max(0, begin - step);
                var bytes = new byte[(int) (begin - from)];
                in.seek(from);
                in.readFully(bytes);
                int lineBreak = lastLineBreak(bytes);
                begin = lineBreak < 0 ? from : from + lineBreak + 1;
                if (lineBreak >= 0 || from == 0) {
                    break;
                }
            }
            last = new byte[(int) Math.min(LONGEST_LINE, in.length() - begin)];
            in.seek(begin);
            in.readFully(last);
        }
        if (last.length == 0 || isCut(last)) {
            return disk.reopen(file, begin);
        }
        var out = disk.append(file);
        out.write(ByteBuffer.wrap(new byte[] {'\n'})); // whole, or damaged, but for its line break
        return out;
    }

    private static boolean endsALine(RandomAccessFile in, long end) throws IOException {
        in.seek(end - 1);
        return in.read() == '\n';
    }

    private static int lastLineBreak(byte[] bytes) {
        int at = bytes.length - 1;
        while (at >= 0 && bytes[at] != '\n') {
            at--;
        }
        return at;
    }

    /** Whether the end of a line is not there. */
    private static boolean isCut(byte[] line) {
        return !WHOLE.matcher(new String(line, StandardCharsets.UTF_8)).find();
    }

    /** Reads all of it; nothing when there is no such file. */
    public Read<T> read() throws IOException {
        var entries = new ArrayList<T>();
        var damaged = new ArrayList<Integer>();
        if (Files.exists(file)) {
            try (var in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
                int number = 0;
                for (var line = next(in); line.isPresent(); line = next(in)) {
                    number++;
                    var entry = entry(line.get().bytes());
                    if (entry.isPresent()) {
                        entries.add(entry.get());
                    } else if (line.get().ended()
                            ? line.get().bytes().length > 0
                            : !isCut(line.get().bytes())) {
                        damaged.add(number);
                    }
                }
            }
        }
        return new Read<>(entries, damaged);
    }

    /** @param ended whether its line break is there */
    private record Line(byte[] bytes, boolean ended) {}

    private static Optional<Line> next(InputStream in) throws IOException {
        var line = new ByteArrayOutputStream(256);
        int b = in.read();
        if (b < 0) {
            return Optional.empty();
        }
        for (; b >= 0 && b != '\n'; b = in.read()) {
            if (line.size() < LONGEST_LINE) {
                line.write(b);
            }
        }
        return Optional.of(new Line(line.toByteArray(), b == '\n'));
    }

    private Optional<T> entry(byte[] bytes) {
        var line = new String(bytes, StandardCharsets.UTF_8);
        var sum = SUM.matcher(line);
        // Lines of Custodex 0.1 have no checksum.
        var json = sum.find() ? line.substring(0, sum.start()) + "}" : line;
        if (!json.equals(line) && !sum(json).equals(sum.group(1))) {
            return Optional.empty();
        }
        try {
            return Optional.ofNullable(ONE_LINE.readValue(json, type));
        } catch (IOException | RuntimeException notAnEntry) {
            return Optional.empty();
        }
    }
}
