package app.custodex.model;

/**
 * A file that hangs on a message, event or note.
 *
 * @param item its path on the phone; empty when the phone no longer has it
 * @param name as it was sent; may be empty
 * @param type its media type (RFC 6838), if the phone says so; may be empty
 */
public record Attachment(String item, String name, String type) {
    /** Whether the phone still has the file. */
    public boolean there() {
        return !item.isEmpty();
    }

    public String title() {
        return !name.isEmpty() ? name : item.substring(item.lastIndexOf('/') + 1);
    }
}
