package app.custodex.docket;

import java.net.URI;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Decides when a docket's phone is to be backed up by itself. One thread at a time asks. */
public final class AutomaticRuns {
    private final Clock clock;
    private final ZoneId zone;
    /** Since when the phone at each address has been ready without a break. */
    private final Map<URI, Instant> readySince = new HashMap<>();

    /** @param zone in which a docket's time of day is meant */
    public AutomaticRuns(Clock clock, ZoneId zone) {
        this.clock = clock;
        this.zone = zone;
    }

    /**
     * To be told of every bay whenever one looks, also of those without a docket: a phone that is in already when its docket asks for
     * runs waits until it is plugged in the next time.
     *
     * @param ready whether its phone gives its files at the moment
     */
    public void seen(URI address, boolean ready) {
        if (ready) {
            readySince.putIfAbsent(address, clock.instant());
        } else {
            readySince.remove(address);
        }
    }

    /**
     * Whether a run is due now, by what was seen last.
     *
     * @param lastRun when the docket's last run ended, begun by itself or by hand; a cable that came loose during it asks for no
     *     other
     */
    public boolean due(Docket docket, Optional<Instant> lastRun) {
        var since = readySince.get(docket.address());
        if (since == null) {
            return false;
        }
        var now = clock.instant();
        if (docket.automatic().isEmpty() || !docket.mayBeWorkedOn()) {
            return false;
        }
        var automatic = docket.automatic().get();
        var moment =
                automatic.daily().isPresent() ? lastTime(now, automatic.daily().get()) : since;
        return !moment.isBefore(automatic.since())
                && lastRun.filter(run -> !run.isBefore(moment)).isEmpty();
    }

    private Instant lastTime(Instant now, LocalTime daily) {
        var today = now.atZone(zone).toLocalDate().atTime(daily).atZone(zone).toInstant();
        return today.isAfter(now)
                ? now.atZone(zone)
                        .toLocalDate()
                        .minusDays(1)
                        .atTime(daily)
                        .atZone(zone)
                        .toInstant()
                : today;
    }
}
