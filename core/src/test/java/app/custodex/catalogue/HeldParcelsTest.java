package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;

import app.custodex.catalogue.StoreReading.Job;
import app.custodex.catalogue.StoreReading.Parcel;
import app.custodex.model.Contact;
import app.custodex.model.Samples;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.Store;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.FutureTask;
import org.junit.jupiter.api.Test;

class HeldParcelsTest {
    private static final Job JOB = new Job(mock(Reader.class), new Store("people", List.of()), "", true);

    private static Contact contact(int number) {
        return Samples.contact(new ThingId("people", "" + number), "Ivo", List.of(), List.of(), List.of());
    }

    private static Parcel parcel(List<? extends Thing> things) {
        return new Parcel(JOB, List.copyOf(things), new FutureTask<>(List::of), Optional.empty());
    }

    @Test
    void theyComeInTheirOrderAndNotAllAreMadeReadyAtOnce() throws IOException {
        try (var reading = new StoreReading(List.of(), mock(PhoneFiles.class))) {
            var held = new HeldParcels(reading);
            var parcels = new ArrayList<Parcel>();
            for (int i = 0; i < 200; i++) {
                var things = new ArrayList<Contact>();
                for (int n = 0; n < 256; n++) {
                    things.add(contact(256 * i + n));
                }
                parcels.add(parcel(things));
                held.add(parcels.getLast());
            }
            held.file();
            assertEquals(51_200, held.contacts().size());
            assertEquals(contact(51_199), held.contacts().getLast());
            assertEquals(List.of(), parcels.getFirst().filed());
            assertFalse(parcels.get(100).task().isDone(), "far ahead of whoever writes");
            for (var parcel : parcels) {
                assertEquals(parcel, held.next());
            }
            assertTrue(held.isEmpty());
        }
    }

    @Test
    void longNotesFillItSooner() {
        var note = "a".repeat(10_000_000);
        var contact = Samples.contact(new ThingId("people", "1"), "Ivo", List.of(), List.of(), List.of(note));
        try (var reading = new StoreReading(List.of(), mock(PhoneFiles.class))) {
            var held = new HeldParcels(reading);
            for (int i = 0; i < 10; i++) {
                assertFalse(held.isFull());
                held.add(parcel(List.of(contact)));
            }
            assertTrue(held.isFull());
        }
    }
}
