package app.custodex.backup;

import app.custodex.link.Limits;
import java.time.Duration;

/**
 * How a backup is wanted.
 *
 * @param readEverything also reads items that look unchanged by size, time and ETag, and compares their content
 * @param patience how long to wait for a phone that went away or asks for a hand
 * @param check whether to read the layer back when it is published
 * @param limits how much the phone may list
 * @param tool name and version of the program, for the layer's record
 */
public record BackupRequest(
        Selection selection, boolean readEverything, Duration patience, boolean check, Limits limits, String tool) {
    /** Everything, read back at the end. */
    public static BackupRequest everything(Duration patience, String tool) {
        return new BackupRequest(Selection.EVERYTHING, false, patience, true, Limits.USUAL, tool);
    }

    public BackupRequest with(Selection newSelection) {
        return new BackupRequest(newSelection, readEverything, patience, check, limits, tool);
    }

    public BackupRequest readingEverything(boolean on) {
        return new BackupRequest(selection, on, patience, check, limits, tool);
    }

    public BackupRequest checking(boolean on) {
        return new BackupRequest(selection, readEverything, patience, on, limits, tool);
    }

    public BackupRequest within(Limits newLimits) {
        return new BackupRequest(selection, readEverything, patience, check, newLimits, tool);
    }
}
