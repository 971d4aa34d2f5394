/** Tones for phones, cut out of recordings. */
@org.jspecify.annotations.NullMarked
package app.custodex.tones;
