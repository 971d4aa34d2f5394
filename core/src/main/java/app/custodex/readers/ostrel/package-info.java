/** Reads what an Ostrel keeps: SQLite databases with times in microseconds since 2000-01-01T00:00Z. */
@org.jspecify.annotations.NullMarked
package app.custodex.readers.ostrel;
