package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.exchange.ThingLines;
import app.custodex.exchange.ThingLines.Line;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;

/** Reads what Custodex itself wrote as JSON lines; other files of JSON lines are left alone. */
public final class ThingLineFiles extends FileReader {
    /** Bytes; a thing holds texts and no pictures. */
    private static final int LONGEST = 16 << 20;

    public ThingLineFiles() {
        super("things", Set.of(Kind.OTHER), Set.of(".jsonl"), EnumSet.allOf(ThingKind.class));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        try (var lines = new ByteLines(new BufferedInputStream(phone.open(path), 1 << 16), LONGEST)) {
            var first = lines.next().flatMap(line -> line(line, path, phone));
            if (!(first.orElse(new Line.End(0)) instanceof Line.Start(boolean newer))) {
                return;
            }
            if (newer) {
                throw new ProblemException(Problem.failure(
                        path.text(),
                        "A newer Custodex wrote this file, in a form that this one does not know",
                        "Read it with the newer one"));
            }
            read(lines, path, phone, sink);
        }
    }

    private static void read(ByteLines lines, PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        long read = 0;
        long strange = 0;
        var promised = Optional.<Long>empty();
        for (var text = lines.next(); text.isPresent(); text = lines.next()) {
            var line = line(text.get(), path, phone);
            if (line.isPresent() && line.get() instanceof Line.Item(var thing)) {
                sink.thing(thing);
                read++;
            } else if (line.isPresent() && line.get() instanceof Line.End(long things)) {
                promised = Optional.of(things);
            } else {
                strange++;
            }
        }
        if (strange > 0) {
            sink.problem(Problem.loss(
                    path.text(),
                    "Lines in it that can't be understood: " + strange,
                    "Write it again from the layer that it came from"));
        }
        long there = read + strange;
        if (promised.isEmpty() || promised.get() != there) {
            sink.problem(Problem.loss(
                    path.text(),
                    promised.isEmpty()
                            ? "It breaks off behind " + there + (there == 1 ? " thing" : " things")
                            : "It promises " + promised.get() + (promised.get() == 1 ? " thing" : " things")
                                    + " and holds " + there,
                    "Write it again from the layer that it came from"));
        }
    }

    private static Optional<Line> line(byte[] bytes, PhonePath path, PhoneFiles phone) {
        return ThingLines.read(new String(bytes, StandardCharsets.UTF_8), path.text(), item -> isThere(item, phone));
    }

    private static boolean isThere(String item, PhoneFiles phone) {
        try {
            return phone.files().has(new PhonePath(item));
        } catch (IOException | IllegalArgumentException nowhere) {
            return false;
        }
    }
}
