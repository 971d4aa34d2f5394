package app.custodex.facts;

import app.custodex.model.MediaFile.Fact;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.UnsupportedAudioFileException;
import org.apache.tika.detect.DefaultDetector;
import org.apache.tika.exception.TikaException;
import org.apache.tika.metadata.Metadata;
import org.apache.tika.metadata.Property;
import org.apache.tika.metadata.TikaCoreProperties;
import org.apache.tika.metadata.XMPDM;
import org.apache.tika.parser.ParseContext;
import org.apache.tika.parser.Parser;
import org.apache.tika.parser.mp3.Mp3Parser;
import org.apache.tika.parser.mp4.MP4Parser;
import org.gagravarr.flac.FlacFile;
import org.gagravarr.tika.OpusParser;
import org.gagravarr.tika.VorbisParser;
import org.jspecify.annotations.Nullable;
import org.xml.sax.SAXException;
import org.xml.sax.helpers.DefaultHandler;

/** Reads the tags and the length of a sound: ID3, Vorbis comments (RFC 7845, RFC 9639), and those of MP4. */
final class SoundFacts {
    /** AMR narrow band has 50 frames a second, each as long as its first byte says (RFC 4867 §5.3, 3GPP TS 26.101). */
    private static final int[] AMR_FRAME = {12, 13, 15, 17, 19, 20, 26, 31, 5, 0, 0, 0, 0, 0, 0, 0};

    private static final byte[] AMR = "#!AMR\n".getBytes(StandardCharsets.US_ASCII);

    private SoundFacts() {}

    static FileFacts read(InputStream stream, String name) throws IOException {
        try (var in = new BufferedInputStream(stream, 1 << 16)) {
            in.mark(AMR.length);
            if (Arrays.equals(in.readNBytes(AMR.length), AMR)) {
                return FileFacts.NONE.lasting(amr(in));
            }
            in.reset();
            if (AdtsFrames.begins(in)) {
                return FileFacts.NONE.lasting(AdtsFrames.length(in));
            }
            var metadata = new Metadata();
            metadata.set(TikaCoreProperties.RESOURCE_NAME_KEY, name);
            var type = new DefaultDetector().detect(in, metadata).toString();
            switch (type) {
                case "audio/x-flac", "audio/flac" -> {
                    return flac(in);
                }
                case "audio/vnd.wave", "audio/x-wav", "audio/wav", "audio/x-aiff", "audio/basic" -> {
                    return FileFacts.NONE.lasting(plain(in));
                }
                default -> {}
            }
            var parser = parser(type);
            if (parser.isEmpty()) {
                return FileFacts.NONE;
            }
            parser.get().parse(in, new DefaultHandler(), metadata, new ParseContext());
            return facts(metadata);
        } catch (TikaException | SAXException e) {
            throw new IOException(e);
        }
    }

    private static Optional<Parser> parser(String type) {
        return switch (type) {
            case "audio/mpeg" -> Optional.of(new Mp3Parser());
            case "audio/mp4", "audio/x-m4a", "video/mp4", "video/3gpp", "application/mp4" ->
                Optional.of(new MP4Parser());
            case "audio/vorbis", "audio/ogg", "application/ogg" -> Optional.of(new VorbisParser());
            case "audio/opus", "audio/ogg; codecs=opus" -> Optional.of(new OpusParser());
            default -> Optional.empty();
        };
    }

    private static FileFacts flac(InputStream in) throws IOException {
        try (var flac = FlacFile.open(in)) {
            var info = flac.getInfo();
            var tags = flac.getTags();
            var metadata = new Metadata();
            set(metadata, TikaCoreProperties.TITLE, tags.getTitle());
            set(metadata, XMPDM.ARTIST, tags.getArtist());
            set(metadata, XMPDM.ALBUM, tags.getAlbum());
            set(metadata, XMPDM.GENRE, tags.getGenre());
            set(metadata, XMPDM.TRACK_NUMBER, tags.getTrackNumber());
            set(metadata, XMPDM.RELEASE_DATE, tags.getDate());
            var facts = facts(metadata);
            return info.getSampleRate() <= 0
                    ? facts
                    : facts.lasting(Duration.ofMillis(info.getNumberOfSamples() * 1000 / info.getSampleRate()));
        }
    }

    private static void set(Metadata metadata, Property property, @Nullable String value) {
        if (value != null) {
            metadata.set(property.getName(), value);
        }
    }

    private static Duration plain(InputStream in) throws IOException {
        try {
            var format = AudioSystem.getAudioFileFormat(in);
            float rate = format.getFormat().getFrameRate();
            return rate <= 0 || format.getFrameLength() < 0
                    ? Duration.ZERO
                    : Duration.ofMillis(Math.round(format.getFrameLength() * 1000.0 / rate));
        } catch (UnsupportedAudioFileException e) {
            throw new IOException(e);
        }
    }

    private static Duration amr(InputStream in) throws IOException {
        long frames = 0;
        for (int head = in.read(); head >= 0; head = in.read()) {
            in.skipNBytes(AMR_FRAME[head >> 3 & 0xf]);
            frames++;
        }
        return Duration.ofMillis(20 * frames);
    }

    private static FileFacts facts(Metadata metadata) {
        var facts = new ArrayList<Fact>();
        for (var fact : Map.of(
                        "Artist", XMPDM.ARTIST, "Album", XMPDM.ALBUM, "Genre", XMPDM.GENRE, "Composer", XMPDM.COMPOSER)
                .entrySet()
                .stream()
                .sorted(Map.Entry.comparingByKey())
                .toList()) {
            text(metadata.get(fact.getValue())).ifPresent(value -> facts.add(new Fact(fact.getKey(), value)));
        }
        text(metadata.get(XMPDM.TRACK_NUMBER)).ifPresent(value -> facts.add(new Fact("Track", value)));
        text(metadata.get(XMPDM.RELEASE_DATE)).ifPresent(value -> facts.add(new Fact("Released", value)));
        return new FileFacts(
                text(metadata.get(TikaCoreProperties.TITLE)).orElse(""),
                Optional.empty(),
                Optional.empty(),
                length(metadata),
                facts,
                "");
    }

    private static Optional<String> text(@Nullable String value) {
        return value == null || value.isBlank() ? Optional.empty() : Optional.of(value.strip());
    }

    /** Seconds, as all of these parsers write them. */
    private static Optional<Duration> length(Metadata metadata) {
        return text(metadata.get(XMPDM.DURATION)).flatMap(written -> {
            try {
                double seconds = Double.parseDouble(written);
                return seconds >= 0 && seconds < 1e9
                        ? Optional.of(Duration.ofMillis(Math.round(seconds * 1000)))
                        : Optional.empty();
            } catch (NumberFormatException e) {
                return Optional.empty();
            }
        });
    }
}
