package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Lists.Arranged;
import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Lists.Sorting;
import app.custodex.catalogue.Trait.Aspect;
import app.custodex.model.Album;
import app.custodex.model.Attachment;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Playlist;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import com.ibm.icu.text.Collator;
import com.ibm.icu.util.ULocale;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;

/** Puts files together by the albums, playlists or conversations that they are in; what is in two of them stands in both. */
final class Gathering {
    private final Catalogue catalogue;
    /** The names of what an item is in. */
    private final Map<String, Set<String>> byItem = new HashMap<>();
    /** The same, by the number of the thing. */
    private final Map<Integer, Set<String>> byNumber = new HashMap<>();

    private Gathering(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    static Gathering of(Catalogue catalogue, Sorting sorting) throws IOException {
        var gathering = new Gathering(catalogue);
        switch (sorting) {
            case ALBUM -> gathering.albums();
            case PLAYLIST -> gathering.playlists();
            case CONVERSATION -> gathering.conversations();
            case GENRE -> gathering.genres();
            default -> throw new IllegalArgumentException(sorting + " is an order, and puts nothing together");
        }
        return gathering;
    }

    static Gathering byPlace(Catalogue catalogue, Function<Place, String> name) throws IOException {
        var gathering = new Gathering(catalogue);
        var places = catalogue.places();
        var known = new HashMap<Place, String>(); // many pictures are taken in one place
        for (int i = 0; i < places.size(); i++) {
            gathering.byNumber.put(
                    places.number(i),
                    Set.of(known.computeIfAbsent(places.place(i).rounded(), name)));
        }
        return gathering;
    }

    private void albums() throws IOException {
        each(Filter.EVERYTHING.of(ThingKind.ALBUM), thing -> {
            if (thing instanceof Album album && album.use() != Album.Use.BURST && album.use() != Album.Use.CLIP) {
                add(album.pictures(), album.title());
            }
        });
    }

    private void playlists() throws IOException {
        each(Filter.EVERYTHING.of(ThingKind.PLAYLIST), thing -> {
            if (thing instanceof Playlist playlist) {
                add(playlist.tracks(), playlist.title());
            }
        });
    }

    private void conversations() throws IOException {
        catalogue
                .sentIn()
                .all()
                .forEach((item, sent) -> sent.stream()
                        .map(SentIn.Sent::title)
                        .filter(title -> !title.isBlank())
                        .forEach(title -> byItem.computeIfAbsent(item, i -> new LinkedHashSet<>())
                                .add(title)));
    }

    private void genres() throws IOException {
        var traits = catalogue.traits(catalogue.spine());
        traits.all(Aspect.GENRE)
                .forEach(trait -> traits.having(Set.of(trait)).stream()
                        .forEach(number -> byNumber.computeIfAbsent(number, n -> new LinkedHashSet<>())
                                .add(trait.value())));
    }

    private interface Taker {
        void take(Thing thing);
    }

    private void each(Filter filter, Taker taker) throws IOException {
        catalogue.forEach(catalogue.find(filter, Order.AS_KEPT), entry -> taker.take(entry.thing()));
    }

    private void add(List<Attachment> files, String name) {
        for (var file : files) {
            if (file.there() && !name.isBlank()) {
                byItem.computeIfAbsent(file.item(), item -> new LinkedHashSet<>())
                        .add(name);
            }
        }
    }

    /** @param numbers in the order of time */
    Arranged arrange(int[] numbers, Locale locale) throws IOException {
        var states = catalogue.states(Arrays.stream(numbers).asLongStream().toArray());
        var together = new TreeMap<String, List<Integer>>(byName(locale));
        for (int i = numbers.length - 1; i >= 0; i--) { // the newest first
            var names = byNumber.getOrDefault(
                    numbers[i], byItem.getOrDefault(states.get(i).item(), Set.of("")));
            for (var name : names) {
                together.computeIfAbsent(name, n -> new ArrayList<>()).add(numbers[i]);
            }
        }
        var sections = new ArrayList<Section>();
        var rows = new ArrayList<Integer>();
        together.forEach((name, in) -> {
            sections.add(new Section(rows.size(), name, in.size(), Duration.ZERO));
            rows.addAll(in);
        });
        return new Arranged(
                rows.stream().mapToInt(number -> number).toArray(), List.copyOf(sections), new int[rows.size()]);
    }

    /** What is in none comes last. */
    private static Comparator<String> byName(Locale locale) {
        Comparator<String> alphabet =
                Collator.getInstance(ULocale.forLocale(locale)).freeze()::compare;
        return Comparator.comparing(String::isEmpty).thenComparing(alphabet).thenComparing(Comparator.naturalOrder());
    }
}
