package app.custodex.readers.files;

import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Bookmark;
import app.custodex.model.Moment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;

/** Reads bookmarks in the HTML form that browsers exchange: lists in lists, a heading above each folder. */
public final class BookmarkFiles extends FileReader {
    public BookmarkFiles() {
        super("bookmarks", Set.of(Kind.WEB), Set.of(".html", ".htm"), Set.of(ThingKind.BOOKMARK));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        int number = 0;
        try (var in = phone.open(path)) {
            for (var link : Jsoup.parse(in, StandardCharsets.UTF_8.name(), "").select("a[href]")) {
                sink.thing(new Bookmark(
                        new ThingId(path.text(), Integer.toString(number++)),
                        "",
                        link.text(),
                        link.attr("href"),
                        folder(link),
                        "true".equals(link.attr("later")),
                        added(link.attr("add_date"))));
            }
        }
    }

    private static String folder(Element link) {
        return link.parents().stream()
                .filter(parent -> parent.nameIs("dl"))
                .flatMap(list -> heading(list).stream())
                .collect(
                        Collectors.collectingAndThen(Collectors.toList(), names -> String.join("/", names.reversed())));
    }

    /** The heading stands before the list, or as the last thing of the item before it. */
    private static Optional<String> heading(Element list) {
        for (var before = list.previousElementSibling(); before != null; before = before.previousElementSibling()) {
            if (before.nameIs("h3")) {
                return Optional.of(before.text());
            }
        }
        var parent = list.parent();
        return parent != null && parent.nameIs("dt")
                ? parent.children().stream()
                        .filter(child -> child.nameIs("h3"))
                        .map(Element::text)
                        .findFirst()
                : Optional.empty();
    }

    /** Seconds since 1970, as browsers write them. */
    private static Optional<Moment> added(String text) {
        return text.matches("\\d{1,11}")
                ? Optional.of(Moment.at(Instant.ofEpochSecond(Long.parseLong(text))))
                : Optional.empty();
    }
}
