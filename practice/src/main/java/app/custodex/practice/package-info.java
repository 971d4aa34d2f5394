/** Simulated phones that speak the link protocol on loopback. Nothing in here is used by the core. */
@org.jspecify.annotations.NullMarked
package app.custodex.practice;
