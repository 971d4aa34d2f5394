package app.custodex.readers.files;

import app.custodex.readers.Reader;
import java.util.ArrayList;
import java.util.List;

/** What lies in a folder, an archive or on a server, in no order that is known. */
public final class OpenFiles {
    private OpenFiles() {}

    /** The readers of everything that is known by its own form. */
    public static List<Reader> readers() {
        var readers = new ArrayList<Reader>(List.of(
                new VcardFiles(""),
                new ContactTables(),
                new MessageTables(),
                new MailFiles(),
                new IcalendarFiles(""),
                new MarkdownNotes(""),
                new BookmarkFiles(),
                new PlaylistFiles(),
                new RouteFiles(),
                new ThingLineFiles(),
                new ZipFiles()));
        readers.addAll(MediaFiles.readers(MediaFiles.Places.ANYWHERE));
        return readers;
    }
}
