package app.custodex.extract.pictures;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Finds what a camera wrote into a HEIF or AVIF file (ISO/IEC 14496-12, 8.11; ISO/IEC 23008-12, annex A). */
final class HeifFacts {
    private static final int OFFSET_OF_TIFF = 4;
    /** Deeper ones are no pictures. */
    private static final int DEEPEST = 6;

    private final ByteBuffer file;
    private Optional<byte[]> profile = Optional.empty();
    private int exifItem = -1;
    private final List<Extent> extents = new ArrayList<>();

    private record Extent(int item, long offset, long length) {}

    private HeifFacts(byte[] file) {
        this.file = ByteBuffer.wrap(file);
    }

    /** Of a file that may be damaged; then nothing is found. */
    static CameraFacts in(byte[] file) {
        var found = new HeifFacts(file);
        try {
            found.boxes(ByteBuffer.wrap(file), 0);
            return new CameraFacts(found.exif(), found.profile);
        } catch (ArithmeticException
                | BufferUnderflowException
                | IllegalArgumentException
                | IndexOutOfBoundsException damaged) {
            return new CameraFacts(Optional.empty(), found.profile);
        }
    }

    private void boxes(ByteBuffer in, int depth) {
        while (in.remaining() >= 8 && depth < DEEPEST) {
            int start = in.position();
            long size = Integer.toUnsignedLong(in.getInt());
            var type = text(in, 4);
            if (size == 1) {
                size = in.getLong();
            }
            int head = in.position() - start;
            long left = size == 0 ? in.remaining() : size - head;
            if (left < 0 || left > in.remaining()) {
                return; // what is behind the boxes, or damaged
            }
            var body = in.slice(in.position(), (int) left);
            in.position(in.position() + (int) left);
            box(type, body, depth);
        }
    }

    private void box(String type, ByteBuffer body, int depth) {
        switch (type) {
            case "meta" -> {
                body.getInt(); // version and flags
                boxes(body, depth + 1);
            }
            case "iprp", "ipco" -> boxes(body, depth + 1);
            case "colr" -> {
                var kind = text(body, 4);
                if (profile.isEmpty() && (kind.equals("prof") || kind.equals("rICC"))) {
                    profile = Optional.of(rest(body));
                }
            }
            case "iinf" -> {
                int version = body.getInt() >>> 24;
                if (version == 0) {
                    body.getShort();
                } else {
                    body.getInt();
                }
                boxes(body, depth + 1);
            }
            case "infe" -> itemInfo(body);
            case "iloc" -> locations(body);
            default -> {
                // nothing that is looked for
            }
        }
    }

    private void itemInfo(ByteBuffer body) {
        int version = body.getInt() >>> 24;
        if (version < 2) {
            return; // these have no types
        }
        int item = version == 2 ? Short.toUnsignedInt(body.getShort()) : body.getInt();
        body.getShort();
        if (text(body, 4).equals("Exif")) {
            exifItem = item;
        }
    }

    private void locations(ByteBuffer body) {
        int version = body.getInt() >>> 24;
        int sizes = Short.toUnsignedInt(body.getShort());
        int offsetSize = sizes >> 12;
        int lengthSize = sizes >> 8 & 15;
        int baseSize = sizes >> 4 & 15;
        int indexSize = version == 0 ? 0 : sizes & 15;
        int items = version < 2 ? Short.toUnsignedInt(body.getShort()) : body.getInt();
        for (int i = 0; i < items; i++) {
            int item = version < 2 ? Short.toUnsignedInt(body.getShort()) : body.getInt();
            int method = version == 0 ? 0 : body.getShort() & 15;
            body.getShort(); // in this file
            long base = number(body, baseSize);
            int count = Short.toUnsignedInt(body.getShort());
            for (int k = 0; k < count; k++) {
                number(body, indexSize);
                long offset = number(body, offsetSize);
                long length = number(body, lengthSize);
                if (method == 0) {
                    extents.add(new Extent(item, base + offset, length));
                }
            }
        }
    }

    private static long number(ByteBuffer in, int bytes) {
        return switch (bytes) {
            case 0 -> 0;
            case 4 -> Integer.toUnsignedLong(in.getInt());
            case 8 -> in.getLong();
            default -> throw new IllegalArgumentException("a number of " + bytes + " bytes");
        };
    }

    /** A length of what stands before it, then the TIFF structure. */
    private Optional<byte[]> exif() {
        var own = extents.stream().filter(extent -> extent.item() == exifItem).toList();
        if (own.size() != 1) {
            return Optional.empty();
        }
        var content = file.slice(
                Math.toIntExact(own.getFirst().offset()),
                Math.toIntExact(own.getFirst().length()));
        int before = content.getInt();
        content.position(Math.addExact(OFFSET_OF_TIFF, before));
        return Optional.of(rest(content));
    }

    private static byte[] rest(ByteBuffer of) {
        var bytes = new byte[of.remaining()];
        of.get(bytes);
        return bytes;
    }

    private static String text(ByteBuffer in, int length) {
        var bytes = new byte[length];
        in.get(bytes);
        return new String(bytes, StandardCharsets.ISO_8859_1);
    }
}
