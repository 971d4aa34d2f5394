package app.custodex.extract.pdf;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;

/** What is drawn on one page, in the operators of ISO 32000-1, annex A. Lengths are in points, from the lower left corner. */
final class Canvas {
    private static final HexFormat HEX = HexFormat.of().withUpperCase();

    private final EmbeddedFonts fonts;
    private final StringBuilder operators = new StringBuilder(1 << 12);

    Canvas(EmbeddedFonts fonts) {
        this.fonts = fonts;
    }

    byte[] bytes() {
        return operators.toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** What follows is what a part of the document's structure says. */
    void begin(String tag, int number) {
        operators.append('/').append(tag).append(" <</MCID ").append(number).append(">> BDC\n");
    }

    /** What follows says nothing: rules, page numbers. */
    void beginArtifact() {
        operators.append("/Artifact BMC\n");
    }

    void end() {
        operators.append("EMC\n");
    }

    void fill(int colour, double x, double y, double width, double height) {
        colour(colour);
        operators
                .append(number(x))
                .append(' ')
                .append(number(y))
                .append(' ')
                .append(number(width))
                .append(' ')
                .append(number(height))
                .append(" re f\n");
    }

    /** Draws a picture of the document's resources. */
    void picture(String name, double x, double y, double width, double height) {
        operators
                .append("q ")
                .append(number(width))
                .append(" 0 0 ")
                .append(number(height))
                .append(' ')
                .append(number(x))
                .append(' ')
                .append(number(y))
                .append(" cm /")
                .append(name)
                .append(" Do Q\n");
    }

    private void colour(int colour) {
        operators
                .append(number((colour >> 16 & 255) / 255.0))
                .append(' ')
                .append(number((colour >> 8 & 255) / 255.0))
                .append(' ')
                .append(number((colour & 255) / 255.0))
                .append(" rg ");
    }

    /** Draws a line of text; y is that of the line on which it stands. */
    void text(TextLine line, double x, double y, double size, int colour) throws IOException {
        operators.append("BT ");
        colour(colour);
        double at = x;
        for (var piece : line.pieces()) {
            piece(piece, at, y, size);
            at += piece.width() * size / 1000;
        }
        operators.append("ET\n");
    }

    private void piece(Shaped piece, double x, double y, double size) throws IOException {
        if (piece.clusters().isEmpty()) {
            return;
        }
        var font = fonts.of(piece.typeface());
        operators
                .append('/')
                .append(font.name())
                .append(' ')
                .append(number(size))
                .append(" Tf 1 0 0 1 ")
                .append(number(x))
                .append(' ')
                .append(number(y))
                .append(" Tm ");
        var pen = new Pen(font, size);
        for (var sign : piece.clusters()) {
            boolean plain = font.use(sign);
            if (!plain) {
                pen.lift();
                operators
                        .append("/Span <</ActualText <FEFF")
                        .append(HEX.formatHex(sign.text().getBytes(StandardCharsets.UTF_16BE)))
                        .append(">>> BDC ");
            }
            for (var glyph : sign.glyphs()) {
                pen.draw(glyph);
            }
            if (!plain) {
                pen.lift();
                operators.append("EMC ");
            }
        }
        pen.lift();
        operators.append('\n');
    }

    /** Where the next glyph would come by itself, in thousandths of the size. */
    private final class Pen {
        private final EmbeddedFont font;
        private final double size;
        private double at;
        private double rise;
        private boolean down;

        Pen(EmbeddedFont font, double size) {
            this.font = font;
            this.size = size;
        }

        void draw(Shaped.Glyph glyph) throws IOException {
            if (Math.abs(glyph.rise() - rise) > 0.01) {
                lift();
                rise(glyph.rise());
            }
            long gap = Math.round(at - glyph.x());
            if (!down) {
                operators.append('[');
                if (gap != 0) {
                    operators.append(gap);
                }
                operators.append('<');
                down = true;
            } else if (gap != 0) {
                operators.append('>').append(gap).append('<');
            }
            operators.append(HEX.toHexDigits((short) glyph.number()));
            at += font.width(glyph.number()) - gap;
        }

        private void rise(double to) {
            rise = to;
            operators.append(number(to * size / 1000)).append(" Ts ");
        }

        void lift() {
            if (down) {
                operators.append(">] TJ ");
                down = false;
            }
            if (rise != 0) {
                rise(0);
            }
        }
    }

    /** To a hundredth of a point; there are too many of them for a general formatter. */
    private static String number(double value) {
        long hundredths = Math.round(value * 100);
        long rest = Math.abs(hundredths) % 100;
        var whole = (hundredths < 0 ? "-" : "") + Math.abs(hundredths) / 100;
        return rest == 0 ? whole : whole + (rest < 10 ? ".0" : ".") + rest;
    }
}
