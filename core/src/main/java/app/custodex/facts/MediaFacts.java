package app.custodex.facts;

import app.custodex.model.MediaFile.Fact;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Moment;
import com.drew.imaging.FileType;
import com.drew.imaging.FileTypeDetector;
import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.lang.GeoLocation;
import com.drew.metadata.Directory;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifDirectoryBase;
import com.drew.metadata.exif.ExifIFD0Directory;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import com.drew.metadata.exif.GpsDirectory;
import com.drew.metadata.iptc.IptcDirectory;
import com.drew.metadata.mov.QuickTimeDirectory;
import com.drew.metadata.mov.media.QuickTimeVideoDirectory;
import com.drew.metadata.mp4.Mp4Directory;
import com.drew.metadata.mp4.media.Mp4VideoDirectory;
import com.drew.metadata.xmp.XmpDirectory;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Date;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Reads what a picture or video says of itself, by EXIF 2.32, XMP and IPTC, and by ISO/IEC 14496-12. */
final class MediaFacts {
    private static final DateTimeFormatter EXIF_TIME = DateTimeFormatter.ofPattern("uuuu:MM:dd HH:mm:ss", Locale.ROOT);
    private static final Set<String> WIDTH = Set.of("Image Width", "Width");
    private static final Set<String> HEIGHT = Set.of("Image Height", "Height");

    private MediaFacts() {}

    /**
     * A file of a form that is not known here says nothing, which is no fault of the file.
     *
     * @throws IOException when the file is damaged
     */
    static FileFacts read(InputStream stream) throws IOException {
        Metadata metadata;
        try (var in = new BufferedInputStream(stream, 1 << 16)) {
            in.mark(Integer.BYTES);
            var start = in.readNBytes(Integer.BYTES);
            in.reset();
            if (MatroskaFacts.begins(start)) {
                return MatroskaFacts.read(in);
            }
            if (FileTypeDetector.detectFileType(in) == FileType.Unknown) {
                return FileFacts.NONE;
            }
            metadata = ImageMetadataReader.readMetadata(in);
        } catch (ImageProcessingException e) {
            throw new IOException(e);
        }
        var facts = new ArrayList<Fact>();
        size(metadata).ifPresent(size -> facts.add(new Fact("Size", size)));
        camera(metadata).ifPresent(camera -> facts.add(new Fact("Camera", camera)));
        orientation(metadata).ifPresent(turned -> facts.add(new Fact("Orientation", turned)));
        caption(metadata).ifPresent(caption -> facts.add(new Fact("Caption", caption)));
        codec(metadata).ifPresent(codec -> facts.add(new Fact("Codec", codec)));
        return new FileFacts("", taken(metadata), place(metadata), length(metadata), facts, "");
    }

    private static Optional<Moment> taken(Metadata metadata) {
        for (var exif : metadata.getDirectoriesOfType(ExifSubIFDDirectory.class)) {
            var written = exif.getString(ExifDirectoryBase.TAG_DATETIME_ORIGINAL);
            if (written == null) {
                continue;
            }
            try {
                var local = LocalDateTime.parse(written.strip(), EXIF_TIME);
                return Optional.of(zone(exif)
                        .<Moment>map(zone -> new Moment.At(local.toInstant(zone), Optional.of(zone)))
                        .orElse(new Moment.Floating(local)));
            } catch (DateTimeException impossible) {
                return Optional.empty();
            }
        }
        // Counted from 1904; zero means that the camera had no clock.
        return film(metadata)
                .flatMap(film -> Optional.ofNullable(film.getDate(Mp4Directory.TAG_CREATION_TIME)))
                .map(Date::toInstant)
                .filter(made -> made.getEpochSecond() > 0)
                .map(Moment::at);
    }

    /** What the whole of a film says; the numbers of its tags are the same in QuickTime and in MP4, which came out of it. */
    private static Optional<Directory> film(Metadata metadata) {
        return Stream.<Class<? extends Directory>>of(Mp4Directory.class, QuickTimeDirectory.class)
                .flatMap(type -> metadata.getDirectoriesOfType(type).stream())
                .filter(film -> film.containsTag(Mp4Directory.TAG_DURATION))
                .<Directory>map(film -> film)
                .findFirst();
    }

