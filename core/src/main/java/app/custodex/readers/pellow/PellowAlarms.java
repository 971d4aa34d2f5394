package app.custodex.readers.pellow;

import app.custodex.link.PhonePath;
import app.custodex.model.Alarm;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.TreeSet;

/** Reads the alarms. */
final class PellowAlarms extends ListReader {
    static final PhonePath FOLDER = new PhonePath("Shared/Clock");
    private static final PhonePath LIST = FOLDER.child("alarms.json");

    PellowAlarms() {
        super("alarms", LIST, ThingKind.ALARM);
    }

    @Override
    void entry(JsonNode entry, int number, PhoneFiles phone, Sink sink) throws IOException {
        var days = new TreeSet<DayOfWeek>();
        for (var day : entry.path("days")) {
            days.add(DayOfWeek.of(day.asInt()));
        }
        sink.thing(new Alarm(
                new ThingId(LIST.text(), text(entry, "time") + " " + text(entry, "label")),
                "",
                text(entry, "label"),
                LocalTime.parse(text(entry, "time")),
                days.stream().toList(),
                entry.path("on").asBoolean(),
                text(entry, "sound")));
    }
}
