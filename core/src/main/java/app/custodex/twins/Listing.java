package app.custodex.twins;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.twins.OnlyHere.Song;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemNotFoundException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;

/** A playlist on this computer: extended M3U, or XSPF 1 (xspf.org/spec). */
record Listing(List<Track> tracks) {
    /** A list of a hostile length is not read to its end. */
    private static final int MOST = 100_000;

    private static final long LARGEST = 64L << 20;

    /**
     * One entry.
     *
     * @param file where it would be on this computer
     * @param song what the list itself says of it
     */
    record Track(Optional<Path> file, Optional<Song> song) {}

    static Listing read(Path list) throws IOException {
        var name = list.getFileName().toString().toLowerCase(Locale.ROOT);
        try {
            if (Files.size(list) <= LARGEST && name.endsWith(".xspf")) {
                return new Listing(xspf(list));
            }
            if (Files.size(list) <= LARGEST && (name.endsWith(".m3u") || name.endsWith(".m3u8"))) {
                return new Listing(m3u(list));
            }
        } catch (XMLStreamException | NumberFormatException damaged) {
            throw new ProblemException(
                    Problem.failure(list.toString(), "The playlist is damaged", "Export it anew from its program"),
                    damaged);
        }
        throw new ProblemException(Problem.failure(
                list.toString(), "It is no playlist that can be read", "Choose an M3U or XSPF file, or a folder"));
    }

    private static List<Track> m3u(Path list) throws IOException {
        var tracks = new ArrayList<Track>();
        var song = Optional.<Song>empty();
        // Not every program writes UTF-8: what is none is read all the same, with marks in its place.
        var text = new String(Files.readAllBytes(list), StandardCharsets.UTF_8);
        for (var written : text.replace("\ufeff", "").split("\\R")) {
            var line = written.strip();
            if (line.startsWith("#EXTINF:")) {
                song = said(line.substring("#EXTINF:".length()), list);
            } else if (!line.isEmpty() && !line.startsWith("#") && tracks.size() < MOST) {
                tracks.add(new Track(file(list, line), song));
                song = Optional.empty();
            }
        }
        return tracks;
    }

    /** Seconds, then artist and title with " - " between them. */
    private static Optional<Song> said(String line, Path list) {
        int comma = line.indexOf(',');
        int dash = line.indexOf(" - ");
        var seconds = line.substring(0, Math.max(0, comma)).strip().split("\\s+")[0];
        if (comma < 0 || dash < comma || !seconds.matches("\\d{1,6}(\\.\\d{1,6})?")) {
            return Optional.empty();
        }
        return song(
                line.substring(comma + 1, dash),
                line.substring(dash + 3),
                Duration.ofMillis(Math.round(Double.parseDouble(seconds) * 1000)),
                list);
    }

    private static Optional<Song> song(String artist, String title, Duration length, Path list) {
        return artist.isBlank() || title.isBlank() || length.isZero()
                ? Optional.empty()
                : Optional.of(new Song(FileTwins.known(artist, title), length, list.toString()));
    }

    private static List<Track> xspf(Path list) throws IOException, XMLStreamException {
        var tracks = new ArrayList<Track>();
        // A stranger's file may name other files and addresses: nothing of that is opened.
        var factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (var in = Files.newInputStream(list)) {
            var xml = factory.createXMLStreamReader(in);
            boolean inTrack = false;
            var file = Optional.<Path>empty();
            var artist = "";
            var title = "";
            var length = Duration.ZERO;
            while (xml.hasNext() && tracks.size() < MOST) {
                int event = xml.next();
                if (event == XMLStreamConstants.START_ELEMENT) {
                    switch (xml.getLocalName()) {
                        case "track" -> {
                            inTrack = true;
                            file = Optional.empty();
                            artist = "";
                            title = "";
                            length = Duration.ZERO;
                        }
                        case "location" ->
                            file = inTrack ? located(list, xml.getElementText().strip()) : file;
                        case "creator" -> artist = inTrack ? xml.getElementText() : "";
                        case "title" -> title = inTrack ? xml.getElementText() : "";
                        case "duration" ->
                            length = Duration.ofMillis(
                                    Long.parseLong(xml.getElementText().strip()));
                        default -> {}
                    }
                } else if (event == XMLStreamConstants.END_ELEMENT
                        && xml.getLocalName().equals("track")) {
                    inTrack = false;
                    tracks.add(new Track(file, song(artist, title, length, list)));
                }
            }
        }
        return tracks;
    }

    /** A location is a URI, in which spaces and the like are escaped. */
    private static Optional<Path> located(Path list, String written) {
        try {
            var uri = URI.create(written);
            return file(list, uri.getScheme() == null ? uri.getPath() : written);
        } catch (IllegalArgumentException noUri) {
            return file(list, written);
        }
    }

    /** Where an entry lies, seen from the list; empty for what is no file of this computer. */
    private static Optional<Path> file(Path list, String written) {
        try {
            if (written.startsWith("file:")) {
                return Optional.of(Path.of(URI.create(written)));
            }
            if (written.matches("[A-Za-z][A-Za-z0-9+.-]+://.*")) {
                return Optional.empty();
            }
            return Optional.of(list.toAbsolutePath().resolveSibling(written.replace('\\', '/')));
        } catch (IllegalArgumentException | FileSystemNotFoundException none) {
            return Optional.empty();
        }
    }
}
