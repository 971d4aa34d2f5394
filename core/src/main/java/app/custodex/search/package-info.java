/** Orders and finds things the way people look for them. */
@org.jspecify.annotations.NullMarked
package app.custodex.search;
