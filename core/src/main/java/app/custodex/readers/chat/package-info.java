/** Reads the local copies that chat apps write, the same on either family of phones. */
@org.jspecify.annotations.NullMarked
package app.custodex.readers.chat;
