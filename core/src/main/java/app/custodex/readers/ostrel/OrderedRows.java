package app.custodex.readers.ostrel;

import app.custodex.model.Attachment;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What somebody put in an order: the pictures of albums, the tracks of playlists. */
final class OrderedRows {
    private final Map<Long, List<Placed>> lists = new HashMap<>();

    private record Placed(long place, long member) {}

    /**
     * Reads a table with one row a member of a list.
     *
     * @param what the rows are to their owner
     * @param list the column with the number of the list; another one, "place", says in which place a member stands
     * @param member the column with the number of the member
     */
    OrderedRows(PhoneDatabase database, Losses losses, String what, String table, String list, String member)
            throws IOException {
        losses.tell(
                what,
                database.each(
                        table,
                        List.of(list, "place", member),
                        row -> lists.computeIfAbsent(row.number(list), number -> new ArrayList<>())
                                .add(new Placed(row.number("place"), row.number(member)))));
    }

    /** The members of a list in its order; those of no known number are left out. */
    List<Attachment> of(long list, Map<Long, Attachment> members) {
        return lists.getOrDefault(list, List.of()).stream()
                .sorted(Comparator.comparingLong(Placed::place))
                .flatMap(placed -> Optional.ofNullable(members.get(placed.member())).stream())
                .toList();
    }
}
