/** Pictures of every view for the docs, rendered from the demo; no part of the application. */
@org.jspecify.annotations.NullMarked
package app.custodex.shots;
