/** What phone data means, whichever family it came from. Plain records; depends on nothing. */
@org.jspecify.annotations.NullMarked
package app.custodex.model;
