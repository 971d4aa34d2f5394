package app.custodex.readers;

import java.util.List;

/**
 * What a database answered.
 *
 * @param columns their names
 * @param rows a value a column, as text; empty for none, the length for what is no text
 * @param more whether there are more rows than were read
 */
public record DatabaseRows(List<String> columns, List<List<String>> rows, boolean more) {
    public DatabaseRows {
        columns = List.copyOf(columns);
        rows = List.copyOf(rows);
    }
}
