package app.custodex.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.stream.Collectors;

/** Puts the conditions of a question to a catalogue together. */
final class Conditions {
    private final Connection db;
    private final List<String> conditions = new ArrayList<>();
    private final List<Object> values = new ArrayList<>();

    Conditions(Connection db) {
        this.db = db;
    }

    /** Somebody in it has such an address. */
    void address(String condition, Object value) {
        var addresses = "(SELECT id FROM address WHERE " + condition + ")";
        add(
                "(who IN " + addresses + " OR id IN (SELECT thing FROM part WHERE address IN " + addresses + "))",
                value,
                value);
    }

    /** All but the person. */
    void filter(Filter filter) {
        if (!filter.kinds().isEmpty()) {
            conditions.add(filter.kinds().stream()
                    .map(kind -> String.valueOf(kind.ordinal()))
                    .collect(Collectors.joining(",", "kind IN (", ")")));
        }
        filter.account().ifPresent(account -> add("account = ?", account));
        filter.from().ifPresent(day -> add("day >= ?", day.toEpochDay()));
        filter.until().ifPresent(day -> add("day <= ?", day.toEpochDay()));
        if (filter.attached()) {
            conditions.add("attached > 0");
        }
        filter.outgoing().ifPresent(out -> add("outgoing = ?", out ? 1 : 0));
    }

    void add(String condition, Object... of) {
        conditions.add(condition);
        values.addAll(List.of(of));
    }

    /** In one piece: to fetch each number as a row of its own takes several times as long. */
    BitSet numbers(String select) throws SQLException {
        var numbers = new BitSet();
        try (var query = db.prepareStatement(
                select + (conditions.isEmpty() ? "" : " WHERE " + String.join(" AND ", conditions)))) {
            for (int i = 0; i < values.size(); i++) {
                query.setObject(i + 1, values.get(i));
            }
            try (var rows = query.executeQuery()) {
                var joined = rows.next() ? rows.getString(1) : null;
                int number = 0;
                for (int i = 0; joined != null && i < joined.length(); i++) {
                    char c = joined.charAt(i);
                    if (c == ',') {
                        numbers.set(number);
                        number = 0;
                    } else {
                        number = 10 * number + c - '0';
                    }
                }
                if (joined != null) {
                    numbers.set(number);
                }
            }
        }
        return numbers;
    }
}
