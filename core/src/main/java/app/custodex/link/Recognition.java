package app.custodex.link;

import java.util.Arrays;
import java.util.Map;
import java.util.Set;
import org.apache.tika.Tika;

/** Tells what a file is that lies anywhere: by its name as long as nothing else is known, and by its content. */
final class Recognition {
    /** Enough for every mark that is looked for. */
    private static final int HEAD = 1 << 16;

    private static final Tika TIKA = new Tika();

    private static final Map<String, Kind> BY_ENDING = Map.ofEntries(
            Map.entry(".vcf", Kind.CONTACTS),
            Map.entry(".vcard", Kind.CONTACTS),
            Map.entry(".ics", Kind.CALENDARS),
            Map.entry(".mbox", Kind.CONVERSATIONS),
            Map.entry(".eml", Kind.CONVERSATIONS),
            Map.entry(".md", Kind.NOTES),
            Map.entry(".csv", Kind.BOOKS),
            Map.entry(".pdf", Kind.BOOKS),
            Map.entry(".epub", Kind.BOOKS),
            Map.entry(".txt", Kind.BOOKS),
            Map.entry(".rtf", Kind.BOOKS),
            Map.entry(".odt", Kind.BOOKS),
            Map.entry(".ods", Kind.BOOKS),
            Map.entry(".docx", Kind.BOOKS),
            Map.entry(".xlsx", Kind.BOOKS),
            Map.entry(".jpg", Kind.PHOTOS),
            Map.entry(".jpeg", Kind.PHOTOS),
            Map.entry(".png", Kind.PHOTOS),
            Map.entry(".gif", Kind.PHOTOS),
            Map.entry(".webp", Kind.PHOTOS),
            Map.entry(".heic", Kind.PHOTOS),
            Map.entry(".heif", Kind.PHOTOS),
            Map.entry(".avif", Kind.PHOTOS),
            Map.entry(".tif", Kind.PHOTOS),
            Map.entry(".tiff", Kind.PHOTOS),
            Map.entry(".dng", Kind.PHOTOS),
            Map.entry(".mp4", Kind.VIDEOS),
            Map.entry(".m4v", Kind.VIDEOS),
            Map.entry(".mov", Kind.VIDEOS),
            Map.entry(".3gp", Kind.VIDEOS),
            Map.entry(".mkv", Kind.VIDEOS),
            Map.entry(".webm", Kind.VIDEOS),
            Map.entry(".avi", Kind.VIDEOS),
            Map.entry(".mp3", Kind.MUSIC),
            Map.entry(".m4a", Kind.MUSIC),
            Map.entry(".flac", Kind.MUSIC),
            Map.entry(".ogg", Kind.MUSIC),
            Map.entry(".wav", Kind.MUSIC),
            Map.entry(".opus", Kind.MEMOS),
            Map.entry(".amr", Kind.MEMOS));

    /** Types that say what a file is whatever it is called; "text/plain" and the like say too little. */
    private static final Map<String, Kind> BY_TYPE = Map.of(
            "text/vcard", Kind.CONTACTS,
            "text/x-vcard", Kind.CONTACTS,
            "text/calendar", Kind.CALENDARS,
            "application/mbox", Kind.CONVERSATIONS,
            "message/rfc822", Kind.CONVERSATIONS,
            "application/pdf", Kind.BOOKS,
            "application/epub+zip", Kind.BOOKS,
            "text/csv", Kind.BOOKS,
            "audio/amr", Kind.MEMOS,
            "audio/opus", Kind.MEMOS);

    private static final Set<String> SAYS_LITTLE =
            Set.of("application/octet-stream", "text/plain", "application/zip", "application/gzip");

    private Recognition() {}

    static Kind byName(PhonePath file) {
        return BY_ENDING.getOrDefault(file.ending(), Kind.OTHER);
    }

    /** @param content the whole of the file, or its beginning */
    static Kind byContent(PhonePath file, byte[] content) {
        var head = content.length > HEAD ? Arrays.copyOf(content, HEAD) : content;
        var type = TIKA.detect(head);
        if (SAYS_LITTLE.contains(type)) {
            return byName(file);
        }
        var known = BY_TYPE.get(type);
        if (known != null) {
            return known;
        }
        return switch (type.substring(0, type.indexOf('/'))) {
            case "image" -> Kind.PHOTOS;
            case "video" -> Kind.VIDEOS;
            case "audio" -> Kind.MUSIC;
            default -> byName(file);
        };
    }
}
