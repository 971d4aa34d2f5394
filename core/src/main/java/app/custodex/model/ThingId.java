package app.custodex.model;

/**
 * Names a thing within a phone, the same in every layer in which it lies unchanged.
 *
 * @param item the path of the file on the phone that it was read from
 * @param key what names it inside that file; empty when the file is the thing
 */
public record ThingId(String item, String key) {
    /** In one piece, as "item#key". */
    public String text() {
        return key.isEmpty() ? item : item + "#" + key;
    }

    @Override
    public String toString() {
        return text();
    }
}
