package app.custodex.base;

import java.text.NumberFormat;
import java.time.Duration;
import java.util.Locale;

/** Figures as a technician reads them: decimal units (IEC 80000-13), one decimal, the locale's separators. */
public final class Sizes {
    private static final String[] UNITS = {"B", "kB", "MB", "GB", "TB", "PB"};

    private Sizes() {}

    /** "999 B", "4.1 GB". */
    public static String bytes(long bytes, Locale locale) {
        double value = bytes;
        int unit = 0;
        while (value >= 999.95 && unit < UNITS.length - 1) {
            value /= 1000;
            unit++;
        }
        var format = NumberFormat.getNumberInstance(locale);
        format.setMinimumFractionDigits(unit == 0 ? 0 : 1);
        format.setMaximumFractionDigits(unit == 0 ? 0 : 1);
        return format.format(value) + "\u00a0" + UNITS[unit];
    }

    public static String count(long count, Locale locale) {
        return NumberFormat.getIntegerInstance(locale).format(count);
    }

    /** "under 10 s", "about 40 s", "about 6 min", "about 2 h 5 min": never more exact than the estimate behind it. */
    public static String about(Duration time) {
        long seconds = time.toSeconds();
        if (seconds < 10) {
            return "under 10 s";
        }
        if (seconds < 90) {
            return "about " + (seconds + 5) / 10 * 10 + " s";
        }
        long minutes = (seconds + 30) / 60;
        return "about " + (minutes < 60 ? minutes + " min" : minutes / 60 + " h " + minutes % 60 + " min");
    }
}
