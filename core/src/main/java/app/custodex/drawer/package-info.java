/** How the programs reach simulated phones without knowing them: found by a service loader at the start. */
@org.jspecify.annotations.NullMarked
package app.custodex.drawer;
