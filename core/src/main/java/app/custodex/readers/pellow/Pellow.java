package app.custodex.readers.pellow;

import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.readers.Reader;
import app.custodex.readers.chat.BurrowChats;
import app.custodex.readers.chat.KitewireChats;
import app.custodex.readers.files.BookmarkFiles;
import app.custodex.readers.files.IcalendarFiles;
import app.custodex.readers.files.MarkdownNotes;
import app.custodex.readers.files.MediaFiles;
import app.custodex.readers.files.VcardFiles;
import app.custodex.seal.Passphrase;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What this family keeps. */
public final class Pellow {
    private Pellow() {}

    /**
     * The readers of its stores.
     *
     * @param burrowKey the customer's, if it was given
     */
    public static List<Reader> readers(Optional<Passphrase> burrowKey) {
        var readers = new ArrayList<Reader>(List.of(
                new VcardFiles("Shared/People"),
                new PellowTalk(),
                new PellowVoicemail(),
                new IcalendarFiles("Shared/Calendars"),
                new MarkdownNotes("Shared/Notes"),
                new BookmarkFiles()));
        readers.add(new KitewireChats(Layout.chatCopies(Family.PELLOW, Kind.KITEWIRE)));
        readers.add(new BurrowChats(Layout.chatCopies(Family.PELLOW, Kind.BURROW), burrowKey));
        readers.addAll(MediaFiles.readers("Music/Ringtones"));
        return readers;
    }
}
