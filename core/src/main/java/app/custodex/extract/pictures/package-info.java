/** Pictures in another form: JPEG or PNG, smaller, without the place at which they were taken. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.pictures;
