package app.custodex.readers;

import app.custodex.link.PhonePath;
import java.util.List;

/**
 * What has to be read together, and again only when one of its items has changed.
 *
 * @param name lasts from layer to layer
 * @param items of the phone, the main one first
 */
public record Store(String name, List<PhonePath> items) {
    public Store {
        items = List.copyOf(items);
    }

    /** One file that is read by itself. */
    public static Store of(PhonePath item) {
        return new Store(item.text(), List.of(item));
    }
}
