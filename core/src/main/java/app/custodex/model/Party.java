package app.custodex.model;

/**
 * Somebody who takes part in a thing.
 *
 * @param address a telephone number as written, a mail address, or a name in a chat service; may be empty
 * @param e164 the number in the form of ITU-T E.164; empty when it is no number that could be dialled
 * @param name as the app shows it; may be empty
 */
public record Party(String address, String e164, String name) {
    public static Party named(String name) {
        return new Party("", "", name);
    }

    /** By what they are reached: the number as it is dialled where that is known, else the address as it was written. */
    public String reach() {
        return e164.isEmpty() ? address : e164;
    }

    /** The same for whatever is about one person; people without a number or address are told apart by their names. */
    public String key() {
        return reach().isEmpty() ? title() : reach();
    }

    /** What to call them where one line is all there is. */
    public String title() {
        return !name.isBlank() ? name : !address.isBlank() ? address : "(unknown)";
    }
}
