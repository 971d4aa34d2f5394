package app.custodex.desktop.ui;

import java.util.function.Function;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;

/** Shows what can be chosen in words; nobody types into such a field. */
public final class InWords<T> extends StringConverter<T> {
    private final Function<T, String> words;

    public InWords(Function<T, String> words) {
        this.words = words;
    }

    @Override
    public String toString(@Nullable T value) {
        return value == null ? "" : words.apply(value);
    }

    @Override
    public T fromString(String text) {
        throw new UnsupportedOperationException("nobody types here");
    }
}
