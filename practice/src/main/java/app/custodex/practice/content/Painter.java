package app.custodex.practice.content;

import app.custodex.practice.island.Motif;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;
import java.time.LocalDateTime;
import java.util.Random;

/** Draws the island on a sheet of 1280 by 960 units, by the hour and the month, whatever its size in pixels. */
final class Painter {
    private static final int WIDTH = 1280;
    private static final int HEIGHT = 960;

    private final Random random;
    private final BufferedImage image;
    private final Graphics2D g;
    private final boolean night;
    private final boolean winter;
    private final int horizon;

    private Painter(Random random, int width, LocalDateTime at) {
        this.random = random;
        image = new BufferedImage(width, width * 3 / 4, BufferedImage.TYPE_INT_RGB);
        g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.transform(AffineTransform.getScaleInstance(width / (double) WIDTH, width / (double) WIDTH));
        int month = at.getMonthValue();
        winter = month < 3 || month > 11;
        boolean summer = month > 4 && month < 9;
        night = at.getHour() < (summer ? 4 : 7) || at.getHour() > (summer ? 22 : 17);
        horizon = (int) (HEIGHT * (0.58 + random.nextDouble() * 0.12));
    }

    /**
     * A picture.
     *
     * @param width in pixels; the height is three quarters of it
     * @param grain as a sensor puts it there
     */
    static BufferedImage paint(Motif motif, long seed, LocalDateTime at, int width, boolean grain) {
        var painter = new Painter(new Random(seed), width, at);
        painter.draw(motif);
        painter.g.dispose();
        if (grain) {
            painter.grain();
        }
        return painter.image;
    }

    private void draw(Motif motif) {
        switch (motif) {
            case SCREEN -> screen();
            case BREAD -> bread();
            case DOG -> dog();
            case CHOIR -> choir();
            default -> {
                sky(motif);
                land(motif);
                sea(motif);
                front(motif);
            }
        }
    }

    private void front(Motif motif) {
        switch (motif) {
            case LIGHTHOUSE, NIGHT, SNOW -> lighthouse(300 + random.nextInt(500));
            case BOAT, STORM -> boat(200 + random.nextInt(500), horizon + 60, 1.4);
            case SEAL -> seals();
            case KELP -> kelp();
            case GATE -> gate();
            case CLIFF -> birds();
            case HILL -> sheep();
            case SUNSET, SEA -> boat(700, horizon + 10, 0.4);
            default -> {}
        }
        if (motif == Motif.STORM) {
            rain();
        } else if (motif == Motif.SNOW) {
            flakes();
        }
    }

    private Color shade(int red, int green, int blue) {
        int shift = random.nextInt(36) - 18;
        double light = night ? 0.38 : 1;
        return new Color(
                clamp((red + shift) * light),
                clamp((green + shift) * light),
                clamp((blue + shift) * (night ? 0.5 : 1)));
    }

    private static int clamp(double value) {
        return (int) Math.clamp(value, 0, 255);
    }

    private void sky(Motif motif) {
        var top = motif == Motif.SUNSET
                ? shade(120, 110, 150)
                : motif == Motif.STORM ? shade(90, 98, 106) : shade(170, 200, 222);
        var low = motif == Motif.SUNSET
                ? shade(246, 168, 98)
                : motif == Motif.STORM ? shade(130, 134, 136) : shade(226, 232, 228);
        for (int y = 0; y < horizon; y += 4) {
            double part = y / (double) horizon;
            g.setColor(new Color(
                    clamp(top.getRed() + part * (low.getRed() - top.getRed())),
                    clamp(top.getGreen() + part * (low.getGreen() - top.getGreen())),
                    clamp(top.getBlue() + part * (low.getBlue() - top.getBlue()))));
            g.fillRect(0, y, WIDTH, 4);
        }
        if (motif == Motif.SUNSET) {
            g.setColor(new Color(255, 214, 130));
            g.fill(new Ellipse2D.Double(480 + random.nextInt(300), horizon - 120, 150, 150));
        } else if (night) {
            stars(motif == Motif.AURORA);
        } else {
            clouds(motif == Motif.STORM ? 9 : 3 + random.nextInt(3));
        }
    }

