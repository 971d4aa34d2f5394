/** What was read out of a layer, kept so that it opens at once and is found at once. */
@org.jspecify.annotations.NullMarked
package app.custodex.catalogue;
