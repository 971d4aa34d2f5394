/** The reading room. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.reading;
