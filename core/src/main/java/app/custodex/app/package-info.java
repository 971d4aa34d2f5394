/** What a technician does, joined from the other packages: the one place that knows them all. */
@org.jspecify.annotations.NullMarked
package app.custodex.app;
