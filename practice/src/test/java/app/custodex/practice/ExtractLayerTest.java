package app.custodex.practice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.PrivatePlace;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.catalogue.Filter;
import app.custodex.catalogue.SentIn;
import app.custodex.extract.Chosen;
import app.custodex.extract.Delivery;
import app.custodex.extract.Delivery.Form;
import app.custodex.extract.ExtractResult;
import app.custodex.extract.Extraction;
import app.custodex.extract.Material;
import app.custodex.extract.Origin;
import app.custodex.extract.formats.Formats;
import app.custodex.extract.handover.Targets;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.media.Picture;
import app.custodex.media.SoundCoding;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import app.custodex.model.ThingKind;
import app.custodex.practice.content.OstrelStore;
import app.custodex.practice.content.PellowStore;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.families.FamilyReaders;
import biweekly.Biweekly;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** A whole practice phone in every format that can be counted again: nothing lost, nothing invented. */
class ExtractLayerTest {
    @TempDir
    Path folder;

    /** What is written of it, from the files as they lie here. */
    private record Phone(TreeFiles files, Catalogue catalogue) implements Material {
        @Override
        public String phone() {
            return "the phone";
        }

        @Override
        public Origin origin() {
            return new Origin("", List.of(), "a test", Instant.parse("2026-01-20T09:00:00Z"));
        }

        @Override
        public Optional<String> digest(String item) {
            return Optional.empty();
        }

        @Override
        public Optional<Picture> picture(String item, int side) {
            return Optional.empty();
        }

        @Override
        public boolean convert(String item, SoundCoding coding, int kilobits, OutputStream content) {
            return false;
        }

        @Override
        public ZoneId zone() {
            return ZoneId.of("Etc/GMT-1");
        }

        @Override
        public Catalogue.Names names() {
            return (party, in) -> party.title();
        }

        @Override
        public SentIn sentIn() {
            try {
                return catalogue.sentIn();
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        }

        @Override
        public Optional<byte[]> photo(Contact contact) {
            return Optional.empty();
        }

        @Override
        public List<String> items(String of) throws IOException {
            return files.in(new PhonePath(of)).stream().map(PhonePath::text).toList();
        }

        @Override
        public InputStream open(String item) throws IOException {
            return files.open(new PhonePath(item));
        }

        @Override
        public Instant modified(String item) throws IOException {
            return files.facts(new PhonePath(item)).modified();
        }

        long[] of(KindGroup group) throws IOException {
            var all = new BitSet();
            for (long number : catalogue.find(Filter.EVERYTHING, Order.AS_KEPT)) {
                all.set((int) number);
            }
            return Extraction.groups(catalogue, all).getOrDefault(group, new long[0]);
        }
    }

    private ExtractResult write(Phone open, KindGroup group, String how) throws IOException {
        var numbers = open.of(group);
        var parts = List.of(how.split(":"));
        var format = Formats.of(group, parts.getFirst()).orElseThrow();
        var chosen = Chosen.of(format, group, parts.subList(1, parts.size()));
        var into = folder.resolve("out").resolve(group.code() + " " + parts.getFirst());
        var result = new Extraction(open)
                .write(
                        List.of(Extraction.Order.of(group, numbers, format, chosen)),
                        () -> Targets.open(new Delivery(Form.CHECKSUMS, Optional.empty()), into, "the phone", open),
                        onDisk -> {},
                        into,
                        done -> {},
                        new CancelToken());
        assertEquals(numbers.length, result.things(), group.code() + " " + how);
        return result;
    }

    private static List<Path> ending(ExtractResult result, String ending) {
        return result.files().stream()
                .filter(file -> file.toString().endsWith(ending))
                .toList();
    }

    private static long count(Phone open, ThingKind... kinds) throws IOException {
        var counts = open.catalogue().counts();
        long all = 0;
        for (var kind : kinds) {
            all += counts.getOrDefault(kind, 0L);
        }
        return all;
    }

