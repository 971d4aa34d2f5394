package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.facts.FileFacts;
import app.custodex.facts.FileFacts.Sort;
import app.custodex.facts.Workers;
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
        var own = own(path, phone, sink);
        boolean ringtone = !ringtones.isEmpty() && path.in(new PhonePath(ringtones));
        sink.thing(new MediaFile(
                new ThingId(path.text(), ""),
                ringtone ? ThingKind.RINGTONE : kind,
                "",
                own.title().isEmpty() ? path.name() : own.title(),
                own.taken().or(() -> Optional.of(Moment.at(facts.modified()))),
                facts.bytes(),
                own.place(),
                own.length(),
                own.facts(),
                own.text()));
    }

    /** What the file says of itself; that it says nothing is no fault of the file. */
    private FileFacts own(PhonePath path, PhoneFiles phone, Sink sink) {
        var sort = sort();
        if (sort.isEmpty()) {
            return FileFacts.NONE;
        }
        try (var in = phone.open(path)) {
            return Workers.shared().facts(sort.get(), path.text(), path.name(), in);
        } catch (ProblemException e) {
            sink.problem(e.problem());
        } catch (IOException e) {
            sink.problem(Problem.loss(path.text(), "It can't be read", "Check the layer; look into an older one"));
        }
        return FileFacts.NONE;
    }

    private Optional<Sort> sort() {
        return switch (kind) {
            case PICTURE, VIDEO -> Optional.of(Sort.IMAGE);
            case TRACK, MEMO, RINGTONE -> Optional.of(Sort.SOUND);
            case DOCUMENT -> Optional.of(Sort.DOCUMENT);
            default -> Optional.empty();
        };
    }
}
