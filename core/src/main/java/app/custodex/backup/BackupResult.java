package app.custodex.backup;

import app.custodex.base.Problem;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerRecord;
import java.util.List;
import java.util.Optional;

/**
 * What a backup saved, and what it did not.
 *
 * @param layer the layer that was published
 * @param problems one for each item that is not there in full, and notes on those that are there in another form
 * @param check what reading back found; empty when the check was stopped
 */
public record BackupResult(LayerRecord layer, List<Problem> problems, Optional<CheckReport> check) {
    public BackupResult {
        problems = List.copyOf(problems);
    }
}
