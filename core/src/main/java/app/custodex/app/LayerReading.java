package app.custodex.app;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.families.FamilyReaders;
import app.custodex.strongroom.StoredLayer;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.LongConsumer;
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
    private final Object cataloguing = new Object();
    private final CancelToken closing = new CancelToken();

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
     * @param progress is told how many things were read, while they are read for the first time
     * @throws ProblemException when the customer has not consented
     */
    public OpenLayer open(
            Mandate mandate,
            String phoneIdentifier,
            int number,
            Locale locale,
            LongConsumer progress,
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
    public OpenLayer open(Mandate mandate, String phoneIdentifier, int number, Locale locale) throws IOException {
        return open(mandate, phoneIdentifier, number, locale, n -> {}, new CancelToken());
    }

    /** Reads a layer into its catalogue, so that it opens at once later. Takes a while; blocks. */
    public void catalogue(Mandate mandate, String phoneIdentifier, int number, Locale locale) throws IOException {
        try {
            open(mandate, phoneIdentifier, number, locale, n -> {}, closing).close();
        } catch (CancellationException e) {
            LOG.info("the program ends; the layer is read when it is opened");
        }
    }

    /** Ends what is read behind a backup, and waits until it has let go of its files. */
    void close() {
        closing.cancel();
        synchronized (cataloguing) {
            LOG.debug("nothing is read any more");
        }
    }

    private StoredLayer layer(String phoneIdentifier, int number) throws IOException {
        return strongroom
                .current()
                .layer(phoneIdentifier, number)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        phoneIdentifier, "There is no layer " + number + " of this phone", "List the layers")));
    }

    private OpenLayer open(Mandate mandate, StoredLayer layer, Locale locale, LongConsumer progress, CancelToken cancel)
            throws IOException {
        // What is sealed never touches a disk in the clear.
        var place = layer.record().sealed() ? PrivatePlace.inMemory() : PrivatePlace.open(readingPlace());
        try {
            var readers = FamilyReaders.of(layer.record().phone().family());
            var files = new PhoneFiles(layer, layer.record().phone(), place);
            var catalogue = catalogue(layer, files, readers, place, progress, cancel);
            return new OpenLayer(gate, mandate, layer, place, files, readers, catalogue, locale);
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

    private static CatalogueHead head(StoredLayer layer) {
        return CatalogueHead.of(
                layer.record().phone().identifier(), layer.record().number());
    }

    private Catalogue catalogue(
            StoredLayer layer,
            PhoneFiles files,
            List<Reader> readers,
            PrivatePlace place,
            LongConsumer progress,
            CancelToken cancel)
            throws IOException {
        var there = kept(layer);
        if (there.isPresent()) {
            return there.get();
        }
        synchronized (cataloguing) {
            var meanwhile = kept(layer);
            if (meanwhile.isPresent()) {
                return meanwhile.get();
            }
            return layer.record().sealed()
                    ? makeInMemory(layer, files, readers, progress, cancel)
                    : makeInFile(layer, files, readers, place, progress, cancel);
        }
    }

    private Optional<Catalogue> kept(StoredLayer layer) throws IOException {
        var file = file(layer, layer.record().number());
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        if (!layer.record().sealed()) {
            return Catalogue.open(file, head(layer));
        }
        return unsealed(layer, file).flatMap(bytes -> Catalogue.open(bytes, head(layer)));
    }

    private static Optional<byte[]> unsealed(StoredLayer layer, Path file) {
        try (var in = layer.key().orElseThrow().decrypting(file)) {
            return Optional.of(in.readAllBytes());
        } catch (IOException torn) {
            LOG.info("a catalogue can't be unsealed", torn);
            return Optional.empty();
        }
    }

    /** The catalogue of the nearest layer below that has one of the present form. */
    private Optional<byte[]> below(StoredLayer layer) throws IOException {
        var phone = layer.record().phone().identifier();
        for (int number = layer.record().number() - 1; number > 0; number--) {
            var file = file(layer, number);
            if (!Files.exists(file)) {
                continue;
            }
            var bytes = layer.record().sealed() ? unsealed(layer, file) : Optional.of(Files.readAllBytes(file));
            var head = CatalogueHead.of(phone, number);
            var there = bytes.flatMap(image -> Catalogue.open(image, head));
            if (there.isPresent()) {
                there.get().close();
                return bytes;
            }
        }
        return Optional.empty();
    }

    private interface Making<T> {
        T from(Optional<byte[]> below) throws IOException;
    }

    /** From the catalogue below, or, if that turns out to be damaged, from nothing. */
    private <T> T make(StoredLayer layer, Making<T> making) throws IOException {
        var below = below(layer);
        if (below.isPresent()) {
            try {
                return making.from(below);
            } catch (IOException damaged) {
                LOG.warn("a catalogue could not be gone on with; it is made from the layer alone", damaged);
            }
        }
        return making.from(Optional.empty());
    }

    private Catalogue makeInMemory(
            StoredLayer layer, PhoneFiles files, List<Reader> readers, LongConsumer progress, CancelToken cancel)
            throws IOException {
        return make(layer, below -> {
            try (var draft = CatalogueDraft.inMemory(below)) {
                draft.build(head(layer), files, readers, progress, cancel);
                keep(() -> disk.replace(
                        file(layer, layer.record().number()),
                        layer.key().orElseThrow().encrypt(draft.bytes())));
                return draft.handOver();
            }
        });
    }

    private Catalogue makeInFile(
            StoredLayer layer,
            PhoneFiles files,
            List<Reader> readers,
            PrivatePlace place,
            LongConsumer progress,
            CancelToken cancel)
            throws IOException {
        var made = make(layer, below -> {
            var draftFile = place.folder().resolve("catalogue.db");
            if (below.isPresent()) {
                Files.write(draftFile, below.get());
            }
            try (var draft = CatalogueDraft.inFile(draftFile)) {
                draft.build(head(layer), files, readers, progress, cancel);
            }
            return draftFile;
        });
        var file = file(layer, layer.record().number());
        keep(() -> {
            var part = file.resolveSibling(file.getFileName() + ".part");
            disk.delete(part);
            try (var in = Files.newInputStream(made);
                    var out = disk.create(part)) {
                var buffer = new byte[1 << 20];
                for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                    out.write(ByteBuffer.wrap(buffer, 0, n));
                }
                out.sync();
            }
            disk.move(part, file);
        });
        var kept = Catalogue.open(file, head(layer));
        return kept.isPresent()
                ? kept.get()
                : Catalogue.open(made, head(layer))
                        .orElseThrow(() -> new IOException("the catalogue that was made can't be opened"));
    }

    private interface Keeping {
        void run() throws IOException;
    }

    /** A failure to keep it only costs time later. */
    private void keep(Keeping keeping) {
        try {
            disk.createFolders(strongroom.current().root().resolve("catalogue"));
            keeping.run();
        } catch (IOException e) {
            LOG.warn("the catalogue of a layer was not kept", e);
        }
    }
}
