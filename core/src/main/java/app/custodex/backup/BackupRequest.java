package app.custodex.backup;

import java.time.Duration;

/**
 * How a backup is wanted.
 *
 * @param readEverything also reads items that look unchanged by size, time and ETag, and compares their content
 * @param patience how long to wait for a phone that went away or asks for a hand
 * @param check whether to read the layer back when it is published
 * @param tool name and version of the program, for the layer's record
 */
public record BackupRequest(
        Selection selection, boolean readEverything, Duration patience, boolean check, String tool) {
    /** Everything, read back at the end. */
    public static BackupRequest everything(Duration patience, String tool) {
        return new BackupRequest(Selection.EVERYTHING, false, patience, true, tool);
    }

    public BackupRequest with(Selection newSelection) {
        return new BackupRequest(newSelection, readEverything, patience, check, tool);
    }

    public BackupRequest readingEverything(boolean on) {
        return new BackupRequest(selection, on, patience, check, tool);
    }

    public BackupRequest checking(boolean on) {
        return new BackupRequest(selection, readEverything, patience, on, tool);
    }
}
