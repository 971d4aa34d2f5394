package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.facts.FileFacts;
import app.custodex.facts.FileFacts.Sort;
import app.custodex.facts.Workers;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.PhonePath;
import app.custodex.model.MediaFile;
import app.custodex.model.Moment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/** Reads files whose content is the thing: pictures, videos, sounds, documents. */
public final class MediaFiles extends FileReader {

    /** What lies among media and is none: the phone's own lists of them. */
    private static final Set<String> LISTS = Set.of(".db", ".db-wal", ".db-journal", ".json", ".m3u", ".m3u8");

    /** Whose stores hold files that were sent and came. */
    private static final Set<Kind> CONVERSATIONS = EnumSet.of(Kind.CONVERSATIONS, Kind.KITEWIRE, Kind.BURROW);

    private final ThingKind kind;
    private final Places places;
    private final Predicate<PhonePath> takes;

    /**
     * Which folders hold what.
     *
     * @param special kinds by the folders whose files are of them, whatever else they would be
     * @param known folders whose files other readers read
     */
    public record Places(Map<PhonePath, ThingKind> special, Set<PhonePath> known) {
        public static final Places ANYWHERE = new Places(Map.of(), Set.of());

        public Places {
            special = Map.copyOf(special);
            known = Set.copyOf(known);
        }

        private ThingKind of(PhonePath path, ThingKind otherwise) {
            return special.entrySet().stream()
                    .filter(folder -> path.in(folder.getKey()))
                    .map(Map.Entry::getValue)
                    .findFirst()
                    .orElse(otherwise);
        }
    }

    private MediaFiles(Kind from, ThingKind kind, Places places) {
        super("media-" + kind.code(), Set.of(from), Set.of(), kinds(kind, places));
        this.kind = kind;
        this.places = places;
        this.takes = kind == ThingKind.FILE || kind == ThingKind.DOCUMENT
                ? path -> places.known().stream().noneMatch(path::in)
                : path -> !LISTS.contains(path.ending());
    }

    private MediaFiles(ThingKind kind, Set<Kind> named) {
        super("sent-" + kind.code(), CONVERSATIONS, Set.of(), Set.of(kind));
        this.kind = kind;
        this.places = Places.ANYWHERE;
        this.takes = path -> named.contains(Layout.kindOf(Family.FOLDER, path));
    }

    private static Set<ThingKind> kinds(ThingKind kind, Places places) {
        var kinds = EnumSet.of(kind);
        kinds.addAll(places.special().values());
        return kinds;
    }

    /** A reader for each kind of file. */
    public static List<MediaFiles> readers(Places places) {
        return List.of(
                new MediaFiles(Kind.PHOTOS, ThingKind.PICTURE, Places.ANYWHERE),
                new MediaFiles(Kind.VIDEOS, ThingKind.VIDEO, places),
                new MediaFiles(Kind.MUSIC, ThingKind.TRACK, places),
                new MediaFiles(Kind.MEMOS, ThingKind.MEMO, Places.ANYWHERE),
                new MediaFiles(Kind.BOOKS, ThingKind.DOCUMENT, Places.ANYWHERE),
                new MediaFiles(Kind.OTHER, ThingKind.FILE, places));
    }

    /**
     * Readers of what was sent and came in conversations: those files lie among the stores of their apps, and their names
     * alone say what they are.
     */
    public static List<MediaFiles> sent() {
        return List.of(
                new MediaFiles(ThingKind.PICTURE, Set.of(Kind.PHOTOS)),
                new MediaFiles(ThingKind.VIDEO, Set.of(Kind.VIDEOS)),
                new MediaFiles(ThingKind.MEMO, Set.of(Kind.MUSIC, Kind.MEMOS)),
                new MediaFiles(ThingKind.DOCUMENT, Set.of(Kind.BOOKS)));
    }

    @Override
    protected boolean takes(PhonePath path) {
        return takes.test(path);
    }

    @Override
    public void prepare() {
        if (sort().isPresent()) {
            Workers.shared().prepare();
        }
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        var facts = phone.files().facts(path);
        var own = own(path, phone, sink);
        sink.thing(new MediaFile(
                new ThingId(path.text(), ""),
                places.of(path, kind),
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
            case TRACK, MEMO -> Optional.of(Sort.SOUND);
            case DOCUMENT -> Optional.of(Sort.DOCUMENT);
            default -> Optional.empty();
        };
    }
}
