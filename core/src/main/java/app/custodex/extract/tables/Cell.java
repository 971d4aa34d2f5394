package app.custodex.extract.tables;

import java.time.Duration;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** What stands in one cell, so that a spreadsheet can count with it. */
sealed interface Cell {
    Cell EMPTY = new Text("");

    /** As it stands in a table of plain text. */
    String text();

    /** Words. */
    record Text(String text) implements Cell {}

    /** A number. */
    record Number(long value) implements Cell {
        @Override
        public String text() {
            return Long.toString(value);
        }
    }

    /** A number with a fraction. */
    record Fraction(double value) implements Cell {
        @Override
        public String text() {
            return String.format(Locale.ROOT, "%.6f", value);
        }
    }

    /** A time by the clock of the zone in which the table is written. */
    record When(LocalDateTime local) implements Cell {
        private static final DateTimeFormatter FORM = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT);

        @Override
        public String text() {
            return FORM.format(local);
        }
    }

    /** How long something took: hours, minutes and seconds. */
    record Length(Duration duration) implements Cell {
        @Override
        public String text() {
            return String.format(
                    Locale.ROOT,
                    "%d:%02d:%02d",
                    duration.toHours(),
                    duration.toMinutesPart(),
                    duration.toSecondsPart());
        }
    }
}
