package app.custodex.twins;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.model.MediaFile;
import app.custodex.model.ThingKind;
import app.custodex.search.Fold;
import app.custodex.twins.TwinSet.Likeness;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/** Files that are the same, and songs that are the same recording in another form. */
public final class FileTwins {
    /** Two copies of a song may be cut and packed a little differently. */
    static final Duration APART = Duration.ofSeconds(2);

    /** Kinds whose files people keep more than once. */
    private static final Filter KEPT_TWICE = Filter.EVERYTHING.of(
            ThingKind.PICTURE,
            ThingKind.VIDEO,
            ThingKind.FILM,
            ThingKind.TRACK,
            ThingKind.PODCAST,
            ThingKind.MEMO,
            ThingKind.RINGTONE,
            ThingKind.DOCUMENT);

    /** Gives the content of an item. */
    public interface Content {
        InputStream open(String item) throws IOException;
    }

    /**
     * What is compared of a file; the text of a document is not kept for it.
     *
     * @param number in the catalogue
     * @param song by what a song is known again; empty for what is none, or does not say enough
     */
    record Numbered(
            int number, ThingKind kind, String item, long bytes, Optional<Duration> length, Optional<String> song) {}

    private FileTwins() {}

    static List<Numbered> files(Catalogue catalogue) throws IOException {
        var files = new ArrayList<Numbered>();
        catalogue.forEach(catalogue.find(KEPT_TWICE, Order.AS_KEPT), entry -> {
            if (entry.thing() instanceof MediaFile file && file.bytes() > 0) {
                files.add(new Numbered(
                        (int) entry.number(), file.kind(), file.id().item(), file.bytes(), file.length(), song(file)));
            }
        });
        return files;
    }

    /** What has the same content, byte for byte: only files of one size are read. */
    static List<TwinSet> same(List<Numbered> files, Content content, Consumer<Problem> problems, CancelToken cancel)
            throws IOException {
        var sets = new ArrayList<TwinSet>();
        var bySize = Groups.byKey(files.stream().map(each -> each.bytes()).toList());
        for (var ofSize : bySize.values()) {
            if (ofSize.size() > 1) {
                Map<String, List<Integer>> byContent = new HashMap<>();
                for (int i : ofSize) {
                    cancel.check();
                    digest(files.get(i), content, problems)
                            .ifPresent(digest -> byContent
                                    .computeIfAbsent(digest, d -> new ArrayList<>())
                                    .add(files.get(i).number()));
                }
                byContent.values().stream()
                        .filter(same -> same.size() > 1)
                        .map(same -> new TwinSet(Likeness.SAME_FILE, "the same content, byte for byte", same))
                        .forEach(sets::add);
            }
        }
        sets.sort(Comparator.comparing(set -> set.numbers().getFirst()));
        return sets;
    }

    /** Empty for what can't be read, which is told: the rest is still compared. */
    static Optional<String> digest(Numbered each, Content content, Consumer<Problem> problems) {
        try (var in = content.open(each.item())) {
            return Optional.of(Digests.of(in));
        } catch (IOException e) {
            problems.accept(Problem.loss(
                    each.item(),
                    "It can't be read, so it was not compared",
                    "Check the layer; look into an older one"));
            return Optional.empty();
        }
    }

    private static Optional<String> song(MediaFile file) {
        var artist = file.fact("Artist").map(Fold::fold).orElse("").strip();
        var title = Fold.fold(file.title()).strip();
        boolean known = file.kind() == ThingKind.TRACK
                && !artist.isEmpty()
                && file.length().isPresent();
        return known && !title.isEmpty() ? Optional.of(artist + '\n' + title) : Optional.empty();
    }

    /** In whatever letters and with whatever marks artist and title are written. */
    static String known(String artist, String title) {
        return Fold.fold(artist).strip() + '\n' + Fold.fold(title).strip();
    }

    static boolean nearlyAsLong(Duration one, Duration other) {
        return one.minus(other).abs().compareTo(APART) <= 0;
    }

    /**
     * Songs of the same artist and title that last equally long, in another form.
     *
     * @param same which files are the same anyway: of each of these sets one is enough
     */
    static List<TwinSet> songs(List<Numbered> files, List<TwinSet> same) {
        var others = Groups.others(same);
        var songs = files.stream()
                .filter(each -> !others.contains(each.number()))
                .filter(each -> each.song().isPresent())
                .toList();
        var groups = new Groups(songs.size());
        for (var alike : Groups.byKey(
                        songs.stream().map(each -> each.song().orElseThrow()).toList())
                .values()) {
            var byLength = alike.stream()
                    .sorted(Comparator.comparing(i -> length(songs.get(i))))
                    .toList();
            for (int i = 1; i < byLength.size(); i++) {
                if (nearlyAsLong(length(songs.get(byLength.get(i))), length(songs.get(byLength.get(i - 1))))) {
                    groups.join(byLength.get(i), byLength.get(i - 1));
                }
            }
        }
        return groups.groups().stream()
                .map(group -> new TwinSet(
                        Likeness.SAME_SONG,
                        "the same artist and title, and as long within two seconds",
                        group.stream()
                                .map(songs::get)
                                .sorted(Comparator.comparing(Numbered::bytes).reversed())
                                .map(Numbered::number)
                                .toList()))
                .toList();
    }

    private static Duration length(Numbered song) {
        return song.length().orElse(Duration.ZERO);
    }
}
