/** Calendars, notes and bookmarks in the formats of their programs. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.calendars;
