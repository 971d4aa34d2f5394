/** The Strongroom: every phone and its layers. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.strongroom;