    /** Python's own reader of tables shares nothing with the library that writes them. */
    private static long rows(Path csv) throws Exception {
        var script =
                "import csv, sys; print(sum(1 for row in csv.DictReader(open(sys.argv[1], encoding='utf-8', newline=''), strict=True)))";
        var process = new ProcessBuilder("python3", "-c", script, csv.toString())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        var output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertTrue(process.waitFor(60, TimeUnit.SECONDS) && process.exitValue() == 0, output);
        return Long.parseLong(output.strip());
    }

    private Catalogue catalogued(TreeFiles files) throws IOException {
        var identity =
                new PhoneIdentity("id", "n", files.family(), "m", "s", "i", "sys", "GB", ZoneId.of("Etc/GMT-1"), 1, 1);
        try (var place = PrivatePlace.open(folder.resolve("reading"));
                var phone = new PhoneFiles(files, identity, place)) {
            var draft = CatalogueDraft.inMemory(Optional.empty());
            draft.build(
                    CatalogueHead.of("id", 1, "GB"),
                    phone,
                    FamilyReaders.of(files.family()),
                    n -> {},
                    new CancelToken());
            return draft.handOver();
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = Family.class,
            names = {"OSTREL", "PELLOW"})
    void aPhoneComesOutWhole(Family family) throws Exception {
        var root = folder.resolve("phone");
        if (family == Family.OSTREL) {
            Phones.ostrel(root, 1, 30, OstrelStore.System.ELEVEN);
        } else {
            Phones.pellow(root, 1, 30, PellowStore.Base.NINE);
        }
        var files = new TreeFiles(root, family);
        try (var catalogue = catalogued(files)) {
            var open = new Phone(files, catalogue);
            conversations(open);
            originals(open);
            for (var group : KindGroup.values()) {
                if (open.of(group).length > 0) {
                    var table = ending(write(open, group, "csv"), ".csv").getFirst();
                    assertEquals(open.of(group).length, rows(table), group.code());
                }
            }
            var calendar = Biweekly.parse(ending(write(open, KindGroup.EVENTS, "icalendar"), ".ics")
                            .getFirst()
                            .toFile())
                    .first();
            assertEquals(count(open, ThingKind.EVENT), calendar.getEvents().size());
            assertEquals(count(open, ThingKind.TASK), calendar.getTodos().size());
            assertEquals(
                    count(open, ThingKind.NOTE),
                    ending(write(open, KindGroup.NOTES, "markdown"), ".md").size());
        }
    }

    private void conversations(Phone open) throws IOException {
        long messages = count(open, ThingKind.MESSAGE, ThingKind.MAIL);
        var result = write(open, KindGroup.MESSAGES, "page");
        long shown = 0;
        var missing = new ArrayList<String>();
        for (var file : ending(result, ".html")) {
            var page = Jsoup.parse(Files.readString(file));
            shown += page.select("article").size();
            page.select("[src], [href]").forEach(link -> {
                var to = link.hasAttr("src") ? link.attr("src") : link.attr("href");
                if (!Files.exists(
                        file.resolveSibling(URI.create("file:/" + to).getPath().substring(1)))) {
                    missing.add(to);
                }
            });
        }
        assertEquals(messages, shown);
        assertEquals(List.of(), missing);
    }

    /** Every file that the phone has comes out byte for byte. */
    private void originals(Phone open) throws IOException {
        var result = write(open, KindGroup.PICTURES, "originals:folders=phone");
        var root = folder.resolve("out/pictures originals/Pictures of the phone");
        var written =
                result.files().stream().filter(file -> file.startsWith(root)).toList();
        assertTrue(written.size() > 100, written.size() + " pictures");
        for (var file : written) {
            var item = new PhonePath(root.relativize(file).toString());
            assertEquals(open.files().facts(item).version(), Digests.of(Files.readAllBytes(file)), item.text());
        }
    }
}
