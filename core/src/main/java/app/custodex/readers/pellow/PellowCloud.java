package app.custodex.readers.pellow;

import app.custodex.link.PhonePath;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.CloudTrack;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;

/** Reads the tracks that are in the cloud only. */
final class PellowCloud extends ListReader {
    private static final PhonePath LIST = new PhonePath("Music/cloud.json");

    PellowCloud() {
        super("cloud", LIST, ThingKind.TRACK);
    }

    @Override
    void entry(JsonNode entry, int number, PhoneFiles phone, Sink sink) throws IOException {
        var title = text(entry, "title");
        var artist = text(entry, "artist");
        var album = text(entry, "album");
        sink.thing(CloudTrack.of(
                new ThingId(LIST.text(), artist + "/" + album + "/" + title),
                title,
                artist,
                album,
                entry.path("seconds").asLong(0)));
    }
}
