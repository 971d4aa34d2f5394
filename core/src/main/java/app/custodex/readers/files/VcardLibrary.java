package app.custodex.readers.files;

import app.custodex.model.Contact.Day;
import ezvcard.VCardDataType;
import ezvcard.VCardVersion;
import ezvcard.io.EmbeddedVCardException;
import ezvcard.io.ParseContext;
import ezvcard.io.scribe.ScribeIndex;
import ezvcard.parameter.VCardParameters;
import ezvcard.property.DateOrTimeProperty;
import ezvcard.property.Revision;
import ezvcard.property.VCardProperty;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.MonthDay;
import java.time.ZoneOffset;
import java.time.temporal.ChronoField;
import java.util.Optional;

/** Asks the vCard library about dates in every form, and whether properties that a contact has no field for are valid. */
final class VcardLibrary {
    private static final ScribeIndex SCRIBES = new ScribeIndex();
    /** Of a second: nanoseconds. */
    private static final int MOST_DECIMALS = 9;

    private final VCardVersion version;
    private final VcardLosses losses;

    /** @param version of the card */
    VcardLibrary(VCardVersion version, VcardLosses losses) {
        this.version = version;
        this.losses = losses;
    }

    /** Counts a property that is not valid. */
    void check(CardProperty property) {
        // XML would be given to a parser of its own, which writes to the terminal.
        if (!property.key().startsWith("X-") && !property.key().equals("XML")) {
            parsed(property);
        }
    }

    /** Of a property that holds a day; empty for a text, a time without one, and what can't be understood. */
    Optional<Day> day(CardProperty property) {
        var plain = plainDay(property);
        return plain.isPresent() ? plain : parsed(property).flatMap(VcardLibrary::day);
    }

    /** Of a property that holds a moment; empty when its zone is not told, and for what can't be understood. */
    Optional<Instant> instant(CardProperty property) {
        var plain = plainInstant(property.value());
        return plain.isPresent()
                ? plain
                : parsed(property)
                        .map(of -> of instanceof Revision revision ? revision.getValue() : null)
                        .filter(value -> value.isSupported(ChronoField.INSTANT_SECONDS))
                        .map(Instant::from);
    }

    private Optional<VCardProperty> parsed(CardProperty property) {
        var scribe = SCRIBES.getPropertyScribe(property.name());
        if (scribe == null) {
            return Optional.empty();
        }
        var parameters = new VCardParameters();
        property.parameters().stream()
                .filter(parameter -> !parameter.name().equals(VCardParameters.VALUE))
                .forEach(parameter -> parameters.put(parameter.name(), parameter.value()));
        var type = property.dataType().map(VCardDataType::get).orElseGet(() -> scribe.defaultDataType(version));
        var context = new ParseContext();
        context.setVersion(version);
        context.setPropertyName(property.name());
        try {
            return Optional.of(scribe.parseText(property.value(), type, parameters, context));
        } catch (EmbeddedVCardException e) {
            return Optional.empty(); // a card inside the card, whose lines come by themselves
        } catch (RuntimeException e) { // it can't be parsed, or the library met what its authors did not expect
            losses.odd();
            return Optional.empty();
        } finally {
            context.getWarnings().forEach(warning -> losses.odd());
        }
    }

    private static Optional<Day> day(VCardProperty property) {
        if (!(property instanceof DateOrTimeProperty day)) {
            return Optional.empty();
        }
        var partial = day.getPartialDate();
        try {
            if (day.getDate() != null) {
                return Optional.of(day(LocalDate.from(day.getDate())));
            }
            if (partial == null || partial.getMonth() == null || partial.getDate() == null) {
                return Optional.empty();
            }
            return partial.getYear() == null
                    ? Optional.of(day(MonthDay.of(partial.getMonth(), partial.getDate())))
                    : Optional.of(day(LocalDate.of(partial.getYear(), partial.getMonth(), partial.getDate())));
        } catch (DateTimeException noDate) {
            return Optional.empty();
        }
    }

