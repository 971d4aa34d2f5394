package app.custodex.practice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.app.Sources;
import app.custodex.backup.BackupRequest;
import app.custodex.drawer.PracticeDrawer.Contents;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.model.Contact;
import app.custodex.strongroom.LeftOut.Why;
import io.ocfl.core.OcflRepositoryBuilder;
import io.ocfl.core.extension.storage.layout.config.HashedNTupleLayoutConfig;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** From a phone of each family to its people, through the same use cases that the programs have. */
class BothFamiliesTest {
    @TempDir
    Path folder;

    @Test
    void bothFamiliesPeopleComeOutTheSameAndTheLayersAreValid() throws Exception {
        var home = new Home(folder);
        try (var drawer = new TableDrawer.Maker().open(home.practice(), Contents.sketched(1, 60))) {
            for (var phone : drawer.phones()) {
                phone.makeReady();
                phone.plugIn();
                Sources.of(home).rememberPhone(phone.family().code(), phone.address());
            }
            try (var custodex = Custodex.open(home, Clock.systemUTC())) {
                for (var bay : custodex.bays().all()) {
                    bay.ask();
                    var job = custodex.backUp(
                            bay, Mandate.ofShop(), BackupRequest.everything(Duration.ZERO, Custodex.TOOL), false);
                    var outcome = job.outcome().get(60, TimeUnit.SECONDS);
                    assertTrue(
                            outcome instanceof Outcome.Done done
                                    && done.result().check().orElseThrow().sound(),
                            outcome.toString());
                }
            }
        }
        // The phones are gone from here on.
        try (var custodex = Custodex.open(home, Clock.systemUTC())) {
            assertEquals(
                    List.of(Family.PELLOW),
                    custodex.strongroom().holdings().phones().stream()
                            .filter(phone -> phone.newest().left().stream()
                                    .anyMatch(left -> left.kind() == Kind.CALLS && left.why() == Why.SHARED))
                            .map(phone -> phone.identity().family())
                            .toList(),
                    "a Pellow keeps calls and messages in one database");
            for (var phone : custodex.strongroom().holdings().phones()) {
                try (var contacts = custodex.reading()
                        .open(Mandate.ofShop(), phone.identity().identifier(), 1, Locale.UK)) {
                    assertEquals(
                            60,
                            contacts.contacts().ascending().size(),
                            phone.identity().name());
                    assertEquals(List.of(), contacts.problems(Set.of()));
                    var grandad = contacts.contacts().find("grandad rook").getFirst();
                    assertEquals("Halvard Rook", grandad.title());
                    assertEquals(
                            "1941-11-14",
                            grandad.birthday().map(Contact.Day::iso).orElseThrow());
                    assertEquals("Lighthouse Guides", grandad.organisation().name());
                    assertEquals(
                            "Voicemail of 3 November kept.\nDo not delete.",
                            grandad.notes().getFirst());
                    assertTrue(contacts.photo(grandad).orElseThrow().length > 500);
                    assertTrue(
                            grandad.phones().getFirst().e164().startsWith("+447700900"),
                            grandad.phones().toString());
                    assertEquals(List.of("Family"), grandad.groups());
                    assertEquals(3, contacts.contacts().find("sunniva").size(), "entered three times over the years");
                    var custom = contacts.contacts().ascending().stream()
                            .flatMap(c -> c.phones().stream())
                            .filter(p -> p.label().equals("Boat; harbour, north"))
                            .count();
                    assertTrue(custom > 0, "labels of the owner's own");
                }
            }
            assertEquals(
                    List.of(Family.OSTREL, Family.PELLOW),
                    custodex.strongroom().holdings().phones().stream()
                            .map(p -> p.identity().family())
                            .sorted()
                            .toList());
        }
        var repository = new OcflRepositoryBuilder()
                .defaultLayoutConfig(new HashedNTupleLayoutConfig())
                .inventoryCache(null)
                .storage(storage -> storage.fileSystem(home.strongroom().resolve("objects")))
                .workDir(Files.createDirectories(folder.resolve("referee")))
                .build();
        for (var id : repository.listObjectIds().toList()) {
            assertEquals(List.of(), repository.validateObject(id, true).getErrors());
        }
        repository.close();
        try (var left = Files.list(home.reading())) {
            assertEquals(0, left.count(), "nothing private is left behind");
        }
    }
}
