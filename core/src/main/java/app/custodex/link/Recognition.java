package app.custodex.link;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.apache.tika.metadata.Metadata;
import org.apache.tika.mime.MimeTypes;

/** Tells what a file is that lies anywhere: by its name as long as nothing else is known, and by its content. */
final class Recognition {
    /** Every mark that is looked for stands near the start; looking through more costs more than reading the file. */
    private static final int HEAD = 1 << 10;

    private static final int START = 16;

    /** By marks alone: detectors that open containers belong where files of strangers are parsed. */
    private static final MimeTypes MARKS = MimeTypes.getDefaultMimeTypes();

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
            Map.entry(".html", Kind.BOOKS),
            Map.entry(".htm", Kind.BOOKS),
            Map.entry(".xhtml", Kind.BOOKS),
            Map.entry(".doc", Kind.BOOKS),
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
            Map.entry(".aac", Kind.MUSIC),
            Map.entry(".flac", Kind.MUSIC),
            Map.entry(".ogg", Kind.MUSIC),
            Map.entry(".wav", Kind.MUSIC),
            Map.entry(".opus", Kind.MEMOS),
            Map.entry(".amr", Kind.MEMOS));

    /** Types that say what a file is whatever it is called. */
    private static final Map<String, Kind> BY_TYPE =
            Map.of("application/epub+zip", Kind.BOOKS, "audio/amr", Kind.MEMOS, "audio/opus", Kind.MEMOS);

    private static final Set<String> SAYS_LITTLE = Set.of("application/octet-stream", "application/zip");

    private Recognition() {}

    static Kind byName(PhonePath file) {
        return BY_ENDING.getOrDefault(file.ending(), Kind.OTHER);
    }

    /**
     * How files of a kind begin, by the published descriptions of their formats. Asking the library for each file costs more than
     * copying it, so it is asked only about containers that may hold anything.
     */
    private static final Map<String, Kind> BY_START = Map.ofEntries(
            Map.entry("\u00ff\u00d8\u00ff", Kind.PHOTOS), // JPEG, ITU-T T.81
            Map.entry("\u0089PNG\r\n\u001a\n", Kind.PHOTOS), // ISO/IEC 15948
            Map.entry("GIF8", Kind.PHOTOS), // GIF89a specification
            Map.entry("II*\0", Kind.PHOTOS), // TIFF 6.0
            Map.entry("MM\0*", Kind.PHOTOS),
            Map.entry("%PDF-", Kind.BOOKS), // ISO 32000
            Map.entry("BEGIN:VCARD", Kind.CONTACTS), // RFC 6350
            Map.entry("BEGIN:VCALENDAR", Kind.CALENDARS), // RFC 5545
            Map.entry("<!DOCTYPE NETSCA", Kind.WEB), // bookmarks as browsers exchange them; common practice
            Map.entry("#!AMR", Kind.MEMOS), // RFC 4867
            Map.entry("fLaC", Kind.MUSIC), // RFC 9639
            Map.entry("ID3", Kind.MUSIC)); // ID3 version 2

    /** Matroska (RFC 9559), ZIP, RIFF, Ogg (RFC 3533). */
    private static final List<String> CONTAINERS = List.of("\u001aE\u00df\u00a3", "PK\u0003\u0004", "RIFF", "OggS");

    /** Of the ISO base media format (ISO/IEC 14496-12): pictures, sound and films, from the fifth byte on. */
    private static final String ISO_MEDIA = "ftyp";

    /** @param content the whole of the file, or its beginning */
    static Kind byContent(PhonePath file, byte[] content) {
        var start = new String(content, 0, Math.min(content.length, START), StandardCharsets.ISO_8859_1);
        for (var known : BY_START.entrySet()) {
            if (start.startsWith(known.getKey())) {
                return known.getValue();
            }
        }
        boolean container =
                start.startsWith(ISO_MEDIA, 4) || CONTAINERS.stream().anyMatch(start::startsWith);
        return container && !BY_ENDING.containsKey(file.ending()) ? byLibrary(file, content) : byName(file);
    }

    private static Kind byLibrary(PhonePath file, byte[] content) {
        var type = type(content.length > HEAD ? Arrays.copyOf(content, HEAD) : content);
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

    private static String type(byte[] head) {
        try {
            return MARKS.detect(new ByteArrayInputStream(head), new Metadata()).toString();
        } catch (IOException e) {
            throw new UncheckedIOException(e); // bytes can be read
        }
    }
}
