/** The list of all formats. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.formats;
