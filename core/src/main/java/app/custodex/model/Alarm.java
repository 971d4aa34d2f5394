package app.custodex.model;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.List;
import java.util.function.Consumer;

/**
 * An alarm of the clock.
 *
 * @param time by the clock of the phone, wherever that is
 * @param days on which it rings, from Monday on; empty when it rings once
 * @param active whether it is switched on
 * @param sound by name; may be empty
 */
public record Alarm(
        ThingId id, String account, String title, LocalTime time, List<DayOfWeek> days, boolean active, String sound)
        implements Thing {
    public Alarm {
        days = List.copyOf(days);
    }

    @Override
    public ThingKind kind() {
        return ThingKind.ALARM;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(time.toString());
        to.accept(sound);
    }
}
