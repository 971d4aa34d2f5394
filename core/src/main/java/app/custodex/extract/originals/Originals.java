package app.custodex.extract.originals;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Choice.Value;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pace;
import app.custodex.extract.pictures.PictureForm;
import app.custodex.media.SoundCoding;
import app.custodex.model.Album;
import app.custodex.model.Attachment;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile;
import app.custodex.model.Playlist;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import java.io.IOException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Files as they are, byte for byte, with the time at which they were last changed, in folders that people find their way in. */
public final class Originals implements Format {
    private static final Value BY_MONTH = new Value("month", "by year and month");
    private static final Value BY_ALBUM = new Value("album", "by album");
    private static final Value BY_CONVERSATION = new Value("conversation", "by the conversation they came in");
    private static final Value AS_ON_PHONE = new Value("phone", "as on the phone");
    private static final Value BY_TAGS = new Value("tags", "by artist and album");
    private static final Value FLAT = new Value("flat", "all in one folder");
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss", Locale.ROOT);

    private static final DateTimeFormatter YEAR = DateTimeFormatter.ofPattern("uuuu", Locale.ROOT);
    private static final DateTimeFormatter MONTH = DateTimeFormatter.ofPattern("uuuu-MM", Locale.ROOT);

    private static final Choice PLAYLIST = Choice.one(
            "playlist",
            "A playlist of all",
            new Value("no", "none"),
            new Value("m3u8", "M3U8"),
            new Value("xspf", "XSPF"));

    private static final Choice CODING = Choice.one(
            "pictures",
            "Pictures",
            new Value("as-they-are", "as they are"),
            new Value("jpeg", "as JPEG"),
            new Value("png", "as PNG"));
    private static final Choice QUALITY = Choice.one(
            "quality",
            "Quality of JPEG",
            new Value("92", "high (92 of 100)"),
            new Value("80", "medium (80 of 100)"),
            new Value("100", "highest (100 of 100)"));
    private static final Choice SIDE = Choice.one(
            "size",
            "Size of JPEG and PNG",
            new Value("full", "as they are"),
            new Value("2048", "at most 2048 pixels"),
            new Value("1280", "at most 1280 pixels"));
    private static final Choice FACTS = Choice.one(
            "camera-facts",
            "What the camera wrote into them",
            new Value("all", "stays"),
            new Value("no-place", "stays but for the place"),
            new Value("none", "is taken out"));

    private static final Choice SOUND = Choice.one(
            "sound",
            "Sound",
            new Value("as-it-is", "as it is"),
            new Value("mp3", "as MP3"),
            new Value("m4a", "as M4A (AAC)"),
            new Value("opus", "as Opus"),
            new Value("flac", "as FLAC"),
            new Value("wav", "as WAV"));
    private static final Choice RATE = Choice.one(
            "rate",
            "Quality of MP3, M4A and Opus",
            new Value("192", "192 kbit/s"),
            new Value("128", "128 kbit/s"),
            new Value("320", "320 kbit/s"));

    private final KindGroup group;
    private final Choice arranged;

    private Originals(KindGroup group, Value... arranged) {
        this.group = group;
        this.arranged = Choice.one("folders", "In folders", arranged);
    }

    /** Of every group that has files. */
    public static List<Format> all() {
        return List.of(
                new Originals(KindGroup.PICTURES, BY_MONTH, BY_ALBUM, BY_CONVERSATION, AS_ON_PHONE, FLAT),
                new Originals(KindGroup.MUSIC, BY_TAGS, AS_ON_PHONE, FLAT),
                new Originals(KindGroup.VOICEMAIL, FLAT, BY_MONTH),
                new Originals(KindGroup.BOOKS, FLAT, AS_ON_PHONE),
                new Originals(KindGroup.MESSAGES, BY_CONVERSATION, FLAT),
                new Originals(KindGroup.OTHER, AS_ON_PHONE, FLAT));
    }

    @Override
    public String code() {
        return "originals";
    }

    @Override
    public String label() {
        return group == KindGroup.MESSAGES ? "The attachments alone, as they are" : "The files as they are";
    }

    @Override
    public String leavesOut() {
        return switch (group) {
            case MESSAGES -> "Leaves out the messages themselves";
            case PICTURES ->
                "Where something is to be taken out of pictures, leaves out videos, since they keep places";
            case MUSIC -> "In another form, leaves out the picture of a song";
            default -> "";
        };
    }

