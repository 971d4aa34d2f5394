package app.custodex.strongroom;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;

/** The list of items as a file. */
class ManifestTest {
    private static final Instant TIME = Instant.parse("2026-03-01T10:15:30.123456789Z");

    @Test
    void itemsOfEveryShapeComeBackAsTheyWere() throws IOException {
        var place = new ManifestItem.Place("layer-0001/pack-000001.tar", 512);
        var origin = new ManifestItem.Origin("folder", Instant.parse("2026-03-02T00:00:00Z"));
        var items = List.of(
                item("a/Ω \"quoted\"\n.txt", Kind.NOTES, "e1", "00ff", Optional.of(place), Optional.of(origin)),
                item("b", Kind.KITEWIRE, "", "11", Optional.of(place), Optional.of(origin)),
                ManifestItem.missed(
                        item("c", Kind.PHOTOS, "", "", Optional.empty(), Optional.empty()),
                        Problem.failure("c", "It can't be read", "Try again")),
                new ManifestItem(
                        new PhonePath("link"),
                        ManifestItem.Type.LINK,
                        Kind.OTHER,
                        0,
                        Instant.EPOCH,
                        "",
                        "",
                        Optional.empty(),
                        Optional.of("../elsewhere"),
                        Optional.of(Problem.note("link", "It is a link", "")),
                        Optional.empty()));

        assertEquals(items, read(written(items)));
    }

    @Test
    void longListsKeepTheirOrder() throws IOException {
        var items = IntStream.range(0, 20_000)
                .mapToObj(i -> item("f" + i, Kind.OTHER, "", "", Optional.empty(), Optional.empty()))
                .toList();

        assertEquals(items, read(written(items)));
    }

    @Test
    void fieldsOfALaterProgramArePassedOver() throws IOException {
        var line = "{\"path\":\"a\",\"shade\":{\"x\":[1,2]},\"kind\":\"notes\",\"size\":7,"
                + "\"place\":{\"offset\":3,\"new\":{},\"content\":\"p\"},\"modified\":\"2026-03-01T10:15:30Z\"}";

        var item = read(zipped(line)).getFirst();

        assertEquals(new PhonePath("a"), item.path());
        assertEquals(Kind.NOTES, item.kind());
        assertEquals(Optional.of(new ManifestItem.Place("p", 3)), item.place());
        assertEquals(Instant.parse("2026-03-01T10:15:30Z"), item.modified());
    }

    @Test
    void linesThatMakeNoItemAreRefused() throws IOException {
        for (var line : List.of(
                "{\"kind\":\"notes\"}",
                "{\"path\":\"../../etc/passwd\",\"kind\":\"notes\"}",
                "{\"path\":\"a\",\"kind\":\"nonsense\"}",
                "{\"path\":\"a\",\"modified\":\"yesterday\"}",
                "{\"path\":\"a\",\"origin\":{\"source\":\"folder\",\"read\":\"later\"}}",
                "{\"path\":\"a\",\"size\":\"many\"}",
                "{\"path\":\"a\"",
                "[\"a\"]",
                "null")) {
            var bytes = zipped(line);
            assertThrows(IOException.class, () -> read(bytes), line);
        }
    }

    @Test
    void aTornFileIsRefused() throws IOException {
        var whole = written(List.of(item("a", Kind.OTHER, "", "", Optional.empty(), Optional.empty())));

        for (int length = 0; length < whole.length; length++) {
            var torn = Arrays.copyOf(whole, length);
            assertThrows(IOException.class, () -> read(torn), length + " bytes");
        }
    }

    @Test
    void ofALongTornFileWhatIsBeforeTheEndIsHandedOut() throws IOException {
        var all = new ArrayList<ManifestItem>();
        for (int i = 0; i < 5_000; i++) {
            var digest = Digests.of(Integer.toString(i).getBytes(StandardCharsets.UTF_8));
            all.add(item("folder/" + i, Kind.OTHER, "", digest, Optional.empty(), Optional.empty()));
        }
        var whole = written(all);
        assertEquals(all, read(whole));

        var items = new ArrayList<ManifestItem>();
        var torn = new ByteArrayInputStream(whole, 0, whole.length * 3 / 4);
        assertThrows(IOException.class, () -> Manifest.read(torn, items::add));

        assertEquals(all.subList(0, items.size()), items);
        assertTrue(items.size() > 3_500, items.size() + " items");
    }

    private static ManifestItem item(
            String path,
            Kind kind,
            String etag,
            String digest,
            Optional<ManifestItem.Place> place,
            Optional<ManifestItem.Origin> origin) {
        return new ManifestItem(
                new PhonePath(path),
                ManifestItem.Type.FILE,
                kind,
                42,
                TIME,
                etag,
                digest,
                place,
                Optional.empty(),
                Optional.empty(),
                origin);
    }

    private static byte[] written(List<ManifestItem> items) throws IOException {
        var out = new ByteArrayOutputStream();
        Manifest.write(out, items);
        return out.toByteArray();
    }

    private static byte[] zipped(String line) throws IOException {
        var out = new ByteArrayOutputStream();
        try (var gzip = new GZIPOutputStream(out)) {
            gzip.write(line.getBytes(StandardCharsets.UTF_8));
        }
        return out.toByteArray();
    }

    private static List<ManifestItem> read(byte[] bytes) throws IOException {
        var items = new ArrayList<ManifestItem>();
        Manifest.read(new ByteArrayInputStream(bytes), items::add);
        return items;
    }
}
