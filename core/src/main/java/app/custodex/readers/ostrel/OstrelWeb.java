package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Bookmark;
import app.custodex.model.PageVisit;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Reads bookmarks, pages kept for later, and the pages that were looked at. */
final class OstrelWeb extends StoreReader {
    private static final String STORE = "store/web/web.db";

    /** Deeper than any person files; a ring of folders ends here too. */
    private static final int DEEPEST = 32;

    OstrelWeb() {
        super("web", new PhonePath(STORE), Set.of(ThingKind.BOOKMARK, ThingKind.VISIT));
    }

    private record Folder(long parent, String title) {}

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var folders = new HashMap<Long, Folder>();
        losses.tell(
                "folders",
                database.each(
                        "folder",
                        List.of("id", "parent", "title"),
                        row -> folders.put(row.number("id"), new Folder(row.number("parent"), row.text("title")))));
        losses.require(
                "bookmarks",
                database.each(
                        "bookmark",
                        List.of("id", "folder", "title", "address", "later", "added"),
                        row -> sink.thing(new Bookmark(
                                new ThingId(STORE, Long.toString(row.number("id"))),
                                "",
                                row.text("title"),
                                row.text("address"),
                                path(folders, row.number("folder")),
                                row.flag("later"),
                                Ostrel.moment(row, "added")))));
        losses.tell(
                "page visits",
                database.each(
                        "visit",
                        List.of("id", "title", "address", "at"),
                        row -> sink.thing(new PageVisit(
                                new ThingId(STORE, "visit-" + row.number("id")),
                                "",
                                row.text("title"),
                                row.text("address"),
                                Ostrel.moment(row, "at")))));
    }

    private static String path(Map<Long, Folder> folders, long id) {
        var path = "";
        var folder = folders.get(id);
        for (int depth = 0; folder != null && depth < DEEPEST; depth++) {
            path = path.isEmpty() ? folder.title() : folder.title() + "/" + path;
            folder = folders.get(folder.parent());
        }
        return path;
    }
}
