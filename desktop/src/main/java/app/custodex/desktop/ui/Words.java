package app.custodex.desktop.ui;

import app.custodex.base.Sizes;
import app.custodex.model.Moment;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.Locale;
import java.util.Optional;

/** Figures and times in the words of the shop's locale and zone. */
public record Words(Locale locale, ZoneId zone) {
    public String bytes(long bytes) {
        return Sizes.bytes(bytes, locale);
    }

    public String count(long count) {
        return Sizes.count(count, locale);
    }

    /** "1 contact", "412 contacts". */
    public String count(long count, String one, String many) {
        return count(count) + " " + (count == 1 ? one : many);
    }

    public String time(Instant at) {
        return DateTimeFormatter.ofLocalizedTime(FormatStyle.SHORT)
                .localizedBy(locale)
                .withZone(zone)
                .format(at);
    }

    /** "today 9:31", or the day and the time. */
    public String moment(Instant at, Instant now) {
        var day = at.atZone(zone).toLocalDate();
        if (day.equals(now.atZone(zone).toLocalDate())) {
            return "today " + time(at);
        }
        return DateTimeFormatter.ofLocalizedDate(FormatStyle.MEDIUM)
                        .localizedBy(locale)
                        .format(day) + ", " + time(at);
    }

    /**
     * Day and time of a thing, as far as it has them.
     *
     * @param phones by which a time without a zone of its own is told
     */
    public String when(Moment moment, ZoneId phones) {
        return switch (moment) {
            case Moment.At(Instant instant, Optional<ZoneId> own) ->
                local(instant.atZone(own.orElse(phones)).toLocalDateTime());
            case Moment.Floating floating -> local(floating.local());
            case Moment.Day day ->
                DateTimeFormatter.ofLocalizedDate(FormatStyle.MEDIUM)
                        .localizedBy(locale)
                        .format(day.date());
        };
    }

    /** "UTC+1", and the name of the zone where it has one of a place. */
    public String zone(ZoneId of, Instant at) {
        var offset = of.getRules().getOffset(at);
        int minutes = Math.abs(offset.getTotalSeconds() / 60);
        var utc = "UTC"
                + (minutes == 0 ? "" : offset.getTotalSeconds() < 0 ? "−" : "+")
                + (minutes == 0 ? "" : String.valueOf(minutes / 60))
                + (minutes % 60 == 0 ? "" : ":" + (minutes % 60 < 10 ? "0" : "") + minutes % 60);
        var name = of.getId();
        return name.indexOf('/') < 0 || name.startsWith("Etc/") ? utc : name.replace('_', ' ') + ", " + utc;
    }

    public String local(LocalDateTime at) {
        return DateTimeFormatter.ofLocalizedDateTime(FormatStyle.MEDIUM, FormatStyle.SHORT)
                .localizedBy(locale)
                .format(at);
    }
}
