package app.custodex.app;

import app.custodex.backup.BackupRun;
import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket;
import app.custodex.docket.DocketBook;
import app.custodex.docket.RouteStep;
import app.custodex.link.PhoneLink;
import app.custodex.readers.ContactsReader;
import app.custodex.search.ContactIndex;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerCheck;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredLayer;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.function.LongConsumer;

/** One shop's Custodex: its bays, dockets and strongroom, and what can be done with them. */
public final class Custodex implements AutoCloseable {
    /** For the record of each layer. */
    public static final String TOOL = "Custodex 0.1.0";

    private final Home home;
    private final Clock clock;
    private final Strongroom strongroom;
    private final DocketBook dockets;
    private final Bays bays;
    private final Catalogue catalogue;

    private Custodex(
            Home home, Clock clock, Strongroom strongroom, DocketBook dockets, Bays bays, Catalogue catalogue) {
        this.home = home;
        this.clock = clock;
        this.strongroom = strongroom;
        this.dockets = dockets;
        this.bays = bays;
        this.catalogue = catalogue;
    }

    /** @throws IOException when the home folder can't be read or written */
    public static Custodex open(Home home, Clock clock) throws IOException {
        var disk = new RealDisk();
        return new Custodex(
                home,
                clock,
                Strongroom.open(home.strongroom(), disk),
                DocketBook.open(home.dockets(), disk, clock),
                new Bays(home),
                new Catalogue(home.strongroom().resolve("catalogue"), disk));
    }

    public Home home() {
        return home;
    }

    public Clock clock() {
        return clock;
    }

    public Strongroom strongroom() {
        return strongroom;
    }

    public DocketBook dockets() {
        return dockets;
    }

    public Bays bays() {
        return bays;
    }

    /**
     * Starts a backup.
     *
     * @param docket the job that it belongs to, if any
     * @param patience how long to wait for a phone that went away or asks for a hand
     */
    public BackupJob backUp(PhoneLink link, Optional<Docket> docket, Duration patience, boolean check) {
        var cancel = new CancelToken();
        var run = new BackupRun(link, strongroom, new BackupRun.Options(patience, check, TOOL), clock, cancel);
        var job = new BackupJob(run, cancel);
        job.start(docket.map(Docket::customer).orElse("a phone"), result -> {
            if (docket.isPresent()) {
                dockets.change(
                        docket.get().number(),
                        d -> d.withPhone(result.layer().phone())
                                .withLayer(result.layer().number())
                                .withDone(RouteStep.BACK_UP, clock.instant()));
            }
        });
        return job;
    }

    private StoredLayer layer(String phoneIdentifier, int number) throws IOException {
        return strongroom
                .layer(phoneIdentifier, number)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        phoneIdentifier, "There is no layer " + number + " of this phone", "List the layers")));
    }

    /** Opens the contacts of a layer; the phone need not be there. The caller closes them. */
    public ContactsOfLayer contacts(String phoneIdentifier, int number, Locale locale) throws IOException {
        var layer = layer(phoneIdentifier, number);
        PrivatePlace place;
        try {
            place = PrivatePlace.open(home.reading());
        } catch (IOException e) {
            layer.close();
            throw e;
        }
        try {
            var entry = catalogued(layer, place, locale);
            var book = ContactsReader.reopen(
                    entry.contacts(), entry.problems(), layer, layer.record().phone(), place);
            return new ContactsOfLayer(layer, place, book, ContactIndex.ofSorted(entry.contacts(), locale));
        } catch (IOException | RuntimeException e) {
            place.close();
            layer.close();
            throw e;
        }
    }

    /** What the catalogue has of a layer; read out of the layer, once, when it has nothing. */
    private Catalogue.Entry catalogued(StoredLayer layer, PrivatePlace place, Locale locale) throws IOException {
        var there = catalogue.find(layer.record(), locale);
        if (there.isPresent()) {
            return there.get();
        }
        synchronized (catalogue) {
            var meanwhile = catalogue.find(layer.record(), locale);
            if (meanwhile.isPresent()) {
                return meanwhile.get();
            }
            // The rules of collation take their time to load, so they are loaded beside the reading.
            CompletableFuture.runAsync(() -> ContactIndex.prepare(locale));
            try (var book = ContactsReader.read(layer, layer.record().phone(), place)) {
                var sorted = new ContactIndex(book.contacts(), locale).ascending();
                var entry = new Catalogue.Entry(sorted, book.problems());
                catalogue.keep(layer.record(), locale, entry);
                return entry;
            }
        }
    }

    /** Reads a layer's contacts into the catalogue, so that they open at once later. Takes a while; blocks. */
    public void catalogue(LayerRecord layer, Locale locale) throws IOException {
        contacts(layer.phone().identifier(), layer.number(), locale).close();
    }

    /** Reads a layer back and keeps what was found. */
    public CheckReport check(String phoneIdentifier, int number, LongConsumer progress, CancelToken cancel)
            throws IOException {
        try (var layer = layer(phoneIdentifier, number)) {
            var report = new LayerCheck(layer, clock).run(progress, cancel);
            strongroom.checks().add(phoneIdentifier, report);
            return report;
        }
    }

    @Override
    public void close() {
        bays.close();
    }
}
