package app.custodex.facts;

import app.custodex.model.MediaFile.Fact;
import app.custodex.model.Moment;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Optional;

/** Reads what a Matroska or WebM file says of itself (RFC 9559), written in EBML (RFC 8794), up to where its pictures begin. */
final class MatroskaFacts {
    private static final int EBML = 0x1A45DFA3;
    private static final int SEGMENT = 0x18538067;
    private static final int INFO = 0x1549A966;
    private static final int TICK = 0x2AD7B1;
    private static final int DURATION = 0x4489;
    private static final int DATE = 0x4461;
    private static final int TITLE = 0x7BA9;
    private static final int TRACKS = 0x1654AE6B;
    private static final int TRACK = 0xAE;
    private static final int CODEC = 0x86;
    private static final int VIDEO = 0xE0;
    private static final int WIDTH = 0xB0;
    private static final int HEIGHT = 0xBA;
    private static final int CLUSTER = 0x1F43B675;

    /** From which dates are counted, in nanoseconds (RFC 8794 §7.6). */
    private static final Instant FROM = Instant.parse("2001-01-01T00:00:00Z");

    /** Bytes; no number and no name is longer. */
    private static final int LONGEST = 4096;

    private static final int NANOS_A_TICK = 1_000_000;

    private final DataInputStream in;
    private long tick = NANOS_A_TICK;
    private double ticks;
    private Optional<Moment> made = Optional.empty();
    private String title = "";
    private String codec = "";
    private long width;
    private long height;

    private MatroskaFacts(InputStream in) {
        this.in = new DataInputStream(in);
    }

    static boolean begins(byte[] start) {
        return start.length >= Integer.BYTES && ByteBuffer.wrap(start).getInt() == EBML;
    }

    /** @throws IOException when the file is damaged before its pictures begin */
    static FileFacts read(InputStream in) throws IOException {
        var file = new MatroskaFacts(in);
        file.elements();
        return file.facts();
    }

    private FileFacts facts() {
        var facts = new ArrayList<Fact>();
        if (width > 0 && height > 0) {
            facts.add(new Fact("Size", width + " × " + height));
        }
        if (!codec.isEmpty()) {
            facts.add(new Fact("Codec", codec));
        }
        double millis = ticks * tick / NANOS_A_TICK;
        Optional<Duration> length =
                millis > 0 && millis < 1e12 ? Optional.of(Duration.ofMillis(Math.round(millis))) : Optional.empty();
        return new FileFacts(title, made, Optional.empty(), length, facts, "");
    }

    /** What holds others is gone into as if it were not there: no two of the wanted ones have one name. */
    private void elements() throws IOException {
        for (int first = in.read(); first >= 0; first = in.read()) {
            int id = (int) rest(first, false);
            long size = rest(in.readUnsignedByte(), true);
            switch (id) {
                case SEGMENT, INFO, TRACKS, TRACK, VIDEO -> {}
                case TICK -> tick = number(size);
                case DURATION -> ticks = decimal(size);
                case DATE -> made = Optional.of(Moment.at(FROM.plusNanos(number(size))));
                case TITLE -> title = text(size);
                case CODEC -> {
                    var name = text(size);
                    codec = name.startsWith("V_") ? name.substring(2) : codec;
                }
                case WIDTH -> width = Math.max(width, number(size));
                case HEIGHT -> height = Math.max(height, number(size));
                case CLUSTER -> {
                    return;
                }
                default -> skip(size);
            }
        }
    }

    /** A number whose leading zeros say how many bytes follow (RFC 8794 §4); of a size, the mark in front is no part of it. */
    private long rest(int first, boolean withoutMark) throws IOException {
        int more = Integer.numberOfLeadingZeros(first) - (Integer.SIZE - Byte.SIZE);
        if (more >= Byte.SIZE || !withoutMark && more >= Integer.BYTES) {
            throw new IOException("no element");
        }
        long value = withoutMark ? first & (0x7f >> more) : first;
        for (int i = 0; i < more; i++) {
            value = value << Byte.SIZE | in.readUnsignedByte();
        }
        return value;
    }

    private byte[] bytes(long size) throws IOException {
        if (size > LONGEST) {
            throw new IOException("a value of " + size + " bytes");
        }
        var bytes = in.readNBytes((int) size);
        if (bytes.length < size) {
            throw new EOFException();
        }
        return bytes;
    }

    private long number(long size) throws IOException {
        long value = 0;
        for (byte b : bytes(size)) {
            value = value << Byte.SIZE | b & 0xff;
        }
        return value;
    }

    private double decimal(long size) throws IOException {
        var bytes = ByteBuffer.wrap(bytes(size));
        return switch (bytes.remaining()) {
            case Float.BYTES -> bytes.getFloat();
            case Double.BYTES -> bytes.getDouble();
            default -> 0;
        };
    }

    private String text(long size) throws IOException {
        var text = new String(bytes(size), StandardCharsets.UTF_8);
        int end = text.indexOf('\0');
        return (end < 0 ? text : text.substring(0, end)).strip();
    }

    private void skip(long size) throws IOException {
        in.skipNBytes(size);
    }
}
