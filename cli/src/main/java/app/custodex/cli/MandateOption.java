package app.custodex.cli;

import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import app.custodex.app.Mandate;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.docket.Docket;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import java.io.IOException;
import java.util.Optional;
import picocli.CommandLine.Option;

/** On whose behalf something is done to a phone's data. */
final class MandateOption {
    @Option(
            names = "--docket",
            paramLabel = "NUMBER",
            description = "For the customer of this docket (default: the phone's newest one)")
    private Optional<Integer> docket = Optional.empty();

    @Option(
            names = "--no-customer",
            description = "There is no customer: the phone, or what is copied, is the shop's own")
    private boolean noCustomer;

    /** For what is in a bay. */
    Mandate of(Custodex custodex, Bay bay) throws IOException {
        var said = said();
        if (said.isPresent()) {
            return said.get();
        }
        var phone = bay.status().flatMap(PhoneStatus::identity);
        var here = custodex.dockets().at(bay.address());
        if (here.isPresent()
                && here.flatMap(Docket::phone)
                        .filter(p -> !phone.equals(Optional.of(p)))
                        .isEmpty()) {
            return Mandate.ofDocket(here.get().number());
        }
        return phone.isPresent()
                ? of(custodex, phone.get())
                : here.map(d -> Mandate.ofDocket(d.number()))
                        .orElseThrow(() -> noDocket(bay.source().name()));
    }

    /** For a phone in the strongroom. */
    Mandate of(Custodex custodex, PhoneIdentity phone) throws IOException {
        var said = said();
        if (said.isPresent()) {
            return said.get();
        }
        try {
            return custodex.gate().mandateFor(phone);
        } catch (ProblemException none) {
            throw noDocket(phone.name());
        }
    }

    private Optional<Mandate> said() {
        return noCustomer ? Optional.of(Mandate.ofShop()) : docket.map(Mandate::ofDocket);
    }

    private static ProblemException noDocket(String subject) {
        return new ProblemException(
                Problem.failure(
                        subject,
                        "No docket says whose it is",
                        "Open one with \"docket open\" and the customer's consent, or say --no-customer if it is the shop's own"));
    }
}
