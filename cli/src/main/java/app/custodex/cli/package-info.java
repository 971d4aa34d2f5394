/** Custodex on the command line: the same use cases as the desktop, for scripts and for hands on a keyboard. */
@org.jspecify.annotations.NullMarked
package app.custodex.cli;
