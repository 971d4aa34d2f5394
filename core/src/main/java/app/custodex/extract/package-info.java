/** Takes what was picked out into open files. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract;
