package app.custodex.readers;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Takes the answer to a question, row by row. */
public interface RowTaker {
    /** Comes first. */
    void columns(List<String> names) throws IOException;

    /** @param values numbers, texts, bytes, or null where nothing stands */
    void row(List<@Nullable Object> values) throws IOException;
}
