package app.custodex.catalogue;

import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Optional;
import java.util.regex.Pattern;

/** How wide and high a picture or video is, upright, in pixels. */
record Shape(int width, int height) {
    private static final Pattern SIZE = Pattern.compile("(\\d{1,5}) × (\\d{1,5})");
    private static final int BITS = 16;
    private static final int MOST = (1 << BITS) - 1;
    /** EXIF 2.32, 4.6.4: from this orientation on the sides are swapped. */
    private static final int FIRST_SWAPPED = 5;

    /** The shape of a thing, as far as its file tells. */
    static Optional<Shape> of(Thing thing) {
        if (!(thing instanceof MediaFile file)) {
            return Optional.empty();
        }
        var size = SIZE.matcher(file.fact("Size").orElse(""));
        if (!size.matches()) {
            return Optional.empty();
        }
        int width = Math.min(MOST, Integer.parseInt(size.group(1)));
        int height = Math.min(MOST, Integer.parseInt(size.group(2)));
        var orientation = file.fact("Orientation").orElse("");
        boolean swapped = orientation.matches("[1-8]") && Integer.parseInt(orientation) >= FIRST_SWAPPED;
        return width == 0 || height == 0
                ? Optional.empty()
                : Optional.of(swapped ? new Shape(height, width) : new Shape(width, height));
    }

    /** In one number, which is how it is kept. */
    long packed() {
        return (long) width << BITS | height;
    }

    /** Width by height of all that have a shape, by their numbers; 0 for the others. */
    static float[] ratios(Connection db) throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, shape FROM thing WHERE shape > 0 ORDER BY id DESC")) {
            var ratios = new float[0];
            while (rows.next()) {
                int number = rows.getInt(1);
                if (ratios.length == 0) {
                    ratios = new float[number + 1]; // the highest comes first
                }
                ratios[number] = ratio(rows.getLong(2));
            }
            return ratios;
        }
    }

    /** Width by height of what was packed. */
    static float ratio(long packed) {
        return (float) (packed >> BITS) / (packed & MOST);
    }
}
