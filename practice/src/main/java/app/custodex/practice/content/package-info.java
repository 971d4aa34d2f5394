/** What the practice phones hold: an invented island and its people, the same for the same seed. */
@org.jspecify.annotations.NullMarked
package app.custodex.practice.content;
