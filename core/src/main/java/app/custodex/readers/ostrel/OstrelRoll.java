package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Album;
import app.custodex.model.Album.Use;
import app.custodex.model.Attachment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Reads which pictures were put together, by their owner or by the phone; the pictures themselves are files. */
final class OstrelRoll extends StoreReader {
    private static final String STORE = "store/roll/roll.db";

    OstrelRoll() {
        super("roll", new PhonePath(STORE), Set.of(ThingKind.ALBUM));
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var pictures = new HashMap<Long, Attachment>();
        var byUse = new LinkedHashMap<String, List<Attachment>>();
        var clips = new LinkedHashMap<Long, List<Attachment>>();
        losses.require(
                "pictures",
                database.each(
                        "picture", List.of("id", "path", "favourite", "hidden", "binned", "burst", "clip"), row -> {
                            long id = row.number("id");
                            var file = Ostrel.file(row.text("path"), phone);
                            pictures.put(id, file);
                            if (row.flag("favourite")) {
                                add(byUse, Use.FAVOURITES.name(), file);
                            }
                            if (row.flag("hidden")) {
                                add(byUse, Use.HIDDEN.name(), file);
                            }
                            if (row.number("binned") != 0) {
                                add(byUse, Use.BIN.name(), file);
                            }
                            if (row.number("burst") != 0) {
                                add(byUse, Use.BURST.name() + "-" + row.number("burst"), file);
                            }
                            if (!row.text("clip").isEmpty()) {
                                clips.put(id, List.of(file, Ostrel.file(row.text("clip"), phone)));
                            }
                        }));
        var albums = new OrderedRows(database, losses, "pictures of albums", "album_picture", "album", "picture");
        losses.tell(
                "albums",
                database.each(
                        "album",
                        List.of("id", "name"),
                        row -> sink.thing(new Album(
                                new ThingId(STORE, "album-" + row.number("id")),
                                "",
                                row.text("name"),
                                Use.ALBUM,
                                albums.of(row.number("id"), pictures)))));
        for (var of : byUse.entrySet()) {
            var use = Use.valueOf(of.getKey().replaceFirst("-.*", ""));
            sink.thing(new Album(new ThingId(STORE, of.getKey()), "", "", use, of.getValue()));
        }
        for (var clip : clips.entrySet()) {
            sink.thing(new Album(new ThingId(STORE, "clip-" + clip.getKey()), "", "", Use.CLIP, clip.getValue()));
        }
    }

    private static void add(Map<String, List<Attachment>> byUse, String use, Attachment file) {
        byUse.computeIfAbsent(use, u -> new ArrayList<>()).add(file);
    }
}
