/** Reads open files, wherever they lie. */
@org.jspecify.annotations.NullMarked
package app.custodex.readers.files;
