/** Anything as a table. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.tables;
