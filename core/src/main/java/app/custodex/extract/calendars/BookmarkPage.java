package app.custodex.extract.calendars;

import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.model.Bookmark;
import app.custodex.model.KindGroup;
import app.custodex.model.PageVisit;
import app.custodex.model.Thing;
import java.io.IOException;
import java.io.Writer;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/** Bookmarks in folders, as every browser reads them; common practice, no standard. */
public final class BookmarkPage implements Format {
    private static final String LATER = "To read later";

    @Override
    public String code() {
        return "bookmarks";
    }

    @Override
    public String label() {
        return "Bookmark file that browsers read (HTML)";
    }

    @Override
    public String leavesOut() {
        return "Leaves out the pages that were only visited";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.WEB);
    }

    /** A folder with what is in it. */
    private static final class Folder {
        private final Map<String, Folder> folders = new TreeMap<>();
        private final List<Bookmark> marks = new ArrayList<>();

        Folder at(String path) {
            var folder = this;
            for (var name : path.split("/")) {
                folder = name.isBlank() ? folder : folder.folders.computeIfAbsent(name, n -> new Folder());
            }
            return folder;
        }
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var root = new Folder();
        for (var mark : batch.each(thing -> bookmark(thing, batch))) {
            mark.ifPresent(
                    kept -> root.at(kept.later() ? LATER : kept.folder()).marks.add(kept));
        }
        out.text(batch.title(), ".html", text -> {
            text.write("<!DOCTYPE NETSCAPE-Bookmark-file-1>\n"
                    + "<META HTTP-EQUIV=\"Content-Type\" CONTENT=\"text/html; charset=UTF-8\">\n");
            text.write("<TITLE>" + escaped(batch.title()) + "</TITLE>\n<H1>" + escaped(batch.title()) + "</H1>\n");
            write(root, "", text);
        });
    }

    private static Optional<Bookmark> bookmark(Thing thing, Batch batch) {
        if (thing instanceof PageVisit) {
            batch.leftOut("pages that were only visited");
            return Optional.empty();
        }
        return Optional.of((Bookmark) thing);
    }

    private static void write(Folder folder, String indent, Writer text) throws IOException {
        text.write(indent + "<DL><p>\n");
        for (var inside : folder.folders.entrySet()) {
            text.write(indent + "    <DT><H3>" + escaped(inside.getKey()) + "</H3>\n");
            write(inside.getValue(), indent + "    ", text);
        }
        for (var mark : folder.marks) {
            var added = mark.moment()
                    .map(at -> " ADD_DATE=\"" + at.instant(ZoneOffset.UTC).getEpochSecond() + "\"")
                    .orElse("");
            text.write(indent + "    <DT><A HREF=\"" + escaped(mark.address()) + "\"" + added + ">"
                    + escaped(mark.title().isBlank() ? mark.address() : mark.title()) + "</A>\n");
        }
        text.write(indent + "</DL><p>\n");
    }

    private static String escaped(String text) {
        return Clean.line(text)
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
