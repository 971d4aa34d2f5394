package app.custodex.twins;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.facts.FileFacts.Sort;
import app.custodex.facts.Workers;
import app.custodex.model.MediaFile;
import app.custodex.twins.FileTwins.Content;
import app.custodex.twins.FileTwins.Numbered;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntConsumer;
import java.util.stream.Collectors;

/**
 * What would be lost with a phone, given what its owner still has elsewhere: files are known again by their content, songs by their tags
 * too. Nothing is taken for kept on a name alone.
 */
public final class OnlyHere {
    private static final Set<String> SOUND =
            Set.of("mp3", "m4a", "flac", "opus", "ogg", "oga", "wav", "aac", "wma", "aif", "aiff");

    /**
     * What became of one file of the phone.
     *
     * @param elsewhere whether its owner still has it
     * @param reason in words; it may name what is private
     */
    public record Verdict(int number, boolean elsewhere, String reason) {}

    /**
     * The answer.
     *
     * @param verdicts one a file of the phone, in the order of the catalogue
     * @param files that were looked at elsewhere
     * @param problems of what could not be read, on the phone or there: more of its files may be there after all
     */
    public record Result(List<Verdict> verdicts, int files, List<Problem> problems) {}

    /** A song elsewhere. */
    record Song(String known, Duration length, String where) {}

    private final Content content;
    private final CancelToken cancel;
    private final List<Problem> problems = new ArrayList<>();
    private final Map<Long, List<Path>> bySize = new HashMap<>();
    private final Map<Path, String> digests = new HashMap<>();
    private final Map<String, List<Song>> songs = new HashMap<>();
    private int files;

    private OnlyHere(Content content, CancelToken cancel) {
        this.content = content;
        this.cancel = cancel;
    }

    /**
     * Looks which files of a layer are in a folder, or named in a playlist (M3U, XSPF).
     *
     * @param elsewhere the folder or the playlist
     * @param progress is told how many files of the phone were looked at
     * @throws ProblemException when it is neither
     */
    public static Result of(
            Catalogue catalogue, Content content, Path elsewhere, IntConsumer progress, CancelToken cancel)
            throws IOException {
        var here = FileTwins.files(catalogue);
        var only = new OnlyHere(content, cancel);
        var lengths = here.stream().map(Numbered::bytes).collect(Collectors.toSet());
        boolean tags = here.stream().anyMatch(each -> each.song().isPresent());
        if (Files.isDirectory(elsewhere)) {
            only.walk(elsewhere, lengths, tags);
        } else if (Files.isRegularFile(elsewhere)) {
            only.take(Listing.read(elsewhere), lengths, tags);
        } else {
            throw new ProblemException(Problem.failure(
                    elsewhere.toString(), "It is not there", "Choose a folder or a playlist that can be read"));
        }
        var verdicts = new ArrayList<Verdict>();
        for (var each : here) {
            cancel.check();
            verdicts.add(only.verdict(each));
            progress.accept(verdicts.size());
        }
        return new Result(List.copyOf(verdicts), only.files, List.copyOf(only.problems));
    }

    /** Links are not followed: they may lead anywhere, and round in circles. */
    private void walk(Path folder, Set<Long> lengths, boolean tags) throws IOException {
        var waiting = new ArrayList<Path>(List.of(folder));
        while (!waiting.isEmpty()) {
            cancel.check();
            var next = waiting.removeLast();
            try (var entries = Files.list(next)) {
                for (var entry : entries.sorted().toList()) {
                    if (Files.isDirectory(entry, LinkOption.NOFOLLOW_LINKS)) {
                        waiting.add(entry);
                    } else if (Files.isRegularFile(entry, LinkOption.NOFOLLOW_LINKS)) {
                        file(entry, lengths, tags);
                    }
                }
            } catch (IOException | UncheckedIOException unreadable) {
                problems.add(Problem.loss(
                        next.toString(),
                        "This folder can't be read, so what is in it counts as not there",
                        "Give the right to read it, and look again"));
            }
        }
    }

    private void take(Listing list, Set<Long> lengths, boolean tags) throws IOException {
        for (var track : list.tracks()) {
            cancel.check();
            var there = track.file().filter(Files::isRegularFile);
            if (there.isPresent()) {
                file(there.get(), lengths, tags);
            } else {
                files++;
                track.song().ifPresent(this::remember);
            }
        }
    }

    private void remember(Song song) {
        songs.computeIfAbsent(song.known(), known -> new ArrayList<>()).add(song);
    }

    private void file(Path file, Set<Long> lengths, boolean tags) {
        files++;
        try {
            long size = Files.size(file);
            if (lengths.contains(size)) {
                bySize.computeIfAbsent(size, s -> new ArrayList<>()).add(file);
            }
            if (tags && SOUND.contains(ending(file))) {
                song(file).ifPresent(this::remember);
            }
        } catch (IOException unreadable) {
            unreadable(file);
        }
    }

    private void unreadable(Path file) {
        problems.add(Problem.loss(
                file.toString(),
                "This file can't be read, so it counts as not there",
                "Give the right to read it, and look again"));
    }

    private static String ending(Path file) {
        var name = file.getFileName().toString();
        return name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }

    private static Optional<Song> song(Path file) throws IOException {
        try (var in = Files.newInputStream(file)) {
            var facts = Workers.shared()
                    .facts(Sort.SOUND, file.toString(), file.getFileName().toString(), in);
            var artist = facts.facts().stream()
                    .filter(fact -> fact.name().equals("Artist"))
                    .map(MediaFile.Fact::value)
                    .findFirst();
            return artist.flatMap(by -> facts.length()
                    .filter(any -> !facts.title().isBlank())
                    .map(length -> new Song(FileTwins.known(by, facts.title()), length, file.toString())));
        } catch (ProblemException says) {
            return Optional.empty(); // its tags are damaged; by its content it may be known all the same
        }
    }

    private Verdict verdict(Numbered each) {
        var sameSize = bySize.getOrDefault(each.bytes(), List.of());
        if (!sameSize.isEmpty()) {
            var digest = FileTwins.digest(each, content, problems::add);
            if (digest.isEmpty()) {
                return new Verdict(each.number(), false, "it can't be read, so it could not be compared");
            }
            for (var file : sameSize) {
                if (digest(file).equals(digest)) {
                    return new Verdict(each.number(), true, "the same content is in " + file);
                }
            }
        }
        var known = each.song();
        if (known.isEmpty()) {
            return new Verdict(each.number(), false, "no file there has its content");
        }
        var namesakes = songs.getOrDefault(known.get(), List.of());
        var length = each.length().orElse(Duration.ZERO);
        return namesakes.stream()
                .filter(song -> FileTwins.nearlyAsLong(song.length(), length))
                .findFirst()
                .map(song -> new Verdict(
                        each.number(), true, "a song of its artist, title and length is there: " + song.where()))
                .orElseGet(() -> new Verdict(
                        each.number(),
                        false,
                        namesakes.isEmpty()
                                ? "no file there has its content, and no song its artist and title"
                                : "a song of its artist and title is there, but not as long: "
                                        + namesakes.getFirst().where()));
    }

    private Optional<String> digest(Path file) {
        if (!digests.containsKey(file)) {
            try (var in = Files.newInputStream(file)) {
                digests.put(file, Digests.of(in));
            } catch (IOException e) {
                digests.put(file, "");
                unreadable(file);
            }
        }
        return Optional.of(digests.get(file)).filter(digest -> !digest.isEmpty());
    }
}
