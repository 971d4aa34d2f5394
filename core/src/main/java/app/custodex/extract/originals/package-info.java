/** Writes files as they are, in folders, and where pictures were taken. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.originals;
