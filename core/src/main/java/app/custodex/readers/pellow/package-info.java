/** Reads what a Pellow keeps: one database of talk with times in milliseconds since 1970, and open files. */
@org.jspecify.annotations.NullMarked
package app.custodex.readers.pellow;
