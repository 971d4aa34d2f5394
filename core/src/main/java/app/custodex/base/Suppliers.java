package app.custodex.base;

import java.util.Optional;
import java.util.function.Supplier;

/** Values that are made when they are first asked for. */
public final class Suppliers {
    private Suppliers() {}

    /** Asks once, whichever thread comes first, and remembers. */
    public static <T> Supplier<T> once(Supplier<T> make) {
        return new Supplier<>() {
            private Optional<T> made = Optional.empty();

            @Override
            public synchronized T get() {
                if (made.isEmpty()) {
                    made = Optional.of(make.get());
                }
                return made.get();
            }
        };
    }
}
