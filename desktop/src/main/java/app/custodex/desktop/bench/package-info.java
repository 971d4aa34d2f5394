/** The Bench: the docket, its route, and the step at hand. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.bench;
