/** Everything that a customer gets in one package: a bag with a start page, in a folder or in one file. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.handover;