    @Override
    public Set<KindGroup> groups() {
        return EnumSet.of(group);
    }

    @Override
    public boolean writesFilesAsTheyAre() {
        return true;
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return switch (group) {
            case MUSIC -> List.of(arranged, SOUND, RATE, PLAYLIST);
            case VOICEMAIL -> List.of(arranged, SOUND, RATE);
            case PICTURES -> List.of(arranged, CODING, QUALITY, SIDE, FACTS);
            default -> List.of(arranged);
        };
    }

    /**
     * A file that is to be written.
     *
     * @param folders below the one of all
     */
    private record Wanted(Attachment file, List<List<String>> folders, String name, Thing of) {}

    @Override
    public Pace pace(Chosen chosen) {
        return sound(chosen).isPresent()
                ? Pace.SOUND
                : group == KindGroup.PICTURES && !form(chosen).keepsFiles() ? Pace.PICTURES : Pace.AS_THEY_ARE;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var folder = out.folder(batch.title());
        var arrangement = new Arrangement(batch, chosen.of(arranged));
        var playlist = new ArrayList<PlaylistFile.Entry>();
        try (var put = new Put(batch, form(chosen), sound(chosen))) {
            for (var wanted : batch.each(arrangement::of)) {
                for (var each : wanted) {
                    for (var path : each.folders()) {
                        put.into(folder, path, each.name(), each.file(), each.of())
                                .ifPresent(file -> playlist.add(PlaylistFile.entry(each.of(), folder.relative(file))));
                    }
                }
            }
        }
        if (group == KindGroup.MUSIC && !playlist.isEmpty()) {
            switch (chosen.of(PLAYLIST)) {
                case "m3u8" -> PlaylistFile.m3u8(batch.title(), playlist, folder);
                case "xspf" -> PlaylistFile.xspf(batch.title(), playlist, folder);
                default -> {
                    // none is wanted
                }
            }
        }
    }

    private static Optional<Put.SoundForm> sound(Chosen chosen) {
        return Arrays.stream(SoundCoding.values())
                .filter(coding -> coding.name().equalsIgnoreCase(chosen.of(SOUND)))
                .map(coding -> new Put.SoundForm(coding, Integer.parseInt(chosen.of(RATE))))
                .findFirst();
    }

    private static PictureForm form(Chosen chosen) {
        var coding = switch (chosen.of(CODING)) {
            case "jpeg" -> PictureForm.Coding.JPEG;
            case "png" -> PictureForm.Coding.PNG;
            default -> PictureForm.Coding.AS_THEY_ARE;
        };
        var facts = switch (chosen.of(FACTS)) {
            case "no-place" -> PictureForm.Facts.NO_PLACE;
            case "none" -> PictureForm.Facts.NONE;
            default -> PictureForm.Facts.ALL;
        };
        var side = chosen.of(SIDE);
        boolean full = side.equals("full") || coding == PictureForm.Coding.AS_THEY_ARE;
        return new PictureForm(
                coding, Integer.parseInt(chosen.of(QUALITY)), full ? Integer.MAX_VALUE : Integer.parseInt(side), facts);
    }

    /** Into which folders files go, and under which names. */
    private static final class Arrangement {
        private final Batch batch;
        private final String by;
        private final ZoneId zone;
        private final Map<String, List<String>> albums = new HashMap<>();

        Arrangement(Batch batch, String by) throws IOException {
            this.batch = batch;
            this.by = by;
            zone = batch.material().zone();
            if (by.equals(BY_ALBUM.code())) {
                var catalogue = batch.material().catalogue();
                catalogue.forEach(
                        catalogue.find(Filter.EVERYTHING.of(ThingKind.ALBUM), Order.AS_KEPT),
                        entry -> take((Album) entry.thing()));
            }
        }

        private void take(Album album) {
            if (album.use() != Album.Use.BURST && album.use() != Album.Use.CLIP) {
                album.pictures()
                        .forEach(picture -> albums.computeIfAbsent(picture.item(), item -> new ArrayList<>())
                                .add(album.title()));
            }
        }

