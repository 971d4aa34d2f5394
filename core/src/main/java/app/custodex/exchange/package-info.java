/** Things in a form that is stored, and in one that other programs can read. */
@org.jspecify.annotations.NullMarked
package app.custodex.exchange;
