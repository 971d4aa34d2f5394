package app.custodex.extract.formats;

import app.custodex.extract.Format;
import app.custodex.extract.calendars.BookmarkPage;
import app.custodex.extract.calendars.IcalendarFormat;
import app.custodex.extract.calendars.NoteFiles;
import app.custodex.extract.calendars.NotePdf;
import app.custodex.extract.contacts.ContactPage;
import app.custodex.extract.contacts.JcardFormat;
import app.custodex.extract.contacts.LdifFormat;
import app.custodex.extract.contacts.VcardFormat;
import app.custodex.extract.originals.AppFolders;
import app.custodex.extract.originals.ContactSheet;
import app.custodex.extract.originals.FileArchive;
import app.custodex.extract.originals.Originals;
import app.custodex.extract.originals.PlacesFormat;
import app.custodex.extract.tables.CsvFormat;
import app.custodex.extract.tables.JsonLines;
import app.custodex.extract.tables.ListPage;
import app.custodex.extract.tables.ListPdf;
import app.custodex.extract.tables.XlsxFormat;
import app.custodex.extract.talk.MboxFormat;
import app.custodex.extract.talk.TranscriptPage;
import app.custodex.extract.talk.TranscriptPdf;
import app.custodex.extract.talk.TranscriptText;
import app.custodex.model.KindGroup;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** All formats. Whoever adds one adds it here, and nowhere else. */
public final class Formats {
    private static final List<Format> ALL = all();

    private Formats() {}

    /** For each group the usual one comes first. */
    private static List<Format> all() {
        var all = new ArrayList<>(VcardFormat.all());
        all.addAll(Originals.all().stream()
                .filter(format -> !format.groups().contains(KindGroup.MESSAGES))
                .toList());
        all.addAll(List.of(
                new ContactPage(),
                new TranscriptPage(),
                new TranscriptPdf(),
                new IcalendarFormat(),
                new AppFolders(),
                new BookmarkPage()));
        all.addAll(NoteFiles.all());
        all.addAll(List.of(new TranscriptText(), new XlsxFormat(), new CsvFormat(), new ListPage(), new ListPdf()));
        all.addAll(List.of(new NotePdf(), new ContactSheet()));
        all.addAll(List.of(new JcardFormat(), new LdifFormat(), new MboxFormat(), new JsonLines()));
        all.addAll(PlacesFormat.all());
        all.addAll(FileArchive.all());
        all.addAll(Originals.all().stream()
                .filter(format -> format.groups().contains(KindGroup.MESSAGES))
                .toList());
        return List.copyOf(all);
    }

    /** Those in which a group can be written, the usual one first. */
    public static List<Format> of(KindGroup group) {
        return ALL.stream().filter(format -> format.groups().contains(group)).toList();
    }

    /** One of them by its code. */
    public static Optional<Format> of(KindGroup group, String code) {
        return of(group).stream().filter(format -> format.code().equals(code)).findFirst();
    }
}
