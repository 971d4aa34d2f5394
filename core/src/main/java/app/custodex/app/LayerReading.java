package app.custodex.app;

import app.custodex.app.OpenPhone.From;
import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.catalogue.Growth;
import app.custodex.link.PhoneIdentity;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.families.FamilyReaders;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.StoredLayer;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.CancellationException;
import java.util.concurrent.locks.ReentrantLock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Opens layers for reading. What is read out of one is kept in its catalogue in the strongroom, from which the next layer's goes on;
 * it can be thrown away at any time. That of a sealed layer is made in memory and kept sealed with the same key.
 */
public final class LayerReading {
    private static final Logger LOG = LoggerFactory.getLogger(LayerReading.class);

    private final Home home;
    private final Disk disk;
    private final ShopStrongroom strongroom;
    private final ConsentGate gate;
    private final ReentrantLock cataloguing = new ReentrantLock();
    private final CancelToken closing = new CancelToken();
    private final ReentrantLock behind = new ReentrantLock();
    private volatile CancelToken endBehind = new CancelToken();

    LayerReading(Home home, Disk disk, ShopStrongroom strongroom, ConsentGate gate) {
        this.home = home;
        this.disk = disk;
        this.strongroom = strongroom;
        this.gate = gate;
    }

    /**
     * Opens a layer; the phone need not be there. The caller closes it.
     *
     * @param mandate on whose behalf
     * @param progress is told how it goes, when it is read for the first time
     * @throws ProblemException when the customer has not consented
     * @throws CancellationException when the program ends meanwhile
     */
    public OpenPhone open(Mandate mandate, String phoneIdentifier, int number, Locale locale, ReadingProgress progress)
            throws IOException {
        return open(mandate, phoneIdentifier, number, locale, progress, closing);
    }

    /**
     * The same, with what only the customer's key opens. What that brings is catalogued in memory and kept nowhere.
     *
     * @param burrowKey is not needed any more when this returns; it stays the caller's to destroy
     */
    public OpenPhone openWithKey(
            Mandate mandate,
            String phoneIdentifier,
            int number,
            Locale locale,
            Passphrase burrowKey,
            ReadingProgress progress)
            throws IOException {
        open(mandate, phoneIdentifier, number, locale, progress).close(); // what needs no key is kept as ever
        var layer = layer(phoneIdentifier, number);
        Optional<byte[]> below;
        try {
            below = keptBytes(target(mandate, layer, locale));
        } catch (IOException | RuntimeException e) {
            layer.close();
            throw e;
        }
        var readers = FamilyReaders.of(layer.record().phone().family(), Optional.of(burrowKey));
        return OpenPhone.inMemory(gate, mandate, From.layer(layer), readers, below, locale, progress, closing);
    }

    private Target target(Mandate mandate, StoredLayer layer, Locale locale) throws IOException {
        return new Target(layer, gate.inCountry(mandate, layer.record().phone()).in(locale));
    }

    /** Empty when it could not be kept; all is read again then. */
    private Optional<byte[]> keptBytes(Target target) throws IOException {
        var there = kept(target);
        if (there.isEmpty()) {
            return Optional.empty();
        }
        there.get().close();
        var file = file(target.layer(), target.number());
        return target.layer().record().sealed()
                ? unsealed(target.layer(), file)
                : Optional.of(Files.readAllBytes(file));
    }

    private OpenPhone open(
            Mandate mandate,
            String phoneIdentifier,
            int number,
            Locale locale,
            ReadingProgress progress,
            CancelToken cancel)
            throws IOException {
        var layer = layer(phoneIdentifier, number);
        try {
            gate.ask(Operation.READ, mandate, layer.record().phone());
            return open(mandate, layer, locale, progress, cancel);
        } catch (IOException | RuntimeException e) {
            layer.close();
            throw e;
        }
    }

    /** The same, without anybody who watches it. */
    public OpenPhone open(Mandate mandate, String phoneIdentifier, int number, Locale locale) throws IOException {
        return open(mandate, phoneIdentifier, number, locale, ReadingProgress.NONE);
    }

