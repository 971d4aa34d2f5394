/**
 * Reaching a phone: who it is, what it waits for, what it holds, and reading its files.
 *
 * <p>Doors: {@link app.custodex.link.PhoneLink} and {@link app.custodex.link.HttpPhoneLink}; the rest is the vocabulary
 * that both ends of the link share.
 */
@org.jspecify.annotations.NullMarked
package app.custodex.link;
