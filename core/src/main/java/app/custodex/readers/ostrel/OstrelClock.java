package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Alarm;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

/** Reads the alarms; the days of the week are bits of a number, Monday the lowest. */
final class OstrelClock extends StoreReader {
    static final PhonePath FOLDER = new PhonePath("store/clock");
    private static final PhonePath STORE = FOLDER.child("clock.db");

    OstrelClock() {
        super("clock", STORE, Set.of(ThingKind.ALARM));
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        losses.require(
                "alarms",
                database.each("alarm", List.of("id", "label", "hour", "minute", "days", "active", "sound"), row -> {
                    long days = row.number("days");
                    sink.thing(new Alarm(
                            new ThingId(STORE.text(), Long.toString(row.number("id"))),
                            "",
                            row.text("label"),
                            LocalTime.of(
                                    Math.clamp(row.number("hour"), 0, 23), Math.clamp(row.number("minute"), 0, 59)),
                            Arrays.stream(DayOfWeek.values())
                                    .filter(day -> (days >> day.ordinal() & 1) == 1)
                                    .toList(),
                            row.flag("active"),
                            row.text("sound")));
                }));
    }
}
