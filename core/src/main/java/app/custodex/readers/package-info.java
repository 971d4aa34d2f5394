/** Reads phone data of both families into one model, from any source of files. */
@org.jspecify.annotations.NullMarked
package app.custodex.readers;