    private static Optional<ZoneOffset> zone(Directory exif) {
        var written = exif.getString(ExifDirectoryBase.TAG_TIME_ZONE_ORIGINAL);
        try {
            return written == null ? Optional.empty() : Optional.of(ZoneOffset.of(written.strip()));
        } catch (DateTimeException unknown) {
            return Optional.empty();
        }
    }

    private static Optional<Place> place(Metadata metadata) {
        return metadata.getDirectoriesOfType(GpsDirectory.class).stream()
                .map(GpsDirectory::getGeoLocation)
                .filter(Objects::nonNull)
                .filter(where -> !where.isZero())
                .map(MediaFacts::place)
                .findFirst();
    }

    private static Place place(GeoLocation where) {
        return new Place(where.getLatitude(), where.getLongitude());
    }

    private static Optional<Duration> length(Metadata metadata) {
        var film = film(metadata);
        if (film.isEmpty()) {
            return Optional.empty();
        }
        var length = film.get().getLongObject(Mp4Directory.TAG_DURATION);
        var scale = film.get().getLongObject(Mp4Directory.TAG_TIME_SCALE);
        return length == null || scale == null || scale <= 0 || length < 0
                ? Optional.empty()
                : Optional.of(Duration.ofMillis(Math.round(length * 1000.0 / scale)));
    }

    private static Optional<String> size(Metadata metadata) {
        return number(metadata, WIDTH).flatMap(width -> number(metadata, HEIGHT).map(height -> width + " × " + height));
    }

    /** The largest that any directory tells: small ones are those of previews. */
    private static Optional<Long> number(Metadata metadata, Set<String> names) {
        long largest = 0;
        for (var directory : metadata.getDirectories()) {
            for (var tag : directory.getTags()) {
                if (names.contains(tag.getTagName())) {
                    var number = directory.getLongObject(tag.getTagType());
                    largest = Math.max(largest, number == null ? 0 : number);
                }
            }
        }
        return largest == 0 ? Optional.empty() : Optional.of(largest);
    }

    private static Optional<String> text(Metadata metadata, Class<? extends Directory> of, int tag) {
        return metadata.getDirectoriesOfType(of).stream()
                .flatMap(directory -> Optional.ofNullable(directory.getString(tag)).stream())
                .map(String::strip)
                .filter(text -> !text.isEmpty())
                .findFirst();
    }

    private static Optional<String> codec(Metadata metadata) {
        return text(metadata, Mp4VideoDirectory.class, Mp4VideoDirectory.TAG_COMPRESSION_TYPE)
                .or(() -> text(metadata, QuickTimeVideoDirectory.class, QuickTimeVideoDirectory.TAG_COMPRESSION_TYPE));
    }

    private static Optional<String> camera(Metadata metadata) {
        var make = text(metadata, ExifIFD0Directory.class, ExifDirectoryBase.TAG_MAKE)
                .orElse("");
        var model = text(metadata, ExifIFD0Directory.class, ExifDirectoryBase.TAG_MODEL)
                .orElse("");
        var camera = model.startsWith(make) ? model : (make + " " + model).strip();
        return camera.isEmpty() ? Optional.empty() : Optional.of(camera);
    }

    private static Optional<String> orientation(Metadata metadata) {
        return metadata.getDirectoriesOfType(ExifIFD0Directory.class).stream()
                .flatMap(exif -> Optional.ofNullable(exif.getInteger(ExifDirectoryBase.TAG_ORIENTATION)).stream())
                .filter(turned -> turned > 1 && turned <= 8)
                .map(String::valueOf)
                .findFirst();
    }

    private static Optional<String> caption(Metadata metadata) {
        return text(metadata, ExifIFD0Directory.class, ExifDirectoryBase.TAG_IMAGE_DESCRIPTION)
                .or(() -> text(metadata, IptcDirectory.class, IptcDirectory.TAG_CAPTION))
                .or(() -> metadata.getDirectoriesOfType(XmpDirectory.class).stream()
                        .map(xmp -> xmp.getXmpProperties().get("dc:description[1]"))
                        .filter(Objects::nonNull)
                        .findFirst());
    }
}
