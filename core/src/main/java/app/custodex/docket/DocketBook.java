package app.custodex.docket;

import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/** All dockets of the shop, one JSON file each, kept as they change. */
public final class DocketBook {
    private final Path folder;
    private final Disk disk;
    private final Clock clock;
    private final TreeMap<Integer, Docket> dockets = new TreeMap<>();
    private final List<Problem> problems = new ArrayList<>();
    private int highest;

    private DocketBook(Path folder, Disk disk, Clock clock) {
        this.folder = folder;
        this.disk = disk;
        this.clock = clock;
    }

    /** @throws IOException when the folder can't be made or read; a single torn file becomes a problem */
    public static DocketBook open(Path folder, Disk disk, Clock clock) throws IOException {
        disk.createFolders(folder);
        var book = new DocketBook(folder, disk, clock);
        try (var files = Files.newDirectoryStream(folder, "*.json")) {
            for (var file : files) {
                book.highest = Math.max(book.highest, numberOf(file));
                try {
                    var docket = Json.PAGE.readValue(file.toFile(), Docket.class);
                    book.dockets.put(docket.number(), docket);
                } catch (IOException e) {
                    book.problems.add(Problem.failure(
                            file.getFileName().toString(),
                            "This docket's file can't be read",
                            "Its layers are untouched; write the docket anew"));
                }
            }
        }
        return book;
    }

    /** A torn docket keeps its number: its file may still be mended. */
    private static int numberOf(Path file) {
        var digits = file.getFileName().toString().replaceAll("\\D", "");
        return digits.isEmpty() || digits.length() > 9 ? 0 : Integer.parseInt(digits);
    }

    public List<Problem> problems() {
        return List.copyOf(problems);
    }

    /** The newest first. */
    public synchronized List<Docket> all() {
        return List.copyOf(dockets.descendingMap().values());
    }

    public synchronized Optional<Docket> find(int number) {
        return Optional.ofNullable(dockets.get(number));
    }

    /** The newest docket of the phone at an address. */
    public synchronized Optional<Docket> at(URI address) {
        return dockets.values().stream()
                .filter(docket -> docket.address().equals(address))
                .max(Comparator.comparingInt(Docket::number));
    }

    public synchronized Docket open(Docket.Form form, URI address) throws IOException {
        int number = highest + 1;
        return save(new Docket(
                number,
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
                Optional.empty()));
    }

    /** Changes a docket and keeps it; gives what it is now. */
    public synchronized Docket change(int number, UnaryOperator<Docket> change) throws IOException {
        var before = find(number).orElseThrow(() -> new IllegalArgumentException("no docket " + number));
        var after = change.apply(before);
        return after.equals(before) ? before : save(after);
    }

    private Docket save(Docket docket) throws IOException {
        var file = folder.resolve(docket.label() + ".json");
        var part = folder.resolve(docket.label() + ".part");
        disk.delete(part);
        disk.write(part, Json.PAGE.writeValueAsBytes(docket));
        disk.move(part, file);
        disk.syncFolder(folder);
        dockets.put(docket.number(), docket);
        highest = Math.max(highest, docket.number());
        return docket;
    }
}
