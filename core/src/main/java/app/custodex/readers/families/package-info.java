/** Which readers there are for which family of phones. */
@org.jspecify.annotations.NullMarked
package app.custodex.readers.families;
