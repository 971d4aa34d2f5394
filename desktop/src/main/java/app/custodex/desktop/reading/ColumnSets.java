package app.custodex.desktop.reading;

import app.custodex.desktop.desk.Desk;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Columns of tables that the shop uses again, by name. Interface thread only. */
final class ColumnSets {
    private final Desk desk;
    private final TreeMap<String, String> sets = new TreeMap<>();

    ColumnSets(Desk desk) {
        this.desk = desk;
    }

    void take(Map<String, String> known) {
        sets.clear();
        sets.putAll(known);
    }

    Map<String, String> all() {
        return Map.copyOf(sets);
    }

    void keep(String name, String columns) {
        sets.put(name, columns);
        remember(name, columns);
    }

    void forget(String name) {
        sets.remove(name);
        remember(name, "");
    }

    private void remember(String name, String columns) {
        desk.work()
                .start(
                        "Columns",
                        () -> {
                            desk.custodex().rememberColumns(name, columns);
                            return Optional.empty();
                        },
                        kept -> {});
    }
}
