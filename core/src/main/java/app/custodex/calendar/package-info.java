/** When the events of a calendar take place. */
@org.jspecify.annotations.NullMarked
package app.custodex.calendar;
