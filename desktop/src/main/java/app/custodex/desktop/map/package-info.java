/** The map as it is seen and moved. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.map;
