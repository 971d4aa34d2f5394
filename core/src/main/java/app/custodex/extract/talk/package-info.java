/** Conversations as transcripts. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.talk;
