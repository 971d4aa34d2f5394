package app.custodex.cli;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.strongroom.StoredPhone;
import java.util.Optional;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Which layer of which phone. */
final class LayerOption {
    @Parameters(
            paramLabel = "PHONE",
            description = "Name, model, serial number or identifier of a phone in the strongroom")
    String phone = "";

    @Option(names = "--layer", paramLabel = "NUMBER", description = "Which layer (default: the newest)")
    Optional<Integer> layer = Optional.empty();

    int number(StoredPhone stored) throws ProblemException {
        int number = layer.orElse(stored.newest().number());
        if (number < 1 || number > stored.newest().number()) {
            throw new ProblemException(Problem.failure(
                    phone,
                    "There is no layer " + number,
                    "It has layers 1 to " + stored.newest().number()));
        }
        return number;
    }
}
