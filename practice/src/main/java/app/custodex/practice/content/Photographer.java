package app.custodex.practice.content;

import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Shot;
import app.custodex.practice.island.Motif;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import org.apache.commons.imaging.formats.jpeg.exif.ExifRewriter;
import org.apache.commons.imaging.formats.tiff.constants.ExifTagConstants;
import org.apache.commons.imaging.formats.tiff.constants.TiffDirectoryType;
import org.apache.commons.imaging.formats.tiff.constants.TiffTagConstants;
import org.apache.commons.imaging.formats.tiff.taginfos.TagInfoAscii;
import org.apache.commons.imaging.formats.tiff.write.TiffOutputSet;

/** Makes JPEG files of drawn pictures. Those that an owner took carry EXIF: when, with the zone, with what, and where. */
public final class Photographer {
    /** How pictures come out. */
    public enum Quality {
        /** As a phone takes them: half a megabyte each. */
        FULL(1_600, true),
        /** Small and plain, drawn in a blink. */
        SKETCH(320, false),
        /** Sketches that repeat themselves, when there are tens of thousands. */
        REPEATED(160, false);

        private final int width;
        private final boolean grain;

        Quality(int width, boolean grain) {
            this.width = width;
            this.grain = grain;
        }
    }

    private static final DateTimeFormatter EXIF_TIME = DateTimeFormatter.ofPattern("yyyy:MM:dd HH:mm:ss");
    /** How far the clock is from UTC (Exif 2.31); the library does not know it yet. */
    private static final TagInfoAscii OFFSET =
            new TagInfoAscii("OffsetTimeOriginal", 0x9011, -1, TiffDirectoryType.EXIF_DIRECTORY_EXIF_IFD);

    private static final Map<Integer, byte[]> PORTRAITS = new ConcurrentHashMap<>();

    private final Quality quality;
    private final Map<Motif, byte[]> repeated = new ConcurrentHashMap<>();

    public Photographer(Quality quality) {
        this.quality = quality;
    }

    /** Takes a picture, and sets the file's time to the moment of it. */
    public void take(Path file, Shot shot) throws IOException {
        var plain = drawn(shot);
        try (var out = Files.newOutputStream(file)) {
            var exif = new TiffOutputSet();
            var root = exif.getOrCreateRootDirectory();
            root.add(TiffTagConstants.TIFF_TAG_MAKE, "Skerrow Practice Works");
            root.add(TiffTagConstants.TIFF_TAG_MODEL, "Pinhole " + (shot.motif() == Motif.SCREEN ? "0" : "3"));
            var when = exif.getOrCreateExifDirectory();
            when.add(ExifTagConstants.EXIF_TAG_DATE_TIME_ORIGINAL, EXIF_TIME.format(shot.at()));
            when.add(OFFSET, "+01:00");
            if (shot.spot().isPresent()) {
                var spot = shot.spot().get();
                double aside = (shot.seed() % 97 - 48) / 20_000.0; // nobody stands in the same place twice
                exif.setGpsInDegrees(spot.longitude() + aside, spot.latitude() - aside / 2);
            }
            new ExifRewriter().updateExifMetadataLossless(plain, out, exif);
        }
        Clips.stamp(file, shot.at());
    }

    private byte[] drawn(Shot shot) throws IOException {
        if (quality == Quality.REPEATED) {
            var known = repeated.get(shot.motif());
            if (known == null) {
                known = jpeg(Painter.paint(shot.motif(), 1, Life.NOW.withHour(12), quality.width, false), 0.6f);
                repeated.put(shot.motif(), known);
            }
            return known;
        }
        return jpeg(Painter.paint(shot.motif(), shot.seed(), shot.at(), quality.width, quality.grain), 0.9f);
    }

    /** A picture as it is sent: smaller, and without EXIF. */
    byte[] sent(Motif motif, long seed, LocalDateTime at) throws IOException {
        return quality == Quality.REPEATED
                ? drawn(new Shot(motif, seed, at, Optional.empty(), false, 0))
                : jpeg(Painter.paint(motif, seed, at, Math.min(640, quality.width), false), 0.75f);
    }

    /** A small square face, JPEG; the same for the same number. */
    static byte[] portrait(int number) throws IOException {
        var known = PORTRAITS.get(number);
        if (known == null) {
            known = jpeg(Painter.face(number), 0.8f);
            PORTRAITS.put(number, known);
        }
        return known;
    }

    private static byte[] jpeg(BufferedImage image, float quality) throws IOException {
        var bytes = new ByteArrayOutputStream();
        var writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        try (var out = ImageIO.createImageOutputStream(bytes)) {
            var how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality(quality);
            writer.setOutput(out);
            writer.write(null, new IIOImage(image, null, null), how);
        } finally {
            writer.dispose();
        }
        return bytes.toByteArray();
    }
}