    private void stars(boolean aurora) {
        g.setColor(new Color(236, 236, 220));
        for (int i = 0; i < 160; i++) {
            g.fill(new Ellipse2D.Double(random.nextInt(WIDTH), random.nextInt(horizon), 3, 3));
        }
        if (aurora) {
            for (int band = 0; band < 60; band++) {
                g.setColor(new Color(70, 220, 150, 22));
                double x = band * 22 + random.nextInt(20);
                var light = new Path2D.Double();
                light.moveTo(x, 60 + 60 * Math.sin(band / 6.0));
                light.lineTo(x + 60, 80 + 60 * Math.sin(band / 6.0));
                light.lineTo(x + 30, horizon - 60);
                light.closePath();
                g.fill(light);
            }
        }
    }

    private void clouds(int count) {
        for (int i = 0; i < count; i++) {
            int x = random.nextInt(WIDTH) - 120;
            int y = 40 + random.nextInt(220);
            g.setColor(new Color(250, 250, 248, 90));
            for (int puff = 0; puff < 7; puff++) {
                g.fill(new Ellipse2D.Double(x + puff * 46, y + random.nextInt(34), 120, 60));
            }
        }
    }

    private void land(Motif motif) {
        boolean white = motif == Motif.SNOW || winter && motif != Motif.SEA;
        for (int row = 0; row < 2; row++) {
            g.setColor(
                    white
                            ? shade(226 - row * 20, 232 - row * 20, 236 - row * 20)
                            : shade(110 + row * 20, 136 - row * 10, 96));
            var hill = new Path2D.Double();
            hill.moveTo(0, HEIGHT);
            for (int x = 0; x <= WIDTH; x += 160) {
                hill.lineTo(x, horizon - 190 + row * 90 + random.nextInt(120));
            }
            hill.lineTo(WIDTH, HEIGHT);
            hill.closePath();
            g.fill(hill);
        }
    }

    private void sea(Motif motif) {
        if (motif == Motif.HILL || motif == Motif.GATE) {
            g.setColor(shade(128, 150, 92));
            g.fillRect(0, horizon, WIDTH, HEIGHT - horizon);
            return;
        }
        double height = motif == Motif.STORM ? 46 : 12;
        for (int row = 0; row < 5; row++) {
            g.setColor(
                    motif == Motif.SUNSET
                            ? shade(150 - row * 12, 120 - row * 8, 126)
                            : shade(96 - row * 8, 138 - row * 9, 150 - row * 8));
            var wave = new Path2D.Double();
            wave.moveTo(0, HEIGHT);
            double phase = random.nextDouble() * 6;
            for (int x = 0; x <= WIDTH; x += 8) {
                wave.lineTo(x, horizon + row * 70 + height * Math.sin(x / (70.0 + row * 20) + phase));
            }
            wave.lineTo(WIDTH, HEIGHT);
            wave.closePath();
            g.fill(wave);
        }
    }

    private void lighthouse(int x) {
        int top = horizon - 280 - random.nextInt(80);
        if (night) {
            g.setColor(new Color(247, 220, 138, 120));
            var beam = new Path2D.Double();
            beam.moveTo(x, top);
            beam.lineTo(WIDTH, top - 130);
            beam.lineTo(WIDTH, top + 160);
            beam.closePath();
            g.fill(beam);
        }
        g.setColor(shade(232, 222, 206));
        g.fillRect(x - 28, top, 56, horizon - top + 40);
        g.setColor(shade(160, 62, 46));
        g.fillRect(x - 28, top + 70, 56, 48);
        g.fillRect(x - 28, top + 180, 56, 48);
        g.setColor(new Color(250, 206, 96));
        g.fill(new Ellipse2D.Double(x - 22, top - 26, 44, 44));
    }

    private void boat(int x, int y, double size) {
        var before = g.getTransform();
        g.translate(x, y);
        g.scale(size, size);
        g.rotate((random.nextDouble() - 0.5) * 0.14);
        g.setColor(shade(120 + random.nextInt(60), 74, 56));
        var hull = new Path2D.Double();
        hull.moveTo(0, 0);
        hull.lineTo(200, 0);
        hull.lineTo(165, 52);
        hull.lineTo(35, 52);
        hull.closePath();
        g.fill(hull);
        g.setStroke(new BasicStroke(6));
        g.drawLine(95, 0, 95, -130);
        g.setColor(shade(240, 232, 214));
        var sail = new Path2D.Double();
        sail.moveTo(102, -125);
        sail.lineTo(102, -15);
        sail.lineTo(185, -15);
        sail.closePath();
        g.fill(sail);
        g.setTransform(before);
    }

