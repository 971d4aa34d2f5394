/** The practice drawer. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.drawer;
