/** The invented island of Skerrow: who lives there, and three years of what they say and do. Knows nothing of how phones keep it. */
@org.jspecify.annotations.NullMarked
package app.custodex.practice.island;
