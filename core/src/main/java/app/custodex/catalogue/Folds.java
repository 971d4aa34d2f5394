package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.model.Album;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Pictures that were taken in one go, and a picture with the short clip that belongs to it: they can be shown as one, by the first of them.
 *
 * @param others by the number of the first
 * @param folded the numbers of those that don't show
 */
public record Folds(Map<Integer, Fold> others, BitSet folded) {
    /**
     * What stands behind a picture.
     *
     * @param burst whether it is a burst; else the clip of a picture
     * @param numbers of the others
     */
    public record Fold(boolean burst, List<Integer> numbers) {
        public Fold {
            numbers = List.copyOf(numbers);
        }
    }

    public Folds {
        others = Map.copyOf(others);
        folded = (BitSet) folded.clone();
    }

    /** What stands behind a picture; empty for most. */
    public Optional<Fold> behind(int number) {
        return Optional.ofNullable(others.get(number));
    }

    static Folds of(Catalogue catalogue) throws IOException {
        var others = new HashMap<Integer, Fold>();
        var folded = new BitSet();
        catalogue.forEach(catalogue.find(Filter.EVERYTHING.of(ThingKind.ALBUM), Order.AS_KEPT), entry -> {
            if (entry.thing() instanceof Album album
                    && (album.use() == Album.Use.BURST || album.use() == Album.Use.CLIP)) {
                var numbers = numbers(catalogue, album);
                // One that is folded into another already leads none itself: nothing may vanish in a circle.
                if (numbers.size() > 1 && !folded.get(numbers.getFirst())) {
                    int first = numbers.getFirst();
                    var behind = numbers.stream()
                            .filter(number -> number != first && !others.containsKey(number) && !folded.get(number))
                            .toList();
                    behind.forEach(folded::set);
                    others.merge(first, new Fold(album.use() == Album.Use.BURST, behind), Folds::join);
                }
            }
        });
        return new Folds(others, folded);
    }

    private static Fold join(Fold one, Fold other) {
        return new Fold(
                one.burst() || other.burst(),
                Stream.concat(one.numbers().stream(), other.numbers().stream()).toList());
    }

    private static List<Integer> numbers(Catalogue catalogue, Album album) throws IOException {
        var numbers = new ArrayList<Integer>();
        for (var picture : album.pictures()) {
            if (picture.there()) {
                catalogue
                        .find(new ThingId(picture.item(), ""))
                        .map(entry -> (int) entry.number())
                        .filter(number -> !numbers.contains(number))
                        .ifPresent(numbers::add);
            }
        }
        return numbers;
    }
}
