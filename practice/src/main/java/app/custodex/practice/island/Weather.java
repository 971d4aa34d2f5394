package app.custodex.practice.island;

import java.time.LocalDate;
import java.util.SplittableRandom;

/** The seasons and the storms. */
final class Weather {
    static final LocalDate STORM_NIGHT = LocalDate.of(2025, 11, 14);

    private Weather() {}

    static String season(LocalDate day) {
        return switch (day.getMonthValue()) {
            case 12, 1, 2 -> "winter";
            case 3, 4, 5 -> "spring";
            case 6, 7, 8 -> "summer";
            default -> "autumn";
        };
    }

    /** About one day in twenty from October to March, and the storm night. */
    static boolean storm(long seed, LocalDate day) {
        boolean dark = day.getMonthValue() > 9 || day.getMonthValue() < 4;
        return day.equals(STORM_NIGHT)
                || dark && new SplittableRandom(seed * 8_191 + day.toEpochDay()).nextInt(20) == 0;
    }
}
