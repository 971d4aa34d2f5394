/** The record of each job: whose phone, why, with what consent, promised when, and which steps are done. */
@org.jspecify.annotations.NullMarked
package app.custodex.docket;
