/**
 * Sealing: content as age files (https://age-encryption.org/v1), opened by a key that a passphrase opens.
 *
 * <p>Doors: {@link app.custodex.seal.StackKey}, {@link app.custodex.seal.Passphrase}.
 */
@org.jspecify.annotations.NullMarked
package app.custodex.seal;
