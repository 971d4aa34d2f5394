/** Small parts that every view uses. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.ui;
