package app.custodex.app;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.docket.HandOut;
import app.custodex.extract.Delivery;
import app.custodex.extract.DiskFolder;
import app.custodex.extract.ExtractResult;
import app.custodex.extract.Extraction;
import app.custodex.extract.MailDraft;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Room;
import app.custodex.extract.Spool;
import app.custodex.extract.WrittenFile;
import app.custodex.extract.WrittenFiles;
import app.custodex.extract.handover.Targets;
import app.custodex.extract.tables.DatabaseTable;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.media.MediaWorkers;
import app.custodex.media.UnplayableException;
import app.custodex.model.KindGroup;
import app.custodex.model.ThingId;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.families.FamilyTones;
import app.custodex.tones.Tone;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntConsumer;

/**
 * What leaves the strongroom as ordinary files. The gate is asked for each, and the docket keeps which files were written, however it ends;
 * every method fails with a {@link ProblemException} when the customer's consent was withdrawn.
 */
public final class Outgoing {
    private final OpenPhone open;
    private final ConsentGate gate;
    private final Mandate mandate;
    private final FileSource source;
    private final PhoneFiles files;

    Outgoing(OpenPhone open, ConsentGate gate, Mandate mandate, FileSource source, PhoneFiles files) {
        this.open = open;
        this.gate = gate;
        this.mandate = mandate;
        this.source = source;
        this.files = files;
    }

    /** Writes the picture of a thing, or the item that it was read from, into a new file as it is. */
    public void takeOut(ThingId id, Path file) throws IOException {
        var picture = open.look(() -> open.picture(id));
        newFiles(Map.of(file, picture.isPresent() ? out -> out.write(picture.get()) : item(new PhonePath(id.item()))));
    }

    private OutFolder.Body item(PhonePath path) {
        return out -> {
            var digest = Digests.sha512();
            try (var in = source.open(path)) {
                in.transferTo(new DigestOutputStream(out, digest));
            }
            var found = Digests.hex(digest);
            if (ExtractMaterial.saved(open, source, path)
                    .filter(saved -> !saved.equals(found))
                    .isPresent()) {
                throw new ProblemException(Problem.failure(
                        path.text(),
                        "It is not what was saved: its digest is another one",
                        "Look into another layer, or extract it as it is, which tells this and writes it"));
            }
        };
    }

    /** Writes a database and the logs beside it as they are; the logs get its name with their own ending. */
    public List<Path> takeOutDatabase(PhonePath database, Path file) throws IOException {
        var bodies = new LinkedHashMap<Path, OutFolder.Body>();
        for (var item : open.look(() -> PhoneDatabase.items(source, database))) {
            var ending = item.text().substring(database.text().length());
            bodies.put(file.resolveSibling(file.getFileName() + ending), item(item));
        }
        newFiles(bodies);
        return List.copyOf(bodies.keySet());
    }

    /**
     * Writes a database with what stands in its log as one file.
     *
     * @throws ProblemException when it does not pass its own check then, or its log is not whole
     */
    public void takeOutMerged(PhonePath database, Path file) throws IOException {
        newFiles(Map.of(file, out -> files.database(database).merged(out)));
    }

    /**
     * Writes the answer to a question in SQL as CSV.
     *
     * @return how many rows
     */
    public long takeOutRows(PhonePath database, String sql, Path file) throws IOException {
        var rows = new long[1];
        newFiles(Map.of(file, out -> {
            try (var table = new DatabaseTable(out)) {
                rows[0] = files.database(database).ask(sql, table);
            }
        }));
        return rows[0];
    }

    /** Files that somebody named, in one folder; none is written when one of them is there already. */
    private void newFiles(Map<Path, OutFolder.Body> bodies) throws IOException {
        for (var file : bodies.keySet()) {
            if (Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
                gate.ask(Operation.EXTRACT, mandate, open.phone());
                throw new ProblemException(
                        Problem.failure(file.toString(), "It is there already", "Give another name"));
            }
        }
        var first = bodies.keySet().iterator().next().toAbsolutePath();
        handOut(
                Optional.ofNullable(first.getParent()).orElse(first),
                (permit, out) -> open.look(() -> {
                    for (var body : bodies.entrySet()) {
                        out.exactly(body.getKey().toAbsolutePath(), body.getValue());
                    }
                    return bodies.size();
                }));
    }

    private interface Writing<T> {
        T write(Permit permit, DiskFolder out) throws IOException;
    }