        List<Wanted> of(Thing thing) {
            return switch (thing) {
                case MediaFile file
                when file.bytes() > 0 ->
                    List.of(new Wanted(new Attachment(file.id().item(), "", ""), folders(file), name(file), thing));
                case MediaFile cloud -> {
                    batch.leftOut("files that the phone does not have");
                    yield List.of();
                }
                case Voicemail mail -> List.of(new Wanted(mail.sound(), List.of(month(thing)), voicemail(mail), thing));
                case Album list -> {
                    batch.leftOut("albums, which are lists of pictures");
                    yield List.of();
                }
                case Playlist list -> {
                    batch.leftOut("playlists, which are lists of songs");
                    yield List.of();
                }
                default ->
                    thing.attachments().stream()
                            .map(file -> new Wanted(file, List.of(conversation(thing)), file.title(), thing))
                            .toList();
            };
        }

        private List<List<String>> folders(MediaFile file) {
            var item = file.id().item();
            if (by.equals(BY_MONTH.code())) {
                return List.of(month(file));
            }
            if (by.equals(BY_ALBUM.code())) {
                return albums.getOrDefault(item, List.of("In no album")).stream()
                        .map(List::of)
                        .toList();
            }
            if (by.equals(BY_CONVERSATION.code())) {
                var sent = batch.material().sentIn().of(item).stream()
                        .map(each -> List.of(each.title()))
                        .distinct()
                        .toList();
                return sent.isEmpty() ? List.of(List.of("In no conversation")) : sent;
            }
            if (by.equals(AS_ON_PHONE.code())) {
                var parts = List.of(item.split("/"));
                return List.of(parts.subList(0, parts.size() - 1));
            }
            if (by.equals(BY_TAGS.code())) {
                return List.of(tags(file));
            }
            return List.of(List.of());
        }

        private static List<String> tags(MediaFile file) {
            if (file.kind() != ThingKind.TRACK) {
                return List.of(file.kind().label());
            }
            return List.of(
                    file.fact("Artist").orElse("Unknown artist"),
                    file.fact("Album").orElse("Unknown album"));
        }

        private List<String> month(Thing thing) {
            if (!by.equals(BY_MONTH.code())) {
                return List.of();
            }
            return thing.moment()
                    .map(at -> at.day(zone))
                    .map(day -> List.of(YEAR.format(day), MONTH.format(day)))
                    .orElse(List.of("Without a date"));
        }

        private List<String> conversation(Thing thing) {
            if (!by.equals(BY_CONVERSATION.code())) {
                return List.of();
            }
            return thing.attachments().stream()
                    .flatMap(file -> batch.material().sentIn().of(file.item()).stream())
                    .map(sent -> List.of(sent.title()))
                    .findFirst()
                    .orElse(List.of("In no conversation"));
        }

        /** Songs and books are called after their own titles, all else as on the phone. */
        private String name(MediaFile file) {
            var item = file.id().item();
            var own = item.substring(item.lastIndexOf('/') + 1);
            boolean byTitle = !by.equals(AS_ON_PHONE.code())
                    && (file.kind() == ThingKind.TRACK || file.kind() == ThingKind.DOCUMENT)
                    && !file.title().isBlank();
            if (!byTitle) {
                return own;
            }
            int dot = own.lastIndexOf('.');
            var ending = dot > 0 ? own.substring(dot) : "";
            var number = file.fact("Track")
                    .map(track -> track.replaceFirst("\\D.*", ""))
                    .filter(track -> !track.isEmpty() && track.length() < 4)
                    .map(track -> (track.length() == 1 ? "0" : "") + track + " ")
                    .orElse("");
            var title = file.title().endsWith(ending)
                    ? file.title().substring(0, file.title().length() - ending.length())
                    : file.title();
            return number + title.replace('.', '_') + ending;
        }

        private String voicemail(Voicemail mail) {
            var name = mail.sound().title();
            int dot = name.lastIndexOf('.');
            var at = mail.moment()
                    .map(moment -> STAMP.format(LocalDateTime.ofInstant(moment.instant(zone), zone)) + " ")
                    .orElse("");
            var caller = mail.caller()
                    .map(party -> batch.material().names().of(party, mail))
                    .orElse("unknown caller");
            return at + caller + (dot > 0 ? name.substring(dot) : "");
        }
    }
}
