/** Contacts in the formats of address books. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.contacts;
