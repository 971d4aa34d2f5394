package app.custodex.practice.content;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.List;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** A small book that somebody on the island wrote (EPUB 3). */
final class Booklet {
    private record Chapter(String title, List<String> paragraphs) {}

    private static final List<Chapter> CHAPTERS = List.of(
            new Chapter(
                    "The first light",
                    List.of(
                            "Before the tower stood, a lantern hung at Nordvoe, and whoever came home last put it out.",
                            "In some winters it burned for three nights on end, and the whole island took turns.")),
            new Chapter(
                    "The second light",
                    List.of(
                            "The tower was built in two summers, of stone from Easter Geo. The boats brought it round at slack water.",
                            "Nobody agreed on the colour of the beam until it was lit.")),
            new Chapter("The keepers", List.of("Nine keepers are known by name. The tenth only left a kettle.")));

    private Booklet() {}

    static void write(Path target, LocalDateTime modified) throws IOException {
        Files.createDirectories(target.getParent());
        try (var zip = new ZipOutputStream(Files.newOutputStream(target))) {
            stored(zip, "mimetype", "application/epub+zip", modified); // EPUB 3.3, OCF 4.2: first, and not packed
            put(zip, "META-INF/container.xml", """
                    <?xml version="1.0"?><container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container">
                    <rootfiles><rootfile full-path="book.opf" media-type="application/oebps-package+xml"/></rootfiles></container>
                    """, modified);
            var items = new StringBuilder();
            var spine = new StringBuilder();
            for (int i = 0; i < CHAPTERS.size(); i++) {
                items.append("<item id='c%d' href='c%d.xhtml' media-type='application/xhtml+xml'/>".formatted(i, i));
                spine.append("<itemref idref='c%d'/>".formatted(i));
                put(zip, "c" + i + ".xhtml", page(CHAPTERS.get(i)), modified);
            }
            put(zip, "book.opf", """
                    <?xml version="1.0"?><package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id">
                    <metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="id">skerrow-two-lights</dc:identifier>
                    <dc:title>The two lights</dc:title><dc:creator>Maren Quill</dc:creator><dc:language>en</dc:language></metadata>
                    <manifest>%s</manifest><spine>%s</spine></package>
                    """.formatted(items, spine), modified);
        }
        Clips.stamp(target, modified);
    }

    private static String page(Chapter chapter) {
        var page = new StringBuilder("<?xml version=\"1.0\"?><html xmlns=\"http://www.w3.org/1999/xhtml\"><head><title>"
                + chapter.title() + "</title></head><body><h1>" + chapter.title() + "</h1>");
        chapter.paragraphs().forEach(text -> page.append("<p>").append(text).append("</p>"));
        return page.append("</body></html>").toString();
    }

    private static void stored(ZipOutputStream zip, String name, String text, LocalDateTime at) throws IOException {
        var bytes = text.getBytes(StandardCharsets.UTF_8);
        var sum = new CRC32();
        sum.update(bytes);
        var entry = entry(name, at);
        entry.setMethod(ZipEntry.STORED);
        entry.setSize(bytes.length);
        entry.setCrc(sum.getValue());
        zip.putNextEntry(entry);
        zip.write(bytes);
    }

    private static void put(ZipOutputStream zip, String name, String text, LocalDateTime at) throws IOException {
        zip.putNextEntry(entry(name, at));
        zip.write(text.strip().getBytes(StandardCharsets.UTF_8));
    }

    /** The same book each time: no clock of today gets into it. */
    private static ZipEntry entry(String name, LocalDateTime at) {
        var entry = new ZipEntry(name);
        entry.setTimeLocal(at);
        return entry;
    }
}
