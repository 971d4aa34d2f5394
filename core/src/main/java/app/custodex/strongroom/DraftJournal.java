package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.JsonLog;
import app.custodex.link.Listed;
import app.custodex.link.PhonePath;
import app.custodex.seal.AgeWriter;
import app.custodex.seal.StackKey;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What an unfinished layer has stored so far, so that a later attempt goes on behind it. Of a sealed stack each line is an age file
 * in base64.
 */
final class DraftJournal {
    /** So much may have to be looked through again after a cut of the power; syncing more often costs more than that. */
    private static final long UNSYNCED = 32L << 20;

    /** How far a stored file is. */
    enum State {
        /** It grows; what is named so far lies there, unless the power was cut. */
        GROWING,
        /** It is complete, unless the power was cut. */
        CLOSED,
        /** It is complete and on the medium. */
        SAFE
    }

    /** An item that is stored in a file of its own, as the phone listed it. */
    record Alone(PhonePath path, long size, Instant modified, String etag) {
        static Alone of(Listed.File file) {
            return new Alone(file.path(), file.size(), file.modified(), file.etag());
        }
    }

    /**
     * One line.
     *
     * @param content logical path of the stored file
     * @param size bytes of it so far
     * @param digest of those, as they lie on the disk; empty while a pack grows
     * @param items that were stored in it since its last line
     * @param alone what it is, while it is a growing item of its own
     * @param begun how to go on with its age file, in a sealed stack; size and digest are those of the content then
     */
    record Entry(
            String content,
            State state,
            long size,
            String digest,
            List<ManifestItem> items,
            Optional<Alone> alone,
            Optional<AgeWriter.Begun> begun) {
        /** Of what can't be gone on with by its journal alone. */
        static Entry of(String content, State state, long size, String digest, List<ManifestItem> items) {
            return new Entry(content, state, size, digest, items, Optional.empty(), Optional.empty());
        }
    }

    /** A line as it lies on the disk. */
    record Line(Optional<Entry> entry, Optional<String> sealed) {}

    private final JsonLog<Line> log;
    private final Optional<StackKey> key;
    private long unsynced;

    DraftJournal(Path file, Disk disk, Optional<StackKey> key) {
        this.log = new JsonLog<>(file, disk, Line.class);
        this.key = key;
    }

    synchronized void add(Entry entry) throws IOException {
        unsynced += entry.state() == State.SAFE ? entry.size() : 0;
        boolean durable = unsynced >= UNSYNCED;
        unsynced = durable ? 0 : unsynced;
        log.append(written(entry), durable);
    }

    private Line written(Entry entry) throws IOException {
        return key.isEmpty()
                ? new Line(Optional.of(entry), Optional.empty())
                : new Line(
                        Optional.empty(),
                        Optional.of(Base64.getEncoder()
                                .encodeToString(key.get().encrypt(Json.LINE.writeValueAsBytes(entry)))));
    }

    /** What is known of each stored file, in the order in which they were begun: its last line, with the items of all of them. */
    Map<String, Entry> files() throws IOException {
        var files = new LinkedHashMap<String, Entry>();
        for (var line : log.read().entries()) {
            read(line).ifPresent(entry -> files.merge(entry.content(), entry, DraftJournal::joined));
        }
        return files;
    }

    private Optional<Entry> read(Line line) {
        if (line.entry().isPresent()) {
            return line.entry();
        }
        try {
            return line.sealed().isPresent() && key.isPresent()
                    ? Optional.of(Json.LINE.readValue(
                            new String(
                                    key.get()
                                            .decrypt(Base64.getDecoder()
                                                    .decode(line.sealed().get())),
                                    StandardCharsets.UTF_8),
                            Entry.class))
                    : Optional.empty();
        } catch (IOException | IllegalArgumentException damaged) {
            return Optional.empty();
        }
    }

    private static Entry joined(Entry before, Entry after) {
        var items = new ArrayList<>(before.items());
        if (after.size() < before.size()) { // it was cut there, and gone on with
            items.removeIf(item -> item.place()
                    .filter(place -> place.offset() + item.size() > after.size())
                    .isPresent());
        }
        items.addAll(after.items());
        return new Entry(
                after.content(),
                after.state(),
                after.size(),
                after.digest().isEmpty() ? before.digest() : after.digest(),
                items,
                after.alone(),
                after.begun());
    }
}
