package app.custodex.extract;

import app.custodex.base.Problem;
import java.nio.file.Path;
import java.util.List;

/**
 * @param files that were written, in order
 * @param contacts how many are in them
 * @param problems what could not be written, or only in another form
 */
public record ExtractResult(List<Path> files, int contacts, List<Problem> problems) {
    public ExtractResult {
        files = List.copyOf(files);
        problems = List.copyOf(problems);
    }
}
