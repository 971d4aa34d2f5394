package app.custodex.docket;

import app.custodex.base.Disk;
import app.custodex.base.FileLease;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/**
 * All dockets of the shop, one JSON file each. Several programs may use them at once: whoever asks sees what is on the disk at that
 * moment, and a change is made to that, under a lock.
 */
public final class DocketBook {
    private final Path folder;
    private final Disk disk;
    private final Clock clock;
    private final Map<Path, Kept> files = new HashMap<>();
    private TreeMap<Integer, Docket> dockets = new TreeMap<>();

    /** A file as it was read last; it is replaced as a whole, so its key changes when its time does not. */
    private record Kept(Stamp stamp, Optional<Docket> docket) {}

    private record Stamp(FileTime modified, long size, Optional<Object> key) {}

    private DocketBook(Path folder, Disk disk, Clock clock) {
        this.folder = folder;
        this.disk = disk;
        this.clock = clock;
    }

    /** @throws IOException when the folder can't be read; a single torn file becomes a problem */
    public static DocketBook open(Path folder, Disk disk, Clock clock) throws IOException {
        var book = new DocketBook(folder, disk, clock);
        book.look();
        return book;
    }

    /** Reads what has changed on the disk. */
    private synchronized void look() throws IOException {
        if (!Files.isDirectory(folder)) {
            files.clear();
            dockets = new TreeMap<>();
            return;
        }
        var there = new HashSet<Path>();
        boolean changed = false;
        try (var members = Files.newDirectoryStream(folder, "*.json")) {
            for (var file : members) {
                there.add(file);
                changed |= look(file);
            }
        }
        changed |= files.keySet().retainAll(there);
        if (changed) {
            var found = new TreeMap<Integer, Docket>();
            files.values().forEach(kept -> kept.docket().ifPresent(docket -> found.put(docket.number(), docket)));
            dockets = found;
        }
    }

    private boolean look(Path file) throws IOException {
        var attributes = Files.readAttributes(file, BasicFileAttributes.class);
        var stamp =
                new Stamp(attributes.lastModifiedTime(), attributes.size(), Optional.ofNullable(attributes.fileKey()));
        var kept = files.get(file);
        if (kept != null && kept.stamp().equals(stamp)) {
            return false;
        }
        Optional<Docket> docket;
        try {
            docket = Optional.ofNullable(Json.PAGE.readValue(file.toFile(), Docket.class));
        } catch (IOException | RuntimeException torn) {
            docket = Optional.empty();
        }
        files.put(file, new Kept(stamp, docket));
        return true;
    }

    /** A torn docket keeps its number: its file may still be mended. */
    private static int numberOf(Path file) {
        var digits = String.valueOf(file.getFileName()).replaceAll("[^0-9]", "");
        return digits.isEmpty() || digits.length() > 9 ? 0 : Integer.parseInt(digits);
    }

    /** Dockets whose files can't be read. */
    public synchronized List<Problem> problems() throws IOException {
        look();
        return files.entrySet().stream()
                .filter(file -> file.getValue().docket().isEmpty())
                .map(file -> Problem.failure(
                        String.valueOf(file.getKey().getFileName()),
                        "This docket's file can't be read",
                        "Its layers are untouched; write the docket anew"))
                .toList();
    }

    /** The newest first. */
    public synchronized List<Docket> all() throws IOException {
        look();
        return List.copyOf(dockets.descendingMap().values());
    }

    public synchronized Optional<Docket> find(int number) throws IOException {
        look();
        return Optional.ofNullable(dockets.get(number));
    }

    /** The newest docket of the phone at an address. */
    public Optional<Docket> at(URI address) throws IOException {
        return newest(docket -> docket.address().equals(address));
    }

    /** The newest docket of a phone. */
    public Optional<Docket> of(String phoneIdentifier) throws IOException {
        return newest(docket -> docket.phone()
                .filter(phone -> phone.identifier().equals(phoneIdentifier))
                .isPresent());
    }

    private synchronized Optional<Docket> newest(Predicate<Docket> wanted) throws IOException {
        look();
        return dockets.values().stream().filter(wanted).max(Comparator.comparingInt(Docket::number));
    }

    public synchronized Docket open(Docket.Form form, URI address) throws IOException {
        disk.createFolders(folder);
        try (var lease = lock()) {
            look();
            int highest =
                    files.keySet().stream().mapToInt(DocketBook::numberOf).max().orElse(0);
            return save(new Docket(
                    highest + 1,
                    clock.instant(),
                    form.customer(),
                    form.reach(),
                    form.reason(),
                    form.consent(),
                    form.promised(),
                    address,
                    Optional.empty(),
                    Map.of(),
                    List.of(),
                    Optional.empty(),
                    form.own(),
                    form.country()));
        }
    }

    /** Changes a docket as it is on the disk and keeps it; gives what it is now. */
    public synchronized Docket change(int number, UnaryOperator<Docket> change) throws IOException {
        disk.createFolders(folder);
        try (var lease = lock()) {
            var before = find(number).orElseThrow(() -> new IllegalArgumentException("no docket " + number));
            var after = change.apply(before);
            return after.equals(before) ? before : save(after);
        }
    }

    private FileLease lock() throws IOException {
        return FileLease.awaitAlone(folder.resolve("dockets.lock"));
    }

    private Docket save(Docket docket) throws IOException {
        disk.replace(
                folder.resolve(docket.label() + ".json"),
                Json.PAGE.writeValueAsBytes(docket),
                folder.resolve(docket.label() + ".part"));
        look();
        return docket;
    }
}
