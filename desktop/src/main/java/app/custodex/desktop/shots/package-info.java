/** Renders the main views to pictures. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.shots;
