/** Benchmarks: each runs a baseline of ordinary programs beside it and prints the ratio. None of them is a test. */
@org.jspecify.annotations.NullMarked
package app.custodex.bench;
