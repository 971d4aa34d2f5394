package app.custodex.extract.pictures;

import app.custodex.media.Picture;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.CRC32;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.stream.MemoryCacheImageOutputStream;

/** Stores pixels as JPEG or PNG files. */
public final class PictureCoder {
    /** Behind the head of a PNG file: eight bytes, and its first chunk. */
    private static final int FIRST_CHUNKS = 8 + 25;

    private PictureCoder() {}

    /** @param quality from 1 to 100 */
    public static byte[] jpeg(Picture picture, int quality) throws IOException {
        var writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        var out = new ByteArrayOutputStream(1 << 20);
        try (var stream = new MemoryCacheImageOutputStream(out)) {
            var how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality(quality / 100f);
            writer.setOutput(stream);
            writer.write(null, new IIOImage(onWhite(picture), null, null), how);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }

    /** With its transparency, and the facts as chunks of the file (Portable Network Graphics, third edition, 11.3). */
    static byte[] png(Picture picture, CameraFacts facts) throws IOException {
        var out = new ByteArrayOutputStream(1 << 20);
        var image = new BufferedImage(picture.width(), picture.height(), BufferedImage.TYPE_INT_ARGB_PRE);
        image.getRaster().setDataElements(0, 0, picture.width(), picture.height(), pixels(picture));
        boolean clear = Arrays.stream(pixels(picture)).anyMatch(pixel -> pixel >>> 24 != 255);
        if (!ImageIO.write(clear ? image : onWhite(picture), "png", out)) {
            throw new IOException("there is nothing that writes PNG");
        }
        var file = out.toByteArray();
        var with = new ByteArrayOutputStream(file.length + (1 << 12));
        with.write(file, 0, FIRST_CHUNKS);
        if (facts.profile().isPresent()) {
            var profile = new ByteArrayOutputStream();
            profile.writeBytes(
                    "ICC profile\0\0".getBytes(StandardCharsets.ISO_8859_1)); // its name, and how it is packed
            try (var packed = new DeflaterOutputStream(profile)) {
                packed.write(facts.profile().get());
            }
            chunk(with, "iCCP", profile.toByteArray());
        }
        if (facts.exif().isPresent()) {
            chunk(with, "eXIf", facts.exif().get());
        }
        with.write(file, FIRST_CHUNKS, file.length - FIRST_CHUNKS);
        return with.toByteArray();
    }

    private static void chunk(ByteArrayOutputStream out, String type, byte[] content) {
        var named = ByteBuffer.allocate(4 + content.length)
                .put(type.getBytes(StandardCharsets.US_ASCII))
                .put(content)
                .array();
        var check = new CRC32();
        check.update(named);
        out.writeBytes(ByteBuffer.allocate(8 + named.length)
                .putInt(content.length)
                .put(named)
                .putInt((int) check.getValue())
                .array());
    }

    private static int[] pixels(Picture picture) {
        var pixels = new int[picture.width() * picture.height()];
        picture.bgra().duplicate().order(ByteOrder.LITTLE_ENDIAN).asIntBuffer().get(pixels);
        return pixels;
    }

    /** JPEG has no transparency; the colours are multiplied by what remains of them. */
    private static BufferedImage onWhite(Picture picture) {
        var pixels = pixels(picture);
        for (int i = 0; i < pixels.length; i++) {
            int white = 255 - (pixels[i] >>> 24);
            pixels[i] += white << 16 | white << 8 | white;
        }
        var image = new BufferedImage(picture.width(), picture.height(), BufferedImage.TYPE_INT_RGB);
        image.getRaster().setDataElements(0, 0, picture.width(), picture.height(), pixels);
        return image;
    }
}
