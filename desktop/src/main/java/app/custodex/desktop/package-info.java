/** The desktop application. Views hold nodes, models hold what they show; work happens in the core, off this thread. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop;
