package app.custodex.link;

import app.custodex.base.PlaceFailure;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Files among which the ZIP archives count as folders, so that what lies in them is read like anything else. An archive in an
 * archive stays closed. Each is copied into a private place when something in it is first asked for, since its list stands at its end.
 */
public final class ZipsInside implements FileSource {
    /** Of all archives together; beyond that they are files like any other, since copies of them would fill a disk. */
    private static final long MOST_BYTES = 2L << 30;

    private static final String ADVICE = "Add it as a source of its own";

    /** Enough to tell what a file is. */
    private static final int HEAD = 1 << 10;

    private final FileSource source;
    private final PrivatePlace place;
    private final List<ArchiveLink> open = new ArrayList<>();
    private final TreeMap<PhonePath, Problem> problems = new TreeMap<>();
    private long copied;
    private Optional<TreeMap<PhonePath, Inside>> inside = Optional.empty();

    /** @param place where archives may be put while they are open */
    public ZipsInside(FileSource source, PrivatePlace place) {
        this.source = source;
        this.place = place;
    }

    /** A file in an archive. */
    private record Inside(ArchiveLink archive, Listed.File file, Kind kind, String version) {}

    @Override
    public synchronized Optional<Problem> problem(PhonePath archive) throws IOException {
        inside();
        return Optional.ofNullable(problems.get(archive));
    }

    private synchronized TreeMap<PhonePath, Inside> inside() throws IOException {
        if (inside.isEmpty()) {
            var all = new TreeMap<PhonePath, Inside>();
            for (var path : source.of(Kind.OTHER)) {
                if (path.ending().equals(".zip")) {
                    try {
                        lookInto(path, all);
                    } catch (PlaceFailure e) {
                        throw e;
                    } catch (ProblemException e) {
                        problems.put(path, e.problem());
                    } catch (IOException e) {
                        problems.put(
                                path,
                                Problem.failure(
                                        path.text(),
                                        "This archive can't be looked into: it is damaged, or locked with a password",
                                        "Take it out as a file, and unpack it with the program that made it"));
                    }
                }
            }
            inside = Optional.of(all);
        }
        return inside.get();
    }

    private void lookInto(PhonePath path, TreeMap<PhonePath, Inside> all) throws IOException {
        var facts = source.facts(path);
        if (copied + facts.bytes() > MOST_BYTES) {
            throw new ProblemException(Problem.note(
                    path.text(),
                    "Archives together larger than 2 GB are not looked into; this one is too much",
                    ADVICE));
        }
        var own = place.folder();
        var file = own.resolve("inside.zip");
        if (Files.getFileStore(own).getUsableSpace() < 2 * facts.bytes()) {
            place.remove(own);
            throw new ProblemException(Problem.loss(
                    path.text(), "There is not enough room to look into this archive", "Make room, and open it again"));
        }
        try (var in = source.open(path)) {
            copied += place.copy(in, file);
        }
        var archive = new ArchiveLink(path.text(), path.name(), file);
        open.add(archive);
        var folders = new ArrayDeque<>(List.of(PhonePath.ROOT));
        var found = new TreeMap<PhonePath, Inside>();
        while (!folders.isEmpty()) {
            for (var listed : archive.list(folders.poll())) {
                switch (listed) {
                    case Listed.Folder folder -> folders.add(folder.path());
                    case Listed.File inner -> {
                        var at =
                                PhonePath.parse(path.text() + "/" + inner.path().text());
                        if (at.isPresent()) {
                            found.put(
                                    at.get(), new Inside(archive, inner, kind(archive, inner.path()), facts.version()));
                        }
                    }
                    default -> {
                        // Links lead elsewhere; what can't be a file is none.
                    }
                }
            }
        }
        all.putAll(found);
    }

    private static Kind kind(ArchiveLink archive, PhonePath path) throws IOException {
        try (var content = archive.open(path, 0)) {
            return archive.kindOf(path, Kind.OTHER, content.stream().readNBytes(HEAD));
        }
    }

    @Override
    public boolean has(PhonePath path) throws IOException {
        return source.has(path) || inside().containsKey(path);
    }

    @Override
    public List<PhonePath> in(PhonePath folder) throws IOException {
        return with(
                source.in(folder),
                inside().keySet().stream().filter(path -> path.in(folder)).toList());
    }

    @Override
    public List<PhonePath> of(Kind kind) throws IOException {
        return with(
                source.of(kind),
                inside().entrySet().stream()
                        .filter(entry -> entry.getValue().kind() == kind)
                        .map(java.util.Map.Entry::getKey)
                        .toList());
    }

    private static List<PhonePath> with(List<PhonePath> own, List<PhonePath> inner) {
        if (inner.isEmpty()) {
            return own;
        }
        var all = new ArrayList<>(own);
        all.addAll(inner);
        all.sort(null);
        return all;
    }

    @Override
    public Facts facts(PhonePath path) throws IOException {
        var inner = inside().get(path);
        return inner == null || source.has(path)
                ? source.facts(path)
                : new Facts(inner.file().size(), inner.file().modified(), inner.version() + " " + path.name());
    }

    @Override
    public InputStream open(PhonePath path) throws IOException {
        var inner = inside().get(path);
        return inner == null || source.has(path)
                ? source.open(path)
                : inner.archive().open(inner.file().path(), 0).stream();
    }

    @Override
    public synchronized void close() throws IOException {
        open.forEach(ArchiveLink::close);
        source.close();
    }
}
