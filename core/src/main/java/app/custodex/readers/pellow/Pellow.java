package app.custodex.readers.pellow;

import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.PhonePath;
import app.custodex.media.SoundCoding;
import app.custodex.model.ThingKind;
import app.custodex.readers.Reader;
import app.custodex.readers.chat.BurrowChats;
import app.custodex.readers.chat.KitewireChats;
import app.custodex.readers.files.BookmarkFiles;
import app.custodex.readers.files.IcalendarFiles;
import app.custodex.readers.files.MailFiles;
import app.custodex.readers.files.MarkdownNotes;
import app.custodex.readers.files.MediaFiles;
import app.custodex.readers.files.PlaylistFiles;
import app.custodex.readers.files.RouteFiles;
import app.custodex.readers.files.VcardFiles;
import app.custodex.seal.Passphrase;
import app.custodex.tones.ToneRules;
import app.custodex.tones.ToneUse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** What this family keeps. */
public final class Pellow {
    private static final MediaFiles.Places PLACES = new MediaFiles.Places(
            Map.of(
                    new PhonePath("Music/Ringtones"), ThingKind.RINGTONE,
                    new PhonePath("Music/Podcasts"), ThingKind.PODCAST,
                    new PhonePath("Films"), ThingKind.FILM),
            Set.of(PellowAlarms.FOLDER, PellowApps.FOLDER));

    public static final ToneRules TONES = new ToneRules(
            SoundCoding.MP3,
            192,
            ".mp3",
            Map.of(
                    ToneUse.RING, Duration.ofSeconds(120),
                    ToneUse.MESSAGE, Duration.ofSeconds(10),
                    ToneUse.ALARM, Duration.ofSeconds(120)));

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
                new BookmarkFiles(),
                new PellowAlbums(),
                new PellowCloud(),
                new PellowAlarms(),
                new PellowApps()));
        readers.addAll(KitewireChats.editions(Layout.chatCopies(Family.PELLOW, Kind.KITEWIRE), "Kitewire Work"));
        readers.add(new BurrowChats(Layout.chatCopies(Family.PELLOW, Kind.BURROW), burrowKey));
        readers.addAll(List.of(new PlaylistFiles(), new RouteFiles(), new MailFiles()));
        readers.addAll(MediaFiles.readers(PLACES));
        readers.addAll(MediaFiles.sent());
        return readers;
    }
}
