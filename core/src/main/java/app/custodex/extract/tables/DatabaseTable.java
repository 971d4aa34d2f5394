package app.custodex.extract.tables;

import app.custodex.readers.RowTaker;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Rows of a phone's database as a table of plain text (RFC 4180, UTF-8); bytes stand in hexadecimal. */
public final class DatabaseTable implements RowTaker, Closeable {
    private final Writer text;
    private final CsvTable csv;

    /** @param out stays open */
    public DatabaseTable(OutputStream out) {
        text = new OutputStreamWriter(out, StandardCharsets.UTF_8);
        csv = new CsvTable(text, false);
    }

    @Override
    public void columns(List<String> names) {
        csv.row(names.stream().<Cell>map(Cell.Text::new).toList());
    }

    @Override
    public void row(List<@Nullable Object> values) {
        csv.row(values.stream().map(DatabaseTable::cell).toList());
    }

    private static Cell cell(@Nullable Object value) {
        return switch (value) {
            case null -> Cell.EMPTY;
            case byte[] bytes -> new Cell.Text(HexFormat.of().formatHex(bytes));
            default -> new Cell.Text(value.toString());
        };
    }

    /** Writes what is still to be written. */
    @Override
    public void close() throws IOException {
        csv.flush();
        text.flush();
    }
}
