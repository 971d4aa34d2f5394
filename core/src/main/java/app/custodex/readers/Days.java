package app.custodex.readers;

import app.custodex.model.Contact.Day;
import java.time.DateTimeException;
import java.time.MonthDay;
import java.util.Optional;
import java.util.regex.Pattern;

/** Reads days as phones write them: ISO 8601 with or without hyphens, or "--MM-DD" without a year. */
public final class Days {
    private static final Pattern DAY = Pattern.compile("(?:(\\d{4})-?|--)(\\d{2})-?(\\d{2})(?:T.*)?");

    private Days() {}

    public static Optional<Day> parse(String text) {
        var match = DAY.matcher(text.strip());
        if (!match.matches()) {
            return Optional.empty();
        }
        try {
            int month = Integer.parseInt(match.group(2));
            int day = Integer.parseInt(match.group(3));
            MonthDay.of(month, day);
            return Optional.of(new Day(Optional.ofNullable(match.group(1)).map(Integer::parseInt), month, day));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }
}
