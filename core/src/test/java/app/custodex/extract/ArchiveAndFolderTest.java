package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.WrittenReader;
import app.custodex.media.MediaSamples;
import app.custodex.model.App;
import app.custodex.model.KindGroup;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;

/** Files in one archive, apps in folders, and notes as pages; archives are opened by the tar and unzip of the system. */
class ArchiveAndFolderTest extends ExtractionCase {
    private static String listed(String... command) throws IOException {
        return new String(MediaSamples.run(command), StandardCharsets.UTF_8);
    }

    @Test
    void anArchiveHoldsWhatThePhoneHasUnderItsOwnPaths() throws IOException {
        var tar = write(KindGroup.PICTURES, "tar");
        var file = tar.files().getFirst();
        assertEquals("roll/a.jpg\n", listed("tar", "-tf", file.toString()));
        assertEquals("roll/a.jpg", listed("tar", "-xOf", file.toString(), "roll/a.jpg"), "its content is its path");
        assertTrue(
                listed("tar", "--utc", "--full-time", "-tvf", file.toString()).contains("2025-11-14 20:04:00"));
        assertEquals(List.of("files that the phone does not have: 1"), tar.leftOut());
        assertEquals(1, tar.problems().size(), "what is unreadable is told, and the rest is there");
        var zip = write(KindGroup.PICTURES, "zip").files().getFirst();
        assertEquals("roll/a.jpg", listed("unzip", "-p", zip.toString(), "roll/a.jpg"));
    }

    @Test
    void longNamesInAnyScriptAndHostilePathsKeepTheirOwn() throws IOException {
        var phone = new WrittenReader(folder);
        var names = List.of("海/" + "å".repeat(120) + ".bin", "a b/= & ; $(x).bin");
        for (var name : names) {
            phone.write(name, file(name, ThingKind.FILE, "f", Optional.empty(), List.of(), 3));
        }
        try (var other = phone.catalogue(Optional.empty(), 1)) {
            for (var how : List.of("tar", "zip")) {
                var archive = Written.all(KindGroup.OTHER, how, other, folder.resolve(how))
                        .files()
                        .getFirst();
                var unpacked = Files.createDirectory(folder.resolve("in " + how));
                if (how.equals("tar")) {
                    listed("tar", "-C", unpacked.toString(), "-xf", archive.toString());
                } else {
                    listed("python3", "-m", "zipfile", "-e", archive.toString(), unpacked.toString());
                }
                for (var name : names) {
                    assertEquals(name, Files.readString(unpacked.resolve(name)), how);
                }
            }
        }
    }

    private static App app(String key, String title, App.Data data, String in) {
        return new App(id("installed", key), "", title, "example." + key, "4.1", 1_200, Optional.empty(), data, in);
    }

    @Test
    void eachAppHasAFolder() throws IOException {
        var phone = new WrittenReader(folder);
        phone.write(
                "installed",
                app("tides", "Tides/..", App.Data.HERE, "apps/tides"),
                app("lamp", "Lamp", App.Data.NOT_HERE, "apps/lamp"),
                app("lamp2", "Lamp", App.Data.NONE, ""));
        try (var other = phone.catalogue(Optional.empty(), 1)) {
            var result = Written.all(KindGroup.APPS, "folders", other, folder.resolve("out"));
            var files = byName(result);
            assertEquals(
                    List.of(
                            "Apps of a phone/Lamp (2)/About this app.txt",
                            "Apps of a phone/Lamp/About this app.txt",
                            "Apps of a phone/Tides/About this app.txt",
                            "Apps of a phone/Tides/Data/cache/b.db",
                            "Apps of a phone/Tides/Data/state.db"),
                    List.copyOf(files.keySet()));
            var about = Files.readString(files.get("Apps of a phone/Lamp/About this app.txt"));
            assertTrue(about.contains("Its data: " + App.Data.NOT_HERE.label()), about);
            var data = files.get("Apps of a phone/Tides/Data/state.db");
            assertEquals("apps/tides/state.db", Files.readString(data));
            assertEquals(
                    Instant.parse("2025-11-14T20:04:00Z"),
                    Files.getLastModifiedTime(data).toInstant());
        }
    }

    @Test
    void aNoteIsAPageWithItsPicture() throws IOException {
        var result = write(KindGroup.NOTES, "page");
        var file = result.files().stream()
                .filter(each -> each.toString().endsWith("Leak.html"))
                .findFirst()
                .orElseThrow();
        var page = Jsoup.parse(Files.readString(file));
        assertEquals("Leak", page.select("h1").text());
        assertEquals("Two planks up", page.select("p").text());
        assertTrue(page.select("small").text().contains("2025-11-14 21:04"), page.text());
        var picture = file.resolveSibling(page.select("img").attr("src"));
        assertEquals("notes/leak.jpg", Files.readString(picture));
        assertFalse(page.select("script").hasText());
        assertEquals(List.of(), result.leftOut());
    }
}
