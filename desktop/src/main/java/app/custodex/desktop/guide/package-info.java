/** The guide inside the application, and the report of a problem. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.guide;
