package app.custodex.extract.originals;

import app.custodex.extract.Clean;
import app.custodex.extract.OutFolder;
import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** Playlists of files that were written, by their paths from the folder of the playlist. */
final class PlaylistFile {
    private PlaylistFile() {}

    /**
     * A file in a playlist.
     *
     * @param artist empty when that is not known
     * @param path with "/" between folders
     */
    record Entry(String artist, String title, Optional<Duration> length, String path) {}

    static Entry entry(Thing thing, String path) {
        var file = Optional.of(thing).filter(MediaFile.class::isInstance).map(MediaFile.class::cast);
        return new Entry(
                Clean.line(file.flatMap(of -> of.fact("Artist")).orElse("")),
                Clean.line(thing.title()),
                file.flatMap(MediaFile::length),
                path);
    }

    /** M3U in UTF-8: a length in seconds, then "artist - title"; common practice, no standard. */
    static void m3u8(String title, List<Entry> entries, OutFolder folder) throws IOException {
        folder.text(title, ".m3u8", text -> {
            text.write("#EXTM3U\n");
            for (var entry : entries) {
                long seconds = entry.length().map(Duration::toSeconds).orElse(-1L);
                var artist = entry.artist().isEmpty() ? "" : entry.artist() + " - ";
                text.write("#EXTINF:" + seconds + "," + artist + entry.title() + "\n" + entry.path() + "\n");
            }
        });
    }

    /** XSPF 1: lengths in milliseconds, places as URI references. */
    static void xspf(String title, List<Entry> entries, OutFolder folder) throws IOException {
        folder.file(
                title,
                ".xspf",
                out -> Xml.write(out, xml -> {
                    xml.writeStartElement("playlist");
                    xml.writeDefaultNamespace("http://xspf.org/ns/0/");
                    xml.writeAttribute("version", "1");
                    Xml.element(xml, "title", Clean.line(title));
                    xml.writeStartElement("trackList");
                    for (var entry : entries) {
                        xml.writeStartElement("track");
                        Xml.element(xml, "location", reference(entry.path()));
                        Xml.element(xml, "title", entry.title());
                        if (!entry.artist().isEmpty()) {
                            Xml.element(xml, "creator", entry.artist());
                        }
                        if (entry.length().isPresent()) {
                            Xml.element(
                                    xml,
                                    "duration",
                                    Long.toString(entry.length().get().toMillis()));
                        }
                        xml.writeEndElement();
                    }
                    xml.writeEndElement();
                    xml.writeEndElement();
                }));
    }

    private static String reference(String path) {
        try {
            return new URI(null, null, path, null).toASCIIString();
        } catch (URISyntaxException e) {
            throw new IllegalArgumentException(e);
        }
    }
}
