package app.custodex.extract;

import app.custodex.base.Problem;
import java.nio.file.Path;
import java.util.List;

/**
 * What was written.
 *
 * @param files that are there now, in order
 * @param things how many are in them
 * @param leftOut what the formats had no place for, a line each with its count
 * @param problems what could not be written, or only in another form
 */
public record ExtractResult(List<Path> files, int things, List<String> leftOut, List<Problem> problems) {
    public ExtractResult {
        files = List.copyOf(files);
        leftOut = List.copyOf(leftOut);
        problems = List.copyOf(problems);
    }
}
