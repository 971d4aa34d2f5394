package app.custodex.readers.files;

import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Playlist;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Optional;
import java.util.Set;

/** Reads playlists: a file or address a line, with its title in a line before it (the form that RFC 8216 §4 builds on). */
public final class PlaylistFiles extends FileReader {
    /** More tracks than anybody puts in order. */
    private static final int MOST = 100_000;

    public PlaylistFiles() {
        super("playlists", Set.of(Kind.OTHER, Kind.MUSIC), Set.of(".m3u8", ".m3u"), Set.of(ThingKind.PLAYLIST));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        var tracks = new ArrayList<Attachment>();
        var name = path.name().replaceFirst("\\.m3u8?$", "");
        var title = "";
        try (var in = new BufferedReader(new InputStreamReader(phone.open(path), StandardCharsets.UTF_8))) {
            for (var line = in.readLine(); line != null && tracks.size() < MOST; line = in.readLine()) {
                var text = line.replace("\ufeff", "").strip();
                if (text.startsWith("#EXTINF:")) {
                    int comma = text.indexOf(',');
                    title = comma < 0 ? "" : text.substring(comma + 1).strip();
                } else if (text.startsWith("#PLAYLIST:")) {
                    name = text.substring("#PLAYLIST:".length()).strip();
                } else if (!text.isEmpty() && !text.startsWith("#")) {
                    tracks.add(new Attachment(item(path, text, phone).orElse(""), title.isEmpty() ? text : title, ""));
                    title = "";
                }
            }
        }
        sink.thing(new Playlist(new ThingId(path.text(), ""), "", name, tracks));
    }

    /** The item that a line means, if the phone has it: from where the list lies, or from the top. */
    private static Optional<String> item(PhonePath list, String line, PhoneFiles phone) throws IOException {
        var written = line.replace('\\', '/').replaceFirst("^file://", "");
        for (var each : new String[] {written, decoded(written)}) {
            for (var base :
                    new String[] {each.startsWith("/") ? "" : list.parent().text(), ""}) {
                var path = normal(base, each).flatMap(PhonePath::parse);
                if (path.isPresent() && phone.files().has(path.get())) {
                    return path.map(PhonePath::text);
                }
            }
        }
        return Optional.empty();
    }

    private static String decoded(String text) {
        try {
            return URLDecoder.decode(text.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            return text;
        }
    }

    /** Empty when it leads out of the phone. */
    private static Optional<String> normal(String base, String text) {
        var parts = new ArrayList<String>();
        for (var part : (base + "/" + text).split("/")) {
            if (part.equals("..")) {
                if (parts.isEmpty()) {
                    return Optional.empty();
                }
                parts.removeLast();
            } else if (!part.isEmpty() && !part.equals(".")) {
                parts.add(part);
            }
        }
        return parts.isEmpty() ? Optional.empty() : Optional.of(String.join("/", parts));
    }
}