    /** The docket is told of all files that are complete, whatever comes after them. */
    private <T> T handOut(Path folder, Writing<T> writing) throws IOException {
        return gate.handOut(mandate, open.phone(), folder, (permit, noted) -> {
            var written = new WrittenFiles();
            try {
                return writing.write(permit, new DiskFolder(folder, written));
            } finally {
                written.all().forEach(each -> noted.add(noted(each)));
            }
        });
    }

    private static HandOut.File noted(WrittenFile written) {
        return new HandOut.File(
                written.file().toAbsolutePath().normalize().toString(), written.bytes(), written.sha512());
    }

    /**
     * Writes a mail that somebody may look through and send, with files that were written before (RFC 5322).
     *
     * @return where it is
     */
    public Path mailDraft(String subject, List<Path> attached, Path folder) throws IOException {
        return handOut(
                folder,
                (permit, out) -> new MailDraft(subject, attached)
                        .write(permit.given().atZone(open.phone().timeZone()), out));
    }

    /**
     * Writes a piece of a recording as a tone for a phone.
     *
     * @param item the recording
     * @return where it is
     * @throws ProblemException when the phone does not take such a tone, too, or the recording can't be decoded
     */
    public Path tone(String item, Tone tone, Path folder) throws IOException {
        var rules = FamilyTones.of(tone.family())
                .orElseThrow(() -> new ProblemException(
                        Problem.failure(tone.family().label(), "It plays no tones", "Choose a family of phones")));
        var trouble = tone.trouble(rules);
        if (trouble.isPresent()) {
            throw new ProblemException(trouble.get());
        }
        return handOut(
                folder,
                (permit, out) -> open.look(() -> {
                    try (var recording = open.media(item);
                            var made = new Spool()) {
                        MediaWorkers.shared()
                                .convert(recording, rules.coding(), rules.kilobits(), Optional.of(tone.cut()), made);
                        try (var content = made.content()) {
                            return out.file(tone.title(), rules.ending(), content::transferTo);
                        }
                    } catch (UnplayableException e) {
                        throw new ProblemException(
                                Problem.failure(item, "No tone can be made of this recording", "Choose another one"),
                                e);
                    }
                }));
    }

    /**
     * Writes things into open files. Contacts are written from A to Z.
     *
     * @param zone in which times are written
     * @param delivery as what it is handed out
     * @param progress is told how many things are written
     * @throws ProblemException when the folder can't be written, too, or there is nothing to write, which would look like a success
     */
    public ExtractResult extract(
            List<Extraction.Order> orders,
            ZoneId zone,
            Delivery delivery,
            Path folder,
            IntConsumer progress,
            CancelToken cancel)
            throws IOException {
        if (orders.stream().allMatch(order -> order.count() == 0)) {
            gate.ask(Operation.EXTRACT, mandate, open.phone());
            throw new ProblemException(Problem.failure(
                    open.phone().name(), "There is nothing to write", "Pick something, or look with other words"));
        }
        return gate.handOut(mandate, open.phone(), folder, (permit, noted) -> {
            var trouble = room(orders, delivery.form(), folder).trouble();
            if (trouble.isPresent()) {
                throw new ProblemException(trouble.get());
            }
            var material = material(zone, permit.given());
            return open.look(() -> new Extraction(material)
                    .write(
                            orders.stream().map(this::inOrder).toList(),
                            () -> Targets.open(delivery, folder, Provenance.title(material), material),
                            written -> written.forEach(each -> noted.add(noted(each))),
                            folder,
                            progress,
                            cancel));
        });
    }

    /** How much room it needs, as far as that is known before, and how much there is. */
    public Room room(List<Extraction.Order> orders, Delivery.Form form, Path folder) throws IOException {
        return open.look(() -> Room.of(open.catalogue(), orders, form, folder));
    }

    /** What would be written of the first things; see {@link Extraction#preview}. Whoever opened this may look at it. */
    public List<Extraction.Preview> preview(Extraction.Order order, ZoneId zone, int most) throws IOException {
        return open.look(
                () -> new Extraction(material(zone, gate.now())).preview(inOrder(order), most, new CancelToken()));
    }

    private ExtractMaterial material(ZoneId zone, Instant now) {
        return new ExtractMaterial(
                open, source, zone, Provenance.of(mandate, open.phone(), open.layer(), zone, now), open::photo);
    }

    private Extraction.Order inOrder(Extraction.Order order) {
        return order.group() != KindGroup.CONTACTS || order.contacts().isPresent()
                ? order
                : order.with(open.contacts(order.numbers()));
    }
}
