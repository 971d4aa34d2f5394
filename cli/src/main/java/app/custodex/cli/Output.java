package app.custodex.cli;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.Sizes;
import app.custodex.base.VisibleText;
import app.custodex.strongroom.LeftOut;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Lists as JSON, and problems as lines. */
final class Output {
    private Output() {}

    static void json(PrintWriter out, Object value) throws IOException {
        out.println(Json.PAGE.writeValueAsString(value));
    }

    /** One line of a long list, which whoever prints it flushes at its end: println would do so behind each line. */
    static void line(PrintWriter out, String text) {
        out.print(text + System.lineSeparator());
    }

    static void problems(PrintWriter err, List<Problem> problems) {
        problems.forEach(problem -> err.println(problem.sentence()));
    }

    /** "1 item", "1,840 items". */
    static String items(long number) {
        return Sizes.count(number, Locale.getDefault()) + (number == 1 ? " item" : " items");
    }

    /** What a copy does not hold, or not by itself, a line for each reason. */
    static void left(PrintWriter out, String heading, List<LeftOut> left) {
        left.stream()
                .collect(Collectors.groupingBy(
                        LeftOut::why,
                        TreeMap::new,
                        Collectors.mapping(kind -> kind.kind().label(), Collectors.joining(", "))))
                .forEach((why, kinds) -> out.println(
                        (why == LeftOut.Why.SHARED ? "" : heading + ": ") + kinds + ". " + why.words() + "."));
    }

    /** Whatever a hostile name holds, it stays on its line. */
    static String oneLine(String text) {
        return VisibleText.oneLine(text);
    }
}
