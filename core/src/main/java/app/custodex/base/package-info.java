/** Small things every other package stands on: problems, cancelling, digests, disk access, safe file names. */
@org.jspecify.annotations.NullMarked
package app.custodex.base;
