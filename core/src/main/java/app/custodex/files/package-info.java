/** The files of a layer as they lie on the phone, and what stands in them. */
@org.jspecify.annotations.NullMarked
package app.custodex.files;
