package app.custodex.desktop.reading;

import app.custodex.catalogue.Lists.Sorting;
import app.custodex.model.KindGroup;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * An order in which a list can be looked at.
 *
 * @param sorting empty for the order of time
 * @param oldestFirst in the order of time
 */
record ListOrder(String label, Optional<Sorting> sorting, boolean oldestFirst) {
    static final ListOrder NEWEST = new ListOrder("Newest first", Optional.empty(), false);
    private static final ListOrder OLDEST = new ListOrder("Oldest first", Optional.empty(), true);

    private static ListOrder by(String label, Sorting sorting) {
        return new ListOrder(label, Optional.of(sorting), false);
    }

    /** The orders that suit what is shown; of several kinds together, only time. */
    static List<ListOrder> of(Set<KindGroup> groups) {
        var orders = new ArrayList<>(List.of(NEWEST, OLDEST));
        if (groups.size() == 1) {
            orders.addAll(
                    switch (groups.iterator().next()) {
                        case MESSAGES -> List.of(by("By person", Sorting.PERSON));
                        case CONVERSATIONS ->
                            List.of(
                                    by("By last message", Sorting.LAST_MESSAGE),
                                    by("Most messages first", Sorting.MESSAGES),
                                    by("By name", Sorting.NAME));
                        case CALLS, VOICEMAIL ->
                            List.of(by("By person", Sorting.PERSON), by("Longest first", Sorting.LONGEST));
                        case PICTURES ->
                            List.of(
                                    by("By album", Sorting.ALBUM),
                                    by("By conversation", Sorting.CONVERSATION),
                                    by("By place", Sorting.PLACE),
                                    by("By camera", Sorting.SHELF),
                                    by("Largest first", Sorting.LARGEST),
                                    by("By name", Sorting.NAME));
                        case MUSIC ->
                            List.of(
                                    by("By artist and album", Sorting.SHELF),
                                    by("By genre", Sorting.GENRE),
                                    by("By playlist", Sorting.PLAYLIST),
                                    by("By title", Sorting.NAME),
                                    by("Longest first", Sorting.LONGEST),
                                    by("Largest first", Sorting.LARGEST));
                        case EVENTS -> List.of(by("By calendar", Sorting.SHELF), by("By title", Sorting.NAME));
                        case NOTES ->
                            List.of(
                                    by("Made, newest first", Sorting.MADE),
                                    by("By folder", Sorting.SHELF),
                                    by("By title", Sorting.NAME));
                        case WEB -> List.of(by("By folder", Sorting.SHELF), by("By title", Sorting.NAME));
                        case BOOKS ->
                            List.of(
                                    by("By author", Sorting.SHELF),
                                    by("By title", Sorting.NAME),
                                    by("Largest first", Sorting.LARGEST));
                        case APPS, OTHER, CONTACTS ->
                            List.of(by("By name", Sorting.NAME), by("Largest first", Sorting.LARGEST));
                    });
        }
        return orders;
    }
}
