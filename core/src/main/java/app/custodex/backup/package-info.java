/**
 * Copies a phone into a new layer: list, compare with what is there, read, digest, write, publish, read back.
 *
 * <p>Door: {@link app.custodex.backup.BackupRun}.
 */
@org.jspecify.annotations.NullMarked
package app.custodex.backup;
