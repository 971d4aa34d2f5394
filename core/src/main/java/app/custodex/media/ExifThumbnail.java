package app.custodex.media;

import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Optional;

/**
 * Where a JPEG keeps the small picture that the camera made of it, and how that is turned: EXIF 2.32, 4.5.5 and 4.6.4. Damage gives an empty
 * result.
 *
 * @param at in the file
 * @param orientation 1 to 8
 */
record ExifThumbnail(int at, int length, int orientation) {
    /** Bytes in which every EXIF block ends. */
    static final int HEAD = 1 << 16;

    private static final int APP1 = 0xffe1;
    private static final int START_OF_SCAN = 0xffda;
    private static final int EXIF = 0x45786966;
    private static final int ORIENTATION = 0x112;
    private static final int THUMBNAIL_AT = 0x201;
    private static final int THUMBNAIL_LENGTH = 0x202;
    private static final int SHORT = 3;

    static Optional<ExifThumbnail> in(ByteBuffer head) {
        try {
            var in = head.duplicate();
            if (in.getShort() != (short) 0xffd8) {
                return Optional.empty();
            }
            while (true) {
                int marker = Short.toUnsignedInt(in.getShort());
                int length = Short.toUnsignedInt(in.getShort());
                if (marker < 0xff00 || marker == START_OF_SCAN) {
                    return Optional.empty();
                }
                if (marker == APP1 && length > 16 && in.getInt(in.position()) == EXIF) {
                    return of(in, in.position() + 6);
                }
                in.position(in.position() + length - 2);
            }
        } catch (IllegalArgumentException | BufferUnderflowException | IndexOutOfBoundsException damaged) {
            return Optional.empty();
        }
    }

    private static Optional<ExifThumbnail> of(ByteBuffer in, int tiff) {
        in.order(in.get(tiff) == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        int first = tiff + in.getInt(tiff + 4);
        int second = in.getInt(first + 2 + 12 * Short.toUnsignedInt(in.getShort(first)));
        if (second == 0) {
            return Optional.empty();
        }
        int at = value(in, tiff + second, THUMBNAIL_AT);
        int length = value(in, tiff + second, THUMBNAIL_LENGTH);
        boolean inside = at > 0 && length > 0 && length < HEAD && tiff + at + length <= in.limit();
        return inside
                ? Optional.of(new ExifThumbnail(tiff + at, length, value(in, first, ORIENTATION)))
                : Optional.empty();
    }

    private static int value(ByteBuffer in, int directory, int tag) {
        int entry = directory + 2;
        for (int n = Short.toUnsignedInt(in.getShort(directory)); n > 0; n--, entry += 12) {
            if (Short.toUnsignedInt(in.getShort(entry)) == tag) {
                return in.getShort(entry + 2) == SHORT
                        ? Short.toUnsignedInt(in.getShort(entry + 8))
                        : in.getInt(entry + 8);
            }
        }
        return 0;
    }
}
