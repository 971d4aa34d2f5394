package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Custodex;
import app.custodex.app.Mandate;
import app.custodex.base.Json;
import app.custodex.model.Contact;
import app.custodex.twins.Merge;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A whole layer, and some of it, in open files. */
class ExtractTest extends CommandTest {
    private static final String PHONE = "Fenna's phone";

    @TempDir
    Path out;

    private List<String> names(Path of) throws IOException {
        try (var files = Files.list(of)) {
            return files.map(file -> file.getFileName().toString()).sorted().toList();
        }
    }

    @Test
    void aWholeLayerComesOutGroupByGroup() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        var ended = runOwn("extract", PHONE, "--to", out.toString(), "--json");
        assertTrue(ended.code() == 0 || ended.code() == 3, ended.err());
        var result = Json.PAGE.readTree(ended.out());
        assertTrue(result.get("things").asInt() > 1_000, ended.out());
        var names = names(out);
        for (var wanted : List.of(
                "Messages of Fenna's phone",
                "Pictures of Fenna's phone",
                "Contacts of Fenna's phone.vcf",
                "Calls of Fenna's phone.xlsx",
                "Events of Fenna's phone.ics")) {
            assertTrue(names.contains(wanted), names.toString());
        }
        for (var file : result.get("files")) {
            assertTrue(Files.exists(Path.of(URI.create(file.asText()))), file.asText());
        }
    }

    @Test
    void someOfItComesOutAsItIsWished() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        var messages = doneOwn("list", PHONE, "--kind", "message", "--person", "Halvard Rook", "--from", "2025-01-01");
        long count = messages.out().lines().count();
        doneOwn(
                "extract",
                PHONE,
                "--to",
                out.toString(),
                "--as",
                "messages=csv",
                "--kind",
                "message",
                "--person",
                "Halvard Rook",
                "--from",
                "2025-01-01",
                "--zone",
                "UTC");
        var table = Files.readString(out.resolve("Messages of Fenna's phone.csv"));
        assertTrue(table.startsWith("Time (UTC),"), table.substring(0, 60));
        assertTrue(count > 2);
        assertEquals(
                count,
                table.lines()
                        .filter(line -> line.endsWith("messages.db#" + line.replaceAll(".*#", "")))
                        .count());

        assertCode(1, "There is no such group", runOwn("extract", PHONE, "--to", out.toString(), "--as", "cats=csv"));
        assertCode(
                1,
                "Choose among vcard4, vcard3",
                runOwn("extract", PHONE, "--to", out.toString(), "--as", "contacts=x"));
        assertCode(
                1,
                "Choose among files=one, files=account, file-each=no, file-each=yes",
                runOwn("extract", PHONE, "--to", out.toString(), "--as", "contacts=vcard4:colour"));
        assertCode(1, "no such time zone", runOwn("extract", PHONE, "--to", out.toString(), "--zone", "Moon"));
        assertEquals(List.of("Left out of Fenna's phone.txt", "Messages of Fenna's phone.csv"), names(out));
    }

    @Test
    void contactsComeOutMergedAndInTheColumnsThatWereNamed() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        List<String> merged;
        try (var custodex = Custodex.open(home(), Clock.systemUTC())) {
            custodex.rememberColumns("At the counter", "telephones+name");
            var phone = custodex.strongroom().holdings().phones().getFirst().identity();
            try (var open = custodex.reading().open(Mandate.ofShop(), phone.identifier(), 1, Locale.ROOT)) {
                var two = open.contacts().ascending().subList(0, 2);
                merged = two.stream().map(Contact::title).toList();
                var settled = new Merge(two.stream().map(Contact::id).toList(), Set.of());
                custodex.trays().saveMerges(open, List.of(settled));
            }
        }
        var columns = "contacts=csv:columns=@At the counter";
        doneOwn("extract", PHONE, "--to", out.toString(), "--as", columns);
        doneOwn("extract", PHONE, "--to", out.toString(), "--as", columns, "--merged");
        var apart = Files.readAllLines(out.resolve("Contacts of Fenna's phone.csv"));
        var asOne = Files.readAllLines(out.resolve("Contacts of Fenna's phone (2).csv"));
        assertTrue(apart.getFirst().matches("\\W?Telephone.*Name"), apart.getFirst());
        assertEquals(apart.size() - 1, asOne.size());
        assertTrue(asOne.get(1).endsWith(merged.getFirst()) || asOne.get(1).endsWith(merged.getLast()), asOne.get(1));
        assertCode(
                1,
                "Choose among At the counter",
                runOwn("extract", PHONE, "--to", out.toString(), "--as", "contacts=csv:columns=@Mine"));
    }

    @Test
    void oneFileUnderAPassphraseIsRememberedOnTheDocket() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        var words = "lantern orbit meadow cinder";
        secrets(words, words);
        doneOwn(
                "extract",
                PHONE,
                "--to",
                out.toString(),
                "--package",
                "sealed",
                "--secrets-stdin",
                "--as",
                "messages=pdf:evidence:black-out=Halvard Rook");
        assertEquals(1, names(out).size(), "nothing lies beside it");
        assertTrue(names(out).getFirst().endsWith(".zip.age"), names(out).toString());
        assertCode(1, "There is no such package", runOwn("extract", PHONE, "--to", out.toString(), "--package", "box"));
        secrets("summer1", "summer1");
        assertCode(
                1,
                "This passphrase would fall in",
                runOwn("extract", PHONE, "--to", out.toString(), "--package", "sealed", "--secrets-stdin"));

        assertTrue(formats("--group", "messages").contains("\t:black-out=WORDS\t"));
    }

    @Test
    void theFormatsAreListedWithTheirChoices() {
        var listed = formats("--group", "contacts");
        assertTrue(listed.startsWith("contacts=vcard4\t"), listed);
        assertTrue(listed.contains("\t:file-each=no|yes\t"), listed);
        assertTrue(formats().contains("pictures=geojson\t"), "every group");
    }

    private static String formats(String... options) {
        var out = new StringWriter();
        var words = Stream.concat(Stream.of("formats"), Stream.of(options)).toArray(String[]::new);
        assertEquals(0, Main.run(new PrintWriter(out), new PrintWriter(out), words));
        return out.toString();
    }
}
