package app.custodex.practice.content;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import javax.imageio.ImageIO;
import org.apache.commons.imaging.formats.jpeg.exif.ExifRewriter;
import org.apache.commons.imaging.formats.tiff.constants.ExifTagConstants;
import org.apache.commons.imaging.formats.tiff.constants.TiffTagConstants;
import org.apache.commons.imaging.formats.tiff.write.TiffOutputSet;

/** Draws the island: sea, hills, a lighthouse, boats, faces. Photos carry EXIF date, maker, and place. */
public final class Photographer {
    /** The last day of the stories. */
    public static final LocalDate LAST_DAY = LocalDate.of(2026, 1, 18);

    private static final DateTimeFormatter EXIF_TIME = DateTimeFormatter.ofPattern("yyyy:MM:dd HH:mm:ss");
    private static final Map<Integer, byte[]> PORTRAITS = new ConcurrentHashMap<>();

    private Photographer() {}

    /** Takes one photo and sets the file's time to the moment of the picture. */
    public static void take(Path file, long seed, LocalDate day) throws IOException {
        var random = new Random(seed);
        var time = day.atTime(LocalTime.of(7 + random.nextInt(14), random.nextInt(60), random.nextInt(60)));
        var plain = jpeg(scene(random, 1280, 960));
        try (var out = Files.newOutputStream(file)) {
            var exif = new TiffOutputSet();
            exif.getOrCreateRootDirectory().add(TiffTagConstants.TIFF_TAG_MAKE, "Skerrow Practice Works");
            var when = exif.getOrCreateExifDirectory();
            when.add(ExifTagConstants.EXIF_TAG_DATE_TIME_ORIGINAL, EXIF_TIME.format(time));
            if (random.nextInt(4) != 0) {
                // Open sea, where the invented island lies.
                exif.setGpsInDegrees(-14.2 + random.nextDouble() * 0.2, 61.9 + random.nextDouble() * 0.1);
            }
            new ExifRewriter().updateExifMetadataLossless(plain, out, exif);
        }
        Files.setLastModifiedTime(file, FileTime.from(time.toInstant(ZoneOffset.ofHours(1))));
    }

    /** A small square face, JPEG; the same for the same number. */
    static byte[] portrait(int number) {
        return PORTRAITS.computeIfAbsent(number, n -> jpeg(face(new Random(n * 31L + 5))));
    }

    private static byte[] jpeg(BufferedImage image) {
        var bytes = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "jpeg", bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }

    private static Graphics2D canvas(BufferedImage image) {
        var g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        return g;
    }

    private static Color shade(Random random, int red, int green, int blue) {
        int shift = random.nextInt(40) - 20;
        return new Color(clamp(red + shift), clamp(green + shift), clamp(blue + shift));
    }

    private static int clamp(int value) {
        return Math.clamp(value, 0, 255);
    }

    private static BufferedImage scene(Random random, int width, int height) {
        var image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        var g = canvas(image);
        boolean night = random.nextInt(3) == 0;
        g.setColor(night ? shade(random, 42, 58, 66) : shade(random, 198, 214, 216));
        g.fillRect(0, 0, width, height);
        hills(g, random, width, height, night ? shade(random, 30, 42, 48) : shade(random, 120, 140, 110));
        g.setColor(night ? shade(random, 58, 86, 96) : shade(random, 96, 140, 150));
        int horizon = (int) (height * (0.6 + random.nextDouble() * 0.15));
        waves(g, random, width, height, horizon);
        if (random.nextInt(2) == 0) {
            lighthouse(g, random, width, horizon, night);
        }
        for (int i = random.nextInt(3); i >= 0; i--) {
            boat(g, random, width, height, horizon);
        }
        g.dispose();
        return image;
    }

    private static void hills(Graphics2D g, Random random, int width, int height, Color color) {
        g.setColor(color);
        var hill = new Path2D.Double();
        hill.moveTo(0, height);
        double y = height * 0.5;
        for (int x = 0; x <= width; x += width / 8) {
            hill.lineTo(x, y + random.nextInt(height / 5));
        }
        hill.lineTo(width, height);
        hill.closePath();
        g.fill(hill);
    }

    private static void waves(Graphics2D g, Random random, int width, int height, int horizon) {
        var sea = new Path2D.Double();
        sea.moveTo(0, height);
        double phase = random.nextDouble() * 6;
        for (int x = 0; x <= width; x += 8) {
            sea.lineTo(x, horizon + 14 * Math.sin(x / 90.0 + phase));
        }
        sea.lineTo(width, height);
        sea.closePath();
        g.fill(sea);
    }

    private static void lighthouse(Graphics2D g, Random random, int width, int horizon, boolean night) {
        int x = width / 8 + random.nextInt(width / 2);
        int top = horizon - 220 - random.nextInt(120);
        if (night) {
            g.setColor(new Color(247, 200, 88));
            var beam = new Path2D.Double();
            beam.moveTo(x, top);
            beam.lineTo(width, top - 120);
            beam.lineTo(width, top + 150);
            beam.closePath();
            g.fill(beam);
        }
        g.setColor(new Color(226, 214, 196));
        g.fillRect(x - 26, top, 52, horizon - top + 30);
        g.setColor(new Color(156, 58, 42));
        g.fillRect(x - 26, top + 70, 52, 46);
        g.setColor(new Color(244, 190, 70));
        g.fill(new Ellipse2D.Double(x - 20, top - 24, 40, 40));
    }

    private static void boat(Graphics2D g, Random random, int width, int height, int horizon) {
        int x = random.nextInt(width - 240);
        int y = horizon + 40 + random.nextInt(Math.max(1, height - horizon - 120));
        g.setColor(shade(random, 120, 70, 50));
        var hull = new Path2D.Double();
        hull.moveTo(x, y);
        hull.lineTo(x + 200, y);
        hull.lineTo(x + 165, y + 50);
        hull.lineTo(x + 35, y + 50);
        hull.closePath();
        g.fill(hull);
        g.setStroke(new BasicStroke(6));
        g.drawLine(x + 95, y, x + 95, y - 130);
        g.setColor(new Color(240, 232, 214));
        var sail = new Path2D.Double();
        sail.moveTo(x + 102, y - 125);
        sail.lineTo(x + 102, y - 15);
        sail.lineTo(x + 185, y - 15);
        sail.closePath();
        g.fill(sail);
    }

    private static BufferedImage face(Random random) {
        var image = new BufferedImage(192, 192, BufferedImage.TYPE_INT_RGB);
        var g = canvas(image);
        g.setColor(shade(random, 130 + random.nextInt(80), 160, 150));
        g.fillRect(0, 0, 192, 192);
        g.setColor(shade(random, 60 + random.nextInt(140), 70, 80));
        g.fill(new Ellipse2D.Double(20, 130, 152, 130));
        int skin = random.nextInt(120);
        g.setColor(new Color(236 - skin, 200 - skin, 170 - skin));
        g.fill(new Ellipse2D.Double(56, 42, 80, 100));
        g.setColor(shade(random, 40 + random.nextInt(150), 50, 40));
        g.fillArc(50, 30, 92, 90, 0, 180);
        g.setColor(new Color(40, 40, 40));
        g.fill(new Ellipse2D.Double(78, 88, 8, 8));
        g.fill(new Ellipse2D.Double(106, 88, 8, 8));
        g.setStroke(new BasicStroke(3));
        g.drawArc(82, 104, 28, 18, 190, 160);
        g.dispose();
        return image;
    }
}
