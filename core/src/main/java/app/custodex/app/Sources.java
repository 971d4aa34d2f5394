package app.custodex.app;

import app.custodex.app.Source.Type;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.link.ArchiveLink;
import app.custodex.link.CrateLabel;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.IntStream;

/** What can be plugged into this bench, one JSON file each. */
public final class Sources {
    private final Path folder;
    private final Disk disk;

    public Sources(Path folder, Disk disk) {
        this.folder = folder;
        this.disk = disk;
    }

    public static Sources of(Home home) {
        return new Sources(home.sources(), new RealDisk());
    }

    private interface Each {
        void file(Path file, Optional<Source> source);
    }

    private void forEach(Each each) throws IOException {
        if (!Files.isDirectory(folder)) {
            return;
        }
        try (var files = Files.newDirectoryStream(folder, "*.json")) {
            for (var file : files) {
                Optional<Source> source;
                try {
                    source = Optional.ofNullable(Json.PAGE.readValue(file.toFile(), Source.class));
                } catch (IOException | RuntimeException torn) {
                    source = Optional.empty();
                }
                each.file(file, source);
            }
        }
    }

    /** Sources whose files can't be read. They are kept: a new one would not have the identifier that the layers are filed under. */
    public List<Problem> problems() throws IOException {
        var problems = new ArrayList<Problem>();
        forEach((file, source) -> {
            if (source.isEmpty()) {
                problems.add(
                        Problem.failure(
                                "sources/" + file.getFileName(),
                                "What is known of this source can't be read; the others are there",
                                "Bring the file back from the shop's second copy, or add the source anew: its layers begin anew then"));
            }
        });
        return problems;
    }

    /** In the order of their bays, no two in one; for those that can't be read see {@link #problems}. */
    public List<Source> all() throws IOException {
        var sources = new ArrayList<Source>();
        forEach((file, source) -> source.ifPresent(sources::add));
        sources.sort(Comparator.comparingInt(Source::bay).thenComparing(Source::key));
        var placed = new ArrayList<Source>();
        for (var source : sources) {
            boolean free = source.bay() > 0 && placed.stream().noneMatch(p -> p.bay() == source.bay());
            placed.add(free ? source : source.inBay(freeBay(placed)));
        }
        placed.sort(Comparator.comparingInt(Source::bay));
        return placed;
    }

    private static int freeBay(List<Source> sources) {
        return IntStream.iterate(1, n -> n + 1)
                .filter(n -> sources.stream().noneMatch(source -> source.bay() == n))
                .findFirst()
                .orElseThrow();
    }

    void keep(Source source) throws IOException {
        disk.createFolders(folder);
        disk.replace(file(source.key()), Json.PAGE.writeValueAsBytes(source));
    }

    void remove(Source source) throws IOException {
        disk.delete(file(source.key()));
    }

    private Path file(String key) {
        return folder.resolve(key + ".json");
    }

    /** A phone that answers at an address when it is plugged in. */
    public void rememberPhone(String key, URI address) throws IOException {
        var all = all();
        int bay = all.stream()
                .filter(source -> source.key().equals(key))
                .findFirst()
                .map(Source::bay)
                .orElseGet(() -> freeBay(all));
        keep(new Source(bay, key, "", key, Type.PHONE, address, Optional.empty()));
    }

    /**
     * What a person means by a path or an address.
     *
     * @throws ProblemException when it is none that can be backed up
     */
    Source understood(String written, String name, Path strongroom) throws IOException {
        var words = written.strip();
        if (words.toLowerCase(Locale.ROOT).startsWith("https://")) {
            return webDav(words, name);
        }
        if (words.toLowerCase(Locale.ROOT).startsWith("loft:")) {
            return loft(words, name);
        }
        if (words.toLowerCase(Locale.ROOT).startsWith("http://")) {
            throw new ProblemException(Problem.failure(
                    words,
                    "Over plain HTTP anybody on the way could read and change what is copied",
                    "Give an address that begins with https"));
        }
        var path = Path.of(words).toAbsolutePath().normalize();
        if (!Files.isReadable(path)) {
            throw new ProblemException(Problem.failure(
                    path.toString(), "There is nothing there that this user may read", "Check the path"));
        }
        if (isWithin(path, strongroom)) {
            throw new ProblemException(Problem.failure(
                    path.toString(), "It lies in the strongroom", "What is in the strongroom is backed up already"));
        }
        if (CrateLabel.isIn(path)) {
            return crate(path, name);
        }
        if (!Files.isDirectory(path)) {
            ArchiveLink.require(path);
        }
        var shown = name.isEmpty() ? String.valueOf(path.getFileName()) : name;
        return source(shown, Files.isDirectory(path) ? Type.FOLDER : Type.ARCHIVE, path.toUri());
    }

    private Source crate(Path path, String name) throws IOException {
        try {
            var label = CrateLabel.read(path);
            return source(name.isEmpty() ? label.name() : name, Type.CRATE, path.toUri());
        } catch (IOException damaged) {
            throw new ProblemException(
                    Problem.failure(
                            path.toString(),
                            "It looks like a maker's backup, and its label can't be read",
                            "Add the folder above it, to keep its files as they are"),
                    damaged);
        }
    }

    /** By whatever way it is reached: a link to the strongroom is the strongroom. */
    private static boolean isWithin(Path path, Path strongroom) throws IOException {
        return path.startsWith(strongroom)
                || Files.exists(strongroom) && path.toRealPath().startsWith(strongroom.toRealPath());
    }

    private Source webDav(String words, String name) throws IOException {
        try {
            var address = new URI(words.endsWith("/") ? words : words + "/");
            if (address.getHost() == null) {
                throw new URISyntaxException(words, "no host");
            }
            if (address.getUserInfo() != null) {
                throw new ProblemException(Problem.failure(
                        address.getHost(),
                        "A name or password in the address would be kept in a plain file",
                        "Leave it out; it is asked for when it is needed"));
            }
            return source(name.isEmpty() ? address.getHost() : name, Type.WEBDAV, address);
        } catch (URISyntaxException e) {
            throw notAnAddress(words, e);
        }
    }

    /** "loft:http://host:port/" */
    private Source loft(String words, String name) throws IOException {
        try {
            var address = new URI(words.substring("loft:".length()).strip());
            if (address.getHost() == null) {
                throw new URISyntaxException(words, "no host");
            }
            boolean here =
                    address.getHost().equals("127.0.0.1") || address.getHost().equals("localhost");
            if (!here && !"https".equals(address.getScheme())) {
                throw new ProblemException(Problem.failure(
                        words,
                        "Loft is reached over TLS only, unless it runs on this computer",
                        "Begin with loft:https"));
            }
            var tree = address.toString().endsWith("/") ? address : URI.create(address + "/");
            return source(name.isEmpty() ? "Loft" : name, Type.LOFT, tree);
        } catch (URISyntaxException e) {
            throw notAnAddress(words, e);
        }
    }

    private static ProblemException notAnAddress(String words, URISyntaxException e) {
        return new ProblemException(
                Problem.failure(words, "This is not a web address", "Write it as https://name/folder/"), e);
    }

    private Source source(String name, Type type, URI address) throws IOException {
        var all = all();
        for (var known : all) {
            if (known.type() == type && known.address().equals(address)) {
                return known; // its layers go on
            }
        }
        var id = UUID.randomUUID().toString();
        var slug = name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
        return new Source(
                freeBay(all),
                "source-" + slug.substring(0, Math.min(40, slug.length())) + "-" + id.substring(0, 8),
                type.name() + "-" + id,
                name,
                type,
                address,
                Optional.empty());
    }
}