    /**
     * Reads a layer into its catalogue, so that it opens at once later. Takes a while; blocks. One is read after the other.
     * {@link #endBehind} ends it, which is no failure: the layer is read when it is opened then.
     */
    public void catalogue(Mandate mandate, String phoneIdentifier, int number, Locale locale) throws IOException {
        var end = endBehind;
        behind.lock();
        try {
            end.check();
            open(mandate, phoneIdentifier, number, locale, ReadingProgress.NONE, end)
                    .close();
        } catch (CancellationException ended) {
            LOG.info("a layer is not read behind its backup");
        } finally {
            behind.unlock();
        }
    }

    /**
     * Ends what {@link #catalogue} reads, for somebody who needs the strongroom for themselves, and waits until it has let go.
     */
    void endBehind() {
        var ended = endBehind;
        endBehind = new CancelToken();
        ended.cancel();
        behind.lock();
        behind.unlock();
    }

    /** Ends all that is being read, and waits until it has let go of its files. */
    void close() {
        closing.cancel();
        endBehind();
        cataloguing.lock();
        cataloguing.unlock();
    }

    private StoredLayer layer(String phoneIdentifier, int number) throws IOException {
        return strongroom
                .current()
                .layer(phoneIdentifier, number)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        phoneIdentifier, "There is no layer " + number + " of this phone", "List the layers")));
    }

    private OpenPhone open(
            Mandate mandate, StoredLayer layer, Locale locale, ReadingProgress progress, CancelToken cancel)
            throws IOException {
        // What is sealed never touches a disk in the clear.
        var place = layer.record().sealed() ? PrivatePlace.inMemory() : PrivatePlace.open(readingPlace());
        try {
            var target = target(mandate, layer, locale);
            var readers = FamilyReaders.of(target.phone().family());
            var from = From.layer(layer).lookingIntoZips(place);
            var files = new PhoneFiles(from.source(), target.phone(), place);
            var growth = OpenPhone.growth(
                    progress,
                    locale,
                    early -> new OpenPhone(gate, mandate, from, place, files, readers, early, locale));
            var catalogue = catalogue(target, files, readers, place, growth, cancel);
            return new OpenPhone(gate, mandate, from, place, files, readers, catalogue, locale);
        } catch (IOException | RuntimeException e) {
            place.close();
            throw e;
        }
    }

    /** In the home, or where temporary files lie when the home can't be written. */
    private Path readingPlace() throws IOException {
        try {
            disk.createFolders(home.reading());
            if (Files.isWritable(home.reading())) {
                return home.reading();
            }
        } catch (IOException readOnly) {
            LOG.info("the home can't be written", readOnly);
        }
        return Files.createTempDirectory("custodex-"); // this user's alone
    }

    private Path file(StoredLayer layer, int number) throws IOException {
        // Named by a digest: an identifier comes from the phone and may be no file name.
        var phone = Digests.of(layer.record().phone().identifier().getBytes(StandardCharsets.UTF_8))
                .substring(0, 24);
        return strongroom
                .current()
                .root()
                .resolve("catalogue")
                .resolve(phone + "-" + number + ".db" + (layer.record().sealed() ? ".age" : ""));
    }

    /**
     * A layer that is read.
     *
     * @param phone in the country by which its numbers are read
     */
    private record Target(StoredLayer layer, PhoneIdentity phone) {
        int number() {
            return layer.record().number();
        }

        CatalogueHead head(int number) {
            return CatalogueHead.of(phone.identifier(), number, phone.region());
        }
    }

    private Catalogue catalogue(
            Target target,
            PhoneFiles files,
            List<Reader> readers,
            PrivatePlace place,
            Growth growth,
            CancelToken cancel)
            throws IOException {
        var there = kept(target);
        if (there.isPresent()) {
            return there.get();
        }
        cataloguing.lock();
        try {
            var meanwhile = kept(target);
            if (meanwhile.isPresent()) {
                return meanwhile.get();
            }
            return target.layer().record().sealed()
                    ? makeInMemory(target, files, readers, growth, cancel)
                    : makeInFile(target, files, readers, place, growth, cancel);
        } finally {
            cataloguing.unlock();
        }
    }

    private Optional<Catalogue> kept(Target target) throws IOException {
        return kept(target, target.number());
    }

    private Optional<Catalogue> kept(Target target, int number) throws IOException {
        var layer = target.layer();
        var file = file(layer, number);
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        return layer.record().sealed()
                ? unsealed(layer, file).flatMap(bytes -> Catalogue.open(bytes, target.head(number)))
                : Catalogue.open(file, target.head(number));
    }

    private static Optional<byte[]> unsealed(StoredLayer layer, Path file) {
        try (var sealed = layer.key().orElseThrow().seekable(file)) {
            var bytes = ByteBuffer.allocate(Math.toIntExact(sealed.size()));
            sealed.read(bytes, 0);
            return Optional.of(bytes.array());
        } catch (IOException | ArithmeticException torn) {
            LOG.info("a catalogue can't be unsealed", torn);
            return Optional.empty();
        }
    }

    /** The number of the nearest layer below that has a catalogue of the present form. */
    private OptionalInt below(Target target) throws IOException {
        for (int number = target.number() - 1; number > 0; number--) {
            var there = kept(target, number);
            if (there.isPresent()) {
                there.get().close();
                return OptionalInt.of(number);
            }
        }
        return OptionalInt.empty();
    }

    private interface Making<T> {
        /** @param below the file with the catalogue to go on from */
        T from(Optional<Path> below) throws IOException;
    }

    /** From the catalogue below, or, if that turns out to be damaged, from nothing. */
    private <T> T make(Target target, Making<T> making) throws IOException {
        var below = below(target);
        if (below.isPresent()) {
            try {
                return making.from(Optional.of(file(target.layer(), below.getAsInt())));
            } catch (IOException damaged) {
                LOG.warn("a catalogue could not be gone on with; it is made from the layer alone", damaged);
            }
        }
        return making.from(Optional.empty());
    }

    private Catalogue makeInMemory(
            Target target, PhoneFiles files, List<Reader> readers, Growth growth, CancelToken cancel)
            throws IOException {
        return make(target, below -> {
            try (var draft = CatalogueDraft.inMemory(below.flatMap(file -> unsealed(target.layer(), file)))) {
                draft.build(target.head(target.number()), files, readers, growth, cancel);
                keep(target.layer(), out -> {
                    var writer = target.layer().key().orElseThrow().writer(out::write);
                    var bytes = draft.bytes();
                    writer.write(bytes, 0, bytes.length);
                    writer.finish();
                });
                return draft.handOver();
            }
        });
    }

    private Catalogue makeInFile(
            Target target,
            PhoneFiles files,
            List<Reader> readers,
            PrivatePlace place,
            Growth growth,
            CancelToken cancel)
            throws IOException {
        var made = make(target, below -> {
            var draftFile = place.folder().resolve("catalogue.db");
            if (below.isPresent()) {
                try (var in = Files.newInputStream(below.get())) {
                    place.copy(in, draftFile);
                }
            }
            try (var draft = CatalogueDraft.inFile(draftFile)) {
                draft.build(target.head(target.number()), files, readers, growth, cancel);
            }
            return draftFile;
        });
        keep(target.layer(), out -> {
            try (var in = Files.newInputStream(made)) {
                var buffer = new byte[1 << 20];
                for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                    out.write(ByteBuffer.wrap(buffer, 0, n));
                }
            }
        });
        var kept = kept(target);
        if (kept.isPresent()) {
            place.remove(Disk.parent(made));
            return kept.get();
        }
        return Catalogue.open(made, target.head(target.number()))
                .orElseThrow(() -> new IOException("the catalogue that was made can't be opened"));
    }

    private interface Content {
        void writeTo(Disk.Out out) throws IOException;
    }

    /** Puts it into the strongroom. A failure to keep it only costs time later. */
    private void keep(StoredLayer layer, Content content) {
        try {
            var file = file(layer, layer.record().number());
            disk.createFolders(Disk.parent(file));
            var part = file.resolveSibling(file.getFileName() + ".part");
            disk.delete(part);
            try (var out = disk.create(part)) {
                content.writeTo(out);
                out.sync();
            }
            disk.move(part, file);
        } catch (IOException e) {
            LOG.warn("the catalogue of a layer was not kept", e);
        }
    }
}
