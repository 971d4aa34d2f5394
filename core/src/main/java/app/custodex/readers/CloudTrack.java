package app.custodex.readers;

import app.custodex.model.MediaFile;
import app.custodex.model.MediaFile.Fact;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** A track of which the phone has the name and not the sound. */
public final class CloudTrack {
    private CloudTrack() {}

    /** @param seconds its length; 0 when the phone does not say */
    public static MediaFile of(ThingId id, String title, String artist, String album, long seconds) {
        var facts = new ArrayList<>(List.of(new Fact("Where", "In the cloud only")));
        if (!artist.isEmpty()) {
            facts.add(new Fact("Artist", artist));
        }
        if (!album.isEmpty()) {
            facts.add(new Fact("Album", album));
        }
        return new MediaFile(
                id,
                ThingKind.TRACK,
                "",
                title,
                Optional.empty(),
                0,
                Optional.empty(),
                seconds > 0 ? Optional.of(Duration.ofSeconds(seconds)) : Optional.empty(),
                facts,
                "");
    }
}
