/** The map on which things are shown: coastlines, borders and towns that ship with the program, and what is drawn of them where one looks. */
@org.jspecify.annotations.NullMarked
package app.custodex.places;
