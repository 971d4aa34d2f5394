package app.custodex.model;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** A call, with the others in it. */
public record Call(
        ThingId id,
        String account,
        Optional<Moment> moment,
        List<Party> people,
        Outcome outcome,
        Medium medium,
        Duration length)
        implements Thing {
    public Call {
        people = List.copyOf(people);
    }

    /** What became of it. */
    public enum Outcome {
        MADE,
        TAKEN,
        MISSED,
        DECLINED
    }

    public enum Medium {
        VOICE,
        VIDEO,
        APP
    }

    @Override
    public ThingKind kind() {
        return ThingKind.CALL;
    }

    @Override
    public String title() {
        return people.isEmpty() ? "(unknown)" : people.getFirst().title();
    }

    @Override
    public void texts(Consumer<String> to) {
        // Who was called is found by the people in it.
    }

    @Override
    public Optional<Boolean> outgoing() {
        return Optional.of(outcome == Outcome.MADE);
    }
}