    private static Day day(MonthDay day) {
        return new Day(Optional.empty(), day.getMonthValue(), day.getDayOfMonth());
    }

    private static Day day(LocalDate date) {
        return new Day(Optional.of(date.getYear()), date.getMonthValue(), date.getDayOfMonth());
    }

    // Nearly every card holds dates in these forms of ISO 8601, and the library tries all others too, with a pattern
    // for each.

    private static Optional<Day> plainDay(CardProperty property) {
        var text = property.value();
        if (property.dataType().filter("text"::equalsIgnoreCase).isPresent()) {
            return Optional.empty();
        }
        return text.startsWith("--")
                ? plainDigits(text.substring(2), 2, '-').flatMap(VcardLibrary::plainMonthDay)
                : plainDate(text).map(VcardLibrary::day);
    }

    private static Optional<Day> plainMonthDay(int[] monthAndDay) {
        try {
            return Optional.of(day(MonthDay.of(monthAndDay[0], monthAndDay[1])));
        } catch (DateTimeException noDay) {
            return Optional.empty();
        }
    }

    private static Optional<LocalDate> plainDate(String text) {
        int year = text.length() < 4 ? -1 : number(text, 0, 4);
        if (year < 0) {
            return Optional.empty();
        }
        boolean hyphens = text.length() > 4 && text.charAt(4) == '-';
        return plainDigits(text.substring(hyphens ? 5 : 4), 2, '-').flatMap(monthAndDay -> {
            try {
                return Optional.of(LocalDate.of(year, monthAndDay[0], monthAndDay[1]));
            } catch (DateTimeException noDate) {
                return Optional.empty();
            }
        });
    }

    private static Optional<Instant> plainInstant(String text) {
        int time = text.indexOf('T');
        if (time < 0 || !text.endsWith("Z")) {
            return Optional.empty();
        }
        int end = text.length() - 1;
        int point = text.indexOf('.', time);
        return plainDate(text.substring(0, time))
                .flatMap(date -> plainDigits(text.substring(time + 1, point < 0 ? end : point), 3, ':')
                        .filter(t -> t[0] < 24 && t[1] < 60 && t[2] < 60)
                        .map(t -> date.atTime(t[0], t[1], t[2]).toInstant(ZoneOffset.UTC)))
                .flatMap(second -> point < 0
                        ? Optional.of(second)
                        : plainNanos(text, point + 1, end).map(second::plusNanos));
    }

    /** What stands behind the point of a second. */
    private static Optional<Integer> plainNanos(String text, int from, int until) {
        int digits = until - from;
        if (digits < 1 || digits > MOST_DECIMALS) {
            return Optional.empty();
        }
        int number = number(text, from, until);
        for (int i = digits; i < MOST_DECIMALS; i++) {
            number *= 10;
        }
        return number < 0 ? Optional.empty() : Optional.of(number);
    }

    /** So many numbers of two digits, with a sign between all of them or none; empty for anything else. */
    private static Optional<int[]> plainDigits(String text, int count, char between) {
        boolean apart = text.length() == 3 * count - 1;
        if (!apart && text.length() != 2 * count) {
            return Optional.empty();
        }
        var numbers = new int[count];
        for (int i = 0; i < count; i++) {
            int from = i * (apart ? 3 : 2);
            numbers[i] = number(text, from, from + 2);
            if (numbers[i] < 0 || apart && i > 0 && text.charAt(from - 1) != between) {
                return Optional.empty();
            }
        }
        return Optional.of(numbers);
    }

    /** Of digits only; negative for anything else. */
    private static int number(String text, int from, int until) {
        int number = 0;
        for (int i = from; i < until; i++) {
            int digit = text.charAt(i) - '0';
            if (digit < 0 || digit > 9) {
                return -1;
            }
            number = 10 * number + digit;
        }
        return number;
    }
}
