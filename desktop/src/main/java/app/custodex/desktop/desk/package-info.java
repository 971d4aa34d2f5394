/** What the window shows and can do, without a node: the bays, running backups and checks, the curtain, where one is. */
@org.jspecify.annotations.NullMarked
package app.custodex.desktop.desk;
