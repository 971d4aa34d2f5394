package app.custodex.model;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * An event of a calendar, with the rule by which it comes again.
 *
 * @param uid lasts from system to system (RFC 5545 §3.8.4.7); may be empty
 * @param ends absent when the phone does not say
 * @param rule a recurrence rule (RFC 5545 §3.3.10); empty for what comes once
 * @param except the times of a series that do not take place
 * @param also times at which it takes place beside those of its rule (RFC 5545 §3.8.5.2)
 * @param instead which time of its series this one takes the place of (RFC 5545 §3.8.4.4)
 * @param alarms how long before it begins
 */
public record Event(
        ThingId id,
        String account,
        String calendar,
        String uid,
        String title,
        String place,
        String description,
        Optional<Moment> moment,
        Optional<Moment> ends,
        String rule,
        List<Moment> except,
        List<Moment> also,
        Optional<Moment> instead,
        List<Duration> alarms,
        List<Party> people)
        implements Thing {
    public Event {
        except = List.copyOf(except);
        also = List.copyOf(also);
        alarms = List.copyOf(alarms);
        people = List.copyOf(people);
    }

    @Override
    public ThingKind kind() {
        return ThingKind.EVENT;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(place);
        to.accept(description);
        to.accept(calendar);
    }
}
