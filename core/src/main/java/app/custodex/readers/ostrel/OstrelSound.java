package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.MediaFile;
import app.custodex.model.Playlist;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.CloudTrack;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Set;

/** Reads the playlists, and the tracks that the phone only knows of; those that it has are files. */
final class OstrelSound extends StoreReader {
    private static final String STORE = "store/sound/sound.db";

    OstrelSound() {
        super("sound", new PhonePath(STORE), Set.of(ThingKind.PLAYLIST, ThingKind.TRACK));
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var tracks = new HashMap<Long, Attachment>();
        losses.require(
                "tracks", database.each("track", List.of("id", "path", "title", "artist", "album", "seconds"), row -> {
                    var file = Ostrel.file(row.text("path"), phone);
                    tracks.put(row.number("id"), new Attachment(file.item(), row.text("title"), ""));
                    if (row.text("path").isEmpty()) {
                        sink.thing(track(row));
                    }
                }));
        var lists = new OrderedRows(database, losses, "tracks of playlists", "playlist_track", "playlist", "track");
        losses.tell(
                "playlists",
                database.each(
                        "playlist",
                        List.of("id", "name"),
                        row -> sink.thing(new Playlist(
                                new ThingId(STORE, "playlist-" + row.number("id")),
                                "",
                                row.text("name"),
                                lists.of(row.number("id"), tracks)))));
    }

    private static MediaFile track(PhoneDatabase.Row row) throws java.sql.SQLException {
        return CloudTrack.of(
                new ThingId(STORE, Long.toString(row.number("id"))),
                row.text("title"),
                row.text("artist"),
                row.text("album"),
                row.number("seconds"));
    }
}
