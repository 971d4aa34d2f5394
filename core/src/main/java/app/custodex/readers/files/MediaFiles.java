package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.MediaFile;
import app.custodex.model.Moment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reads files whose content is the thing: pictures, videos, sounds, documents. */
public final class MediaFiles extends FileReader {

    private final ThingKind kind;
    private final String ringtones;

    private MediaFiles(Kind from, ThingKind kind, String ringtones) {
        super("media-" + kind.code(), Set.of(from), Set.of(), Set.of(kind));
        this.kind = kind;
        this.ringtones = ringtones;
    }

    /**
     * A reader for each kind of file.
     *
     * @param ringtones the folder in which sounds are ringtones; empty when there is none
     */
    public static List<MediaFiles> readers(String ringtones) {
        return List.of(
                new MediaFiles(Kind.PHOTOS, ThingKind.PICTURE, ""),
                new MediaFiles(Kind.VIDEOS, ThingKind.VIDEO, ""),
                new MediaFiles(Kind.MUSIC, ThingKind.TRACK, ringtones),
                new MediaFiles(Kind.MEMOS, ThingKind.MEMO, ""),
                new MediaFiles(Kind.BOOKS, ThingKind.DOCUMENT, ""),
                new MediaFiles(Kind.OTHER, ThingKind.FILE, ""));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        var facts = phone.files().facts(path);
        var own = MediaFacts.NONE;
        if (kind == ThingKind.PICTURE || kind == ThingKind.VIDEO) {
            try (var in = phone.open(path)) {
                own = MediaFacts.read(in);
            } catch (IOException e) {
                sink.problem(Problem.loss(
                        path.text(),
                        "What it says of itself can't be read; it may be damaged",
                        "Open it, and compare it with an older layer"));
            }
        }
        boolean ringtone = !ringtones.isEmpty() && path.in(new PhonePath(ringtones));
        sink.thing(new MediaFile(
                new ThingId(path.text(), ""),
                ringtone ? ThingKind.RINGTONE : kind,
                "",
                path.name(),
                own.taken().or(() -> Optional.of(Moment.at(facts.modified()))),
                facts.bytes(),
                own.place(),
                own.length(),
                own.facts()));
    }
}
