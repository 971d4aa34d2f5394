package app.custodex.readers.pellow;

import app.custodex.link.PhonePath;
import app.custodex.model.Album;
import app.custodex.model.Album.Use;
import app.custodex.model.Attachment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.util.ArrayList;

/** Reads which pictures were put together. */
final class PellowAlbums extends ListReader {
    private static final PhonePath FOLDER = new PhonePath("Pictures");
    private static final PhonePath LIST = FOLDER.child("albums.json");

    PellowAlbums() {
        super("albums", LIST, ThingKind.ALBUM);
    }

    @Override
    void entry(JsonNode entry, int number, PhoneFiles phone, Sink sink) throws IOException {
        var pictures = new ArrayList<Attachment>();
        for (var file : entry.path("files")) {
            var item = FOLDER.text() + "/" + file.asText();
            var path = PhonePath.parse(item);
            boolean there = path.isPresent() && phone.files().has(path.get());
            pictures.add(new Attachment(there ? item : "", item.substring(item.lastIndexOf('/') + 1), ""));
        }
        var role = text(entry, "role");
        var title = text(entry, "name");
        var use = switch (role) {
            case "favourites" -> Use.FAVOURITES;
            case "hidden" -> Use.HIDDEN;
            case "bin" -> Use.BIN;
            case "burst" -> Use.BURST;
            case "clip" -> Use.CLIP;
            default -> Use.ALBUM;
        };
        // By what lasts when an entry before it goes.
        var key = role + "-"
                + (title.isEmpty() && !pictures.isEmpty() ? pictures.getFirst().name() : title);
        sink.thing(new Album(new ThingId(LIST.text(), key), "", title, use, pictures));
    }
}
