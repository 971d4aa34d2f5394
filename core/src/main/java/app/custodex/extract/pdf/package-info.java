/** Pages of paper: text in every script, pictures and tables in tagged PDF/A files. */
@org.jspecify.annotations.NullMarked
package app.custodex.extract.pdf;