    private void seals() {
        for (int i = 2 + random.nextInt(4); i > 0; i--) {
            int x = random.nextInt(WIDTH - 300);
            int y = horizon + 60 + random.nextInt(200);
            g.setColor(shade(112, 108, 100));
            g.fill(new Ellipse2D.Double(x - 30, y + 34, 320, 70));
            g.setColor(shade(74, 76, 80));
            g.fill(new Ellipse2D.Double(x, y, 230, 66));
            g.fill(new Ellipse2D.Double(x + 180, y - 34, 76, 70));
            g.setColor(new Color(20, 20, 22));
            g.fill(new Ellipse2D.Double(x + 222, y - 14, 12, 12));
        }
    }

    private void kelp() {
        g.setStroke(new BasicStroke(16, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        for (int i = 0; i < 26; i++) {
            g.setColor(shade(96, 84, 36));
            int x = random.nextInt(WIDTH);
            var strand = new Path2D.Double();
            strand.moveTo(x, HEIGHT);
            for (int y = HEIGHT; y > horizon + 120; y -= 40) {
                strand.lineTo(x + 30 * Math.sin(y / 40.0 + i), y);
            }
            g.draw(strand);
        }
    }

    private void gate() {
        g.setStroke(new BasicStroke(18));
        g.setColor(shade(122, 96, 70));
        int lean = random.nextInt(90) - 30;
        for (int bar = 0; bar < 4; bar++) {
            g.drawLine(320, horizon + 40 + bar * 56, 900, horizon + 40 + bar * 56 + lean);
        }
        g.drawLine(320, horizon, 320, horizon + 280);
        g.drawLine(900, horizon + lean, 900, horizon + 280 + lean);
        g.drawLine(320, horizon + 210, 900, horizon + 40 + lean);
    }

    private void birds() {
        g.setStroke(new BasicStroke(5));
        g.setColor(shade(60, 60, 64));
        for (int i = 0; i < 24; i++) {
            int x = random.nextInt(WIDTH);
            int y = random.nextInt(horizon);
            g.drawArc(x, y, 34, 20, 20, 140);
            g.drawArc(x + 32, y, 34, 20, 20, 140);
        }
    }

    private void sheep() {
        for (int i = 0; i < 5; i++) {
            int x = random.nextInt(WIDTH - 140);
            int y = horizon + 30 + random.nextInt(220);
            g.setColor(shade(236, 232, 222));
            g.fill(new Ellipse2D.Double(x, y, 120, 80));
            g.setColor(shade(52, 50, 48));
            g.fill(new Ellipse2D.Double(x + 100, y + 6, 40, 44));
            g.fillRect(x + 24, y + 70, 12, 40);
            g.fillRect(x + 84, y + 70, 12, 40);
        }
    }

    private void rain() {
        g.setStroke(new BasicStroke(2));
        g.setColor(new Color(210, 218, 222, 110));
        for (int i = 0; i < 500; i++) {
            int x = random.nextInt(WIDTH);
            int y = random.nextInt(HEIGHT);
            g.drawLine(x, y, x - 14, y + 30);
        }
    }

    private void flakes() {
        g.setColor(new Color(255, 255, 255, 200));
        for (int i = 0; i < 320; i++) {
            double size = 3 + random.nextInt(8);
            g.fill(new Ellipse2D.Double(random.nextInt(WIDTH), random.nextInt(HEIGHT), size, size));
        }
    }

    private void bread() {
        g.setColor(shade(150, 120, 92));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        g.setStroke(new BasicStroke(3));
        g.setColor(shade(126, 98, 74));
        for (int y = 60; y < HEIGHT; y += 120) {
            g.drawLine(0, y, WIDTH, y + random.nextInt(20));
        }
        g.setColor(shade(236, 234, 226));
        g.fill(new Ellipse2D.Double(240, 180, 780, 620));
        for (int i = 0; i < 4; i++) {
            int x = 380 + (i % 2) * 260;
            int y = 300 + (i / 2) * 210;
            g.setColor(shade(188, 132, 70));
            g.fill(new Ellipse2D.Double(x, y, 230, 160));
            g.setColor(shade(226, 186, 122));
            g.setStroke(new BasicStroke(10));
            for (int cut = 0; cut < 3; cut++) {
                g.drawLine(x + 60 + cut * 46, y + 40, x + 40 + cut * 46, y + 110);
            }
        }
    }

    private void dog() {
        g.setColor(shade(178, 168, 150));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        for (int i = 0; i < 6; i++) {
            g.setColor(shade(90 + i * 20, 96, 120 - i * 10));
            g.fill(new Ellipse2D.Double(80 + random.nextInt(900), 460 + random.nextInt(300), 460, 220));
        }
        var fur = shade(120 + random.nextInt(60), 92, 60);
        g.setColor(fur);
        g.fill(new Ellipse2D.Double(360, 420, 560, 320));
        g.fill(new Ellipse2D.Double(300, 320, 260, 240));
        g.setColor(fur.darker());
        g.fill(new Ellipse2D.Double(280, 300, 90, 170));
        g.fill(new Ellipse2D.Double(490, 300, 90, 170));
        g.setColor(new Color(24, 20, 18));
        g.fill(new Ellipse2D.Double(392, 480, 64, 44));
        g.setStroke(new BasicStroke(8));
        g.drawArc(360, 400, 44, 24, 180, 180); // asleep
        g.drawArc(450, 400, 44, 24, 180, 180);
    }

    private void choir() {
        g.setColor(shade(92, 74, 66));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        g.setColor(shade(208, 178, 120));
        for (int i = 0; i < 4; i++) {
            g.fillRect(120 + i * 290, 80, 120, 260);
        }
        for (int row = 0; row < 3; row++) {
            for (int i = 0; i < 6 + row; i++) {
                int x = 110 + i * (1_060 / (6 + row)) + random.nextInt(20);
                int y = 360 + row * 150;
                g.setColor(shade(40 + random.nextInt(120), 60, 90));
                g.fill(new Ellipse2D.Double(x - 30, y + 90, 190, 320));
                int skin = random.nextInt(110);
                g.setColor(new Color(236 - skin, 200 - skin, 172 - skin));
                g.fill(new Ellipse2D.Double(x + 10, y, 110, 126));
                g.setColor(new Color(70, 20, 24));
                g.fill(new Ellipse2D.Double(x + 52, y + 78, 28, 30)); // all of them at the same vowel
            }
        }
    }

    private void screen() {
        g.setColor(new Color(240, 238, 232));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        g.setColor(new Color(44, 82, 86));
        g.fillRect(0, 0, WIDTH, 90);
        int y = 130;
        for (int i = 0; y < HEIGHT - 120; i++) {
            boolean own = random.nextBoolean();
            int width = 260 + random.nextInt(480);
            int height = 70 + 44 * random.nextInt(3);
            int x = own ? WIDTH - width - 60 : 60;
            g.setColor(own ? new Color(206, 224, 222) : Color.WHITE);
            g.fillRect(x, y, width, height);
            g.setColor(new Color(120, 120, 116));
            for (int line = y + 24; line < y + height - 20; line += 40) {
                g.fillRect(x + 24, line, width - 48 - random.nextInt(120), 12);
            }
            y += height + 26;
        }
    }

    private void grain() {
        var pixels = ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
        long state = random.nextLong() | 1;
        for (int i = 0; i < pixels.length; i++) {
            state ^= state << 13; // xorshift (Marsaglia 2003): a generator object for each pixel would take longer than
            // drawing
            state ^= state >>> 7;
            state ^= state << 17;
            int noise = (int) (state & 15) - 7;
            int pixel = pixels[i];
            pixels[i] = clamp((pixel >> 16 & 255) + noise) << 16
                    | clamp((pixel >> 8 & 255) + noise) << 8
                    | clamp((pixel & 255) + noise);
        }
    }

    /** A small square face; the same for the same number. */
    static BufferedImage face(int number) {
        var random = new Random(number * 31L + 5);
        var image = new BufferedImage(192, 192, BufferedImage.TYPE_INT_RGB);
        var g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(tone(random, 130 + random.nextInt(80), 160, 150));
        g.fillRect(0, 0, 192, 192);
        g.setColor(tone(random, 60 + random.nextInt(140), 70, 80));
        g.fill(new Ellipse2D.Double(20, 130, 152, 130));
        int skin = random.nextInt(120);
        g.setColor(new Color(236 - skin, 200 - skin, 170 - skin));
        g.fill(new Ellipse2D.Double(56, 42, 80, 100));
        g.setColor(tone(random, 40 + random.nextInt(150), 50, 40));
        g.fillArc(50, 30, 92, 90, 0, 180);
        g.setColor(new Color(40, 40, 40));
        g.fill(new Ellipse2D.Double(78, 88, 8, 8));
        g.fill(new Ellipse2D.Double(106, 88, 8, 8));
        g.setStroke(new BasicStroke(3));
        g.drawArc(82, 104, 28, 18, 190, 160);
        g.dispose();
        return image;
    }

    private static Color tone(Random random, int red, int green, int blue) {
        int shift = random.nextInt(40) - 20;
        return new Color(clamp(red + shift), clamp(green + shift), clamp(blue + shift));
    }
}
