package app.custodex.cli;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;

/** Lists as JSON, and problems as lines. */
final class Output {
    private Output() {}

    static void json(PrintWriter out, Object value) throws IOException {
        out.println(Json.PAGE.writeValueAsString(value));
    }

    static void problems(PrintWriter err, List<Problem> problems) {
        problems.forEach(problem -> err.println(problem.sentence()));
    }

    /** Whatever a hostile name holds, it stays on its line. */
    static String oneLine(String text) {
        return text.replaceAll("\\p{Cc}", " ");
    }
}
