/** What files say of themselves. Files of strangers are parsed in a process of its own, which may end without harm. */
@org.jspecify.annotations.NullMarked
package app.custodex.facts;
