/** What is in a layer more than once: contacts that are one person, files that are the same or nearly so, and what else somebody still has. */
@org.jspecify.annotations.NullMarked
package app.custodex.twins;
