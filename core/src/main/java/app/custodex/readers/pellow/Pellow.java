package app.custodex.readers.pellow;

import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.readers.Reader;
import app.custodex.readers.chat.KitewireChats;
import app.custodex.readers.files.BookmarkFiles;
import app.custodex.readers.files.IcalendarFiles;
import app.custodex.readers.files.MarkdownNotes;
import app.custodex.readers.files.MediaFiles;
import app.custodex.readers.files.VcardFiles;
import java.util.ArrayList;
import java.util.List;

/** What this family keeps. */
public final class Pellow {
    private Pellow() {}

    /** The readers of its stores. */
    public static List<Reader> readers() {
        var readers = new ArrayList<Reader>(List.of(
                new VcardFiles("Shared/People"),
                new PellowTalk(),
                new PellowVoicemail(),
                new IcalendarFiles("Shared/Calendars"),
                new MarkdownNotes("Shared/Notes"),
                new BookmarkFiles()));
        readers.add(new KitewireChats(Layout.chatCopies(Family.PELLOW, Kind.KITEWIRE)));
        readers.addAll(MediaFiles.readers("Music/Ringtones"));
        return readers;
    }
}
