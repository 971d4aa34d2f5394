package app.custodex.extract.pictures;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;

/**
 * A JPEG file in its parts (ITU-T T.81, annex B).
 *
 * @param segments before the pixels
 * @param pixels from the first scan to the end mark; behind it some phones put a film or another picture, which are no part of this one
 */
record JpegFile(List<Segment> segments, byte[] pixels) {
    private static final int MARK = 0xff;
    private static final int START = 0xd8;
    private static final int END = 0xd9;
    private static final int SCAN = 0xda;
    private static final int FIRST_RESTART = 0xd0;
    private static final int LAST_RESTART = 0xd7;
    private static final int APP1 = 0xe1;
    private static final int APP2 = 0xe2;
    private static final int APP15 = 0xef;
    private static final int APP0 = 0xe0;
    private static final int ADOBE = 0xee;
    private static final int COMMENT = 0xfe;
    private static final int LARGEST = 0xffff - 2;
    private static final byte[] EXIF = "Exif\0\0".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] PROFILE = "ICC_PROFILE\0".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] JFIF = "JFIF\0".getBytes(StandardCharsets.US_ASCII);

    /** One part before the pixels. */
    record Segment(int mark, byte[] content) {
        boolean begins(byte[] with) {
            return content.length >= with.length && Arrays.equals(content, 0, with.length, with, 0, with.length);
        }
    }

    /** @throws IOException when it is not whole, or no JPEG file */
    static JpegFile read(byte[] file) throws IOException {
        if (file.length < 4 || (file[0] & MARK) != MARK || (file[1] & MARK) != START) {
            throw new IOException("no JPEG file");
        }
        var segments = new ArrayList<Segment>();
        int at = 2;
        while (true) {
            int mark = mark(file, at);
            if (mark == SCAN) {
                return new JpegFile(segments, Arrays.copyOfRange(file, at, end(file, at)));
            }
            int length = length(file, at);
            segments.add(new Segment(mark, Arrays.copyOfRange(file, at + 4, at + 2 + length)));
            at += 2 + length;
        }
    }

    private static int mark(byte[] file, int at) throws IOException {
        if (at + 4 > file.length || (file[at] & MARK) != MARK) {
            throw new IOException("no mark at " + at);
        }
        return file[at + 1] & MARK;
    }

    private static int length(byte[] file, int at) throws IOException {
        int length = (file[at + 2] & MARK) << 8 | file[at + 3] & MARK;
        if (length < 2 || at + 2 + length > file.length) {
            throw new IOException("a part of " + length + " bytes at " + at);
        }
        return length;
    }

    /** Behind the end mark. Inside a scan a mark is followed by zero, or says where decoding may begin anew. */
    private static int end(byte[] file, int scan) throws IOException {
        int at = scan + 2 + length(file, scan);
        while (at + 1 < file.length) {
            int next = file[at + 1] & MARK;
            if ((file[at] & MARK) != MARK || next == 0 || next >= FIRST_RESTART && next <= LAST_RESTART) {
                at++;
            } else if (next == MARK) {
                at++;
            } else if (next == END) {
                return at + 2;
            } else {
                mark(file, at);
                at += 2 + length(file, at); // tables, or one more scan
            }
        }
        throw new IOException("the end mark is missing");
    }

    CameraFacts facts() {
        var exif = segments.stream()
                .filter(segment -> segment.mark() == APP1 && segment.begins(EXIF))
                .map(segment -> Arrays.copyOfRange(segment.content(), EXIF.length, segment.content().length))
                .findFirst();
        var parts = new TreeMap<Integer, byte[]>();
        segments.stream()
                .filter(segment -> segment.mark() == APP2 && segment.begins(PROFILE))
                .filter(segment -> segment.content().length > PROFILE.length + 2)
                .forEach(segment -> parts.put(
                        segment.content()[PROFILE.length] & MARK,
                        Arrays.copyOfRange(segment.content(), PROFILE.length + 2, segment.content().length)));
        var profile = new ByteArrayOutputStream();
        parts.values().forEach(profile::writeBytes);
        return new CameraFacts(exif, parts.isEmpty() ? Optional.empty() : Optional.of(profile.toByteArray()));
    }

    /** The same pixels with these facts, and nothing else that tells something. */
    byte[] with(CameraFacts facts) {
        var out = new ByteArrayOutputStream(pixels.length + (1 << 16));
        out.write(MARK);
        out.write(START);
        segments.stream()
                .filter(segment -> segment.mark() == APP0 && segment.begins(JFIF))
                .forEach(segment -> write(out, APP0, segment.content()));
        facts.exif()
                .filter(exif -> exif.length <= LARGEST - EXIF.length)
                .ifPresent(exif -> write(out, APP1, joined(EXIF, exif)));
        facts.profile().ifPresent(profile -> writeProfile(out, profile));
        segments.stream().filter(JpegFile::isNeeded).forEach(segment -> write(out, segment.mark(), segment.content()));
        out.writeBytes(pixels);
        return out.toByteArray();
    }

    /** Tables and frames; and what says how the colours are stored (the mark "Adobe", ITU-T T.872, 6.5.3). */
    private static boolean isNeeded(Segment segment) {
        boolean told = segment.mark() >= APP0 && segment.mark() <= APP15 && segment.mark() != ADOBE;
        return !told && segment.mark() != COMMENT;
    }

    private static void writeProfile(ByteArrayOutputStream out, byte[] profile) {
        int most = LARGEST - PROFILE.length - 2;
        int parts = (profile.length + most - 1) / most;
        for (int i = 0; i < parts; i++) {
            var part = Arrays.copyOfRange(profile, i * most, Math.min(profile.length, (i + 1) * most));
            write(out, APP2, joined(PROFILE, joined(new byte[] {(byte) (i + 1), (byte) parts}, part)));
        }
    }

    private static byte[] joined(byte[] first, byte[] second) {
        return ByteBuffer.allocate(first.length + second.length)
                .put(first)
                .put(second)
                .array();
    }

    private static void write(ByteArrayOutputStream out, int mark, byte[] content) {
        out.write(MARK);
        out.write(mark);
        out.write(content.length + 2 >> 8);
        out.write(content.length + 2);
        out.writeBytes(content);
    }
}
