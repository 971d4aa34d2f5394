package app.custodex.strongroom;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.backUp;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.backup.FakePhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.base.RealDisk;
import app.custodex.link.PhonePath;
import io.ocfl.api.model.ObjectVersionId;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CancellationException;
import org.apache.commons.compress.archivers.tar.TarFile;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StrongroomTest {
    /** OCFL 1.1 §5.2 "Versioned Object", the example inventory (digests shortened there too; quoted from memory). */
    private static final String EXAMPLE = """
            {
              "digestAlgorithm": "sha512",
              "fixity": {
                "md5": {
                  "184f84e28cbe75e050e9c25ea7f2e939": [ "v1/content/foo/bar.xml" ]
                }
              },
              "head": "v3",
              "id": "ark:/12345/bcd987",
              "manifest": {
                "4d27c8...b53": [ "v2/content/foo/bar.xml" ],
                "7dcc35...c31": [ "v1/content/foo/bar.xml" ],
                "cf83e1...a3e": [ "v1/content/empty.txt" ],
                "ffccf6...62e": [ "v1/content/image.tiff" ]
              },
              "type": "https://ocfl.io/1.1/spec/#inventory",
              "versions": {
                "v1": {
                  "created": "2018-01-01T01:01:01Z",
                  "message": "Initial import",
                  "state": {
                    "7dcc35...c31": [ "foo/bar.xml" ],
                    "cf83e1...a3e": [ "empty.txt" ],
                    "ffccf6...62e": [ "image.tiff" ]
                  },
                  "user": { "address": "alice@example.com", "name": "Alice" }
                },
                "v2": {
                  "created": "2018-02-02T02:02:02Z",
                  "message": "Fix bar.xml, remove image.tiff, add empty2.txt",
                  "state": {
                    "4d27c8...b53": [ "foo/bar.xml" ],
                    "cf83e1...a3e": [ "empty.txt", "empty2.txt" ]
                  },
                  "user": { "address": "bob@example.com", "name": "Bob" }
                },
                "v3": {
                  "created": "2018-03-03T03:03:03Z",
                  "message": "Reinstate image.tiff, delete empty.txt",
                  "state": {
                    "4d27c8...b53": [ "foo/bar.xml" ],
                    "cf83e1...a3e": [ "empty2.txt" ],
                    "ffccf6...62e": [ "image.tiff" ]
                  },
                  "user": { "address": "cecilia@example.com", "name": "Cecilia" }
                }
              }
            }""";

    @TempDir
    Path root;

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-ROOM");

    @BeforeEach
    void fill() {
        var random = new Random(3);
        for (int i = 0; i < 20; i++) {
            var bytes = new byte[random.nextInt(20_000)];
            random.nextBytes(bytes);
            phone.put("folder " + (i % 3) + "/file " + (i), bytes);
        }
        var large = new byte[5_000_000];
        random.nextBytes(large);
        phone.put("large", large);
    }

    @Test
    void readsTheSpecificationsOwnExample() throws IOException {
        var inventory = Json.PAGE.readValue(EXAMPLE, Inventory.class);

        assertEquals(3, inventory.headNumber());
        assertEquals(
                "v1/content/foo/bar.xml",
                inventory.contentPath(1, "foo/bar.xml").orElseThrow());
        assertEquals(
                "v2/content/foo/bar.xml",
                inventory.contentPath(3, "foo/bar.xml").orElseThrow());
        assertEquals(
                "v1/content/empty.txt", inventory.contentPath(2, "empty2.txt").orElseThrow());
        assertEquals(
                "v1/content/image.tiff", inventory.contentPath(3, "image.tiff").orElseThrow());
        assertTrue(inventory.contentPath(2, "image.tiff").isEmpty());
    }

    @Test
    void placesObjectsAsTheLayoutExtensionSays() {
        // Community extension 0004, example 1 (sha256, 3, 3): "object-01" (quoted from memory).
        assertTrue(StorageRoot.hash("object-01")
                .startsWith("3c0ff4240c1e116dba14c7627f2319b58aa3d77606d0d90dfc6161608ac987d4"));
    }

    @Test
    void everyLayerIsValidOcflInTheEyesOfAnotherLibrary() throws IOException {
        for (int layer = 1; layer <= 3; layer++) {
            backUp(phone, root, disk);
            OcflReferee.assertValid(root);
            phone.put("added " + layer, FakePhone.bytes("layer " + layer));
        }
        backUp(phone, root, disk);
        backUp(phone, root, disk); // nothing new at all
        OcflReferee.assertValid(root);
        var repository = OcflReferee.open(root);
        var versions = repository
                .describeObject("urn:custodex:phone:PB-ROOM")
                .getVersionMap()
                .size();
        assertEquals(5, versions);
        var version = repository.getObject(ObjectVersionId.version("urn:custodex:phone:PB-ROOM", 1));
        assertTrue(version.containsFile("manifest.jsonl.gz") && version.containsFile("layer.json"));
        repository.close();
    }

    @Test
    void packsOpenWithAStandardTarReader() throws IOException {
        phone.put("n".repeat(300) + "/line\nbreak 海", FakePhone.bytes("hostile"));
        backUp(phone, root, disk);
        Map<PhonePath, byte[]> state = phone.state();
        int found = 0;
        try (var files = Files.walk(root.resolve("objects"))) {
            for (var pack : files.filter(f -> f.toString().endsWith(".tar")).toList()) {
                try (var tar = new TarFile(pack)) {
                    for (var entry : tar.getEntries()) {
                        var bytes = new ByteArrayOutputStream();
                        try (var in = tar.getInputStream(entry)) {
                            in.transferTo(bytes);
                        }
                        assertArrayEquals(
                                state.get(new PhonePath(entry.getName())), bytes.toByteArray(), entry.getName());
                        found++;
                    }
                }
            }
        }
        assertEquals(21, found);
    }

    @Test
    void damageNamesTheItemsThatAreHitAndNoOthers() throws IOException {
        backUp(phone, root, disk);
        var strongroom = Strongroom.make(root, disk);
        Path pack;
        ManifestItem.Place place;
        try (var layer = strongroom.layer("PB-ROOM", 1).orElseThrow()) {
            place = layer.find(new PhonePath("folder 1/file 4"))
                    .orElseThrow()
                    .place()
                    .orElseThrow();
            pack = layer.contentFile(place.content());
        }
        var bytes = Files.readAllBytes(pack);
        bytes[(int) place.offset() + 10] ^= 1;
        Files.write(pack, bytes);

        CheckReport report;
        try (var layer = strongroom.layer("PB-ROOM", 1).orElseThrow()) {
            report = new LayerCheck(List.of(layer), Clock.systemUTC())
                    .run(n -> {}, new CancelToken())
                    .getFirst();
        }

        assertFalse(report.sound());
        assertEquals(List.of(new PhonePath("folder 1/file 4")), report.items());
        assertEquals(1, report.damage().size());
        strongroom.checks().add("PB-ROOM", report);
        assertEquals(report, strongroom.checks().last("PB-ROOM", 1).orElseThrow());
    }

    @Test
    void aMissingStoredFileIsDamageToo() throws IOException {
        backUp(phone, root, disk);
        var strongroom = Strongroom.make(root, disk);
        try (var layer = strongroom.layer("PB-ROOM", 1).orElseThrow()) {
            var place = layer.find(new PhonePath("large")).orElseThrow().place().orElseThrow();
            Files.delete(layer.contentFile(place.content()));
            var report = new LayerCheck(List.of(layer), Clock.systemUTC())
                    .run(n -> {}, new CancelToken())
                    .getFirst();
            assertEquals(List.of(new PhonePath("large")), report.items());
        }
    }

    @Test
    void aCheckThatIsStoppedConcludesNothing() throws IOException {
        backUp(phone, root, disk);
        var cancel = new CancelToken();
        cancel.cancel();
        try (var layer = Strongroom.make(root, disk).layer("PB-ROOM", 1).orElseThrow()) {
            var check = new LayerCheck(List.of(layer), Clock.systemUTC());
            assertThrows(CancellationException.class, () -> check.run(n -> {}, cancel));
        }
    }

    @Test
    void aDamagedRootInventoryIsReadFromTheVersionsOwnCopy() throws IOException {
        backUp(phone, root, disk);
        var state = phone.state();
        try (var files = Files.walk(root.resolve("objects"), 5)) {
            var inventory = files.filter(
                            f -> f.endsWith("inventory.json") && !f.toString().contains("v1"))
                    .findFirst()
                    .orElseThrow();
            Files.writeString(inventory, "{ torn");
        }
        assertHolds(Strongroom.make(root, disk), phone, 1, state);
        OcflReferee.assertValid(root);
    }

    @Test
    void aTornManifestIsToldAndTheOtherPhonesAreStillThere() throws IOException {
        backUp(phone, root, disk);
        var other = new FakePhone("PB-OTHER");
        other.put("x", FakePhone.bytes("x"));
        backUp(other, root, disk);
        var strongroom = Strongroom.make(root, disk);
        try (var layer = strongroom.layer("PB-ROOM", 1).orElseThrow()) {
            var manifest = layer.contentFile("manifest.jsonl.gz");
            var bytes = Files.readAllBytes(manifest);
            Files.write(manifest, Arrays.copyOf(bytes, bytes.length / 2));
            var torn = assertThrows(IOException.class, () -> layer.in(PhonePath.ROOT));
            assertTrue(torn.toString().contains("can't be read in full"), torn.getMessage());
        }
        assertEquals(2, strongroom.holdings().phones().size());
        assertHolds(strongroom, other, 1, other.state());
    }

    @Test
    void anInventoryThatPointsOutOfTheStrongroomIsNotFollowed() throws IOException {
        backUp(phone, root, disk);
        var object = new StorageRootProbe(root).object("PB-ROOM");
        var inventory = Inventory.read(object);
        var evil = new Inventory(
                inventory.id(),
                inventory.type(),
                inventory.digestAlgorithm(),
                inventory.head(),
                Map.of("d", List.of("../../../../../../outside")),
                Map.of(
                        "v1",
                        new Inventory.Version(
                                Clock.systemUTC().instant(),
                                "",
                                new Inventory.User("", ""),
                                Map.of("d", List.of("layer.json")))));
        var layer = new StoredLayer(
                Stack.of("stack", root, object, new Seals(root.resolve("seals"), disk), disk, false),
                evil,
                Strongroom.make(root, disk).holdings().phones().getFirst().newest(),
                () -> {});

        var refused = assertThrows(IOException.class, () -> layer.contentFile("layer.json"));

        assertTrue(refused.toString().contains("points out of the strongroom"), refused.getMessage());
        layer.close();
    }

    private record StorageRootProbe(Path root) {
        Path object(String phone) {
            return new StorageRoot(root.resolve("objects"), new RealDisk()).objectFolder("urn:custodex:phone:" + phone);
        }
    }
}
