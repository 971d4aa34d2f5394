package app.custodex.cli;

import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.PhoneIdentity;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Finds the phone that a person means: by bay number, name, identifier, serial number or address. */
final class PhoneFinder {
    private static final Duration ASK_EVERY = Duration.ofMillis(300);

    private PhoneFinder() {}

    private static boolean means(String words, PhoneIdentity phone) {
        var wanted = words.toLowerCase(Locale.ROOT);
        return List.of(phone.name(), phone.identifier(), phone.serial(), phone.model()).stream()
                .anyMatch(text -> text.toLowerCase(Locale.ROOT).equals(wanted));
    }

    /** A phone in the strongroom. */
    static StoredPhone stored(Custodex custodex, String words) throws IOException {
        var phones = custodex.strongroom().holdings().phones();
        return phones.stream()
                .filter(phone -> means(words, phone.identity()))
                .findFirst()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        words,
                        "There is no copy of such a phone",
                        phones.isEmpty()
                                ? "The strongroom is empty; make a backup first"
                                : "There are: "
                                        + String.join(
                                                ", ",
                                                phones.stream()
                                                        .map(p -> p.identity().name())
                                                        .toList()))));
    }

    private static boolean means(String words, Bay bay) {
        var wanted = words.toLowerCase(Locale.ROOT);
        return wanted.equals(Integer.toString(bay.number()))
                || wanted.equals(bay.source().name().toLowerCase(Locale.ROOT))
                || wanted.equals(bay.address().toString())
                || bay.status()
                        .filter(s -> s.model().toLowerCase(Locale.ROOT).equals(wanted)
                                || s.family().code().equals(wanted)
                                || s.identity()
                                        .filter(phone -> means(words, phone))
                                        .isPresent())
                        .isPresent();
    }

    /** The bay that is meant; empty when there is none, or its phone must be plugged in first to be known by these words. */
    static Optional<Bay> bay(Custodex custodex, String words) {
        custodex.bays().all().forEach(Bay::ask);
        return custodex.bays().all().stream().filter(b -> means(words, b)).findFirst();
    }

    /** The bay that is meant. */
    static Bay known(Custodex custodex, String words) throws ProblemException {
        return bay(custodex, words)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        words, "Nothing on the bench is called so", "See \"source list\" for what is")));
    }

    /** Tells what a phone waits for. */
    interface Waiting {
        void tell(String what);
    }

    /**
     * A phone that is plugged in and ready, waiting for it if need be.
     *
     * @throws ProblemException when it is not ready after the time, saying what it still needs
     */
    static Bay ready(Custodex custodex, String words, Duration patience, Waiting waiting) throws IOException {
        long until = System.nanoTime() + patience.toNanos();
        Optional<String> told = Optional.empty();
        while (true) {
            var bay = bay(custodex, words);
            if (bay.isPresent()
                    && bay.get().status().filter(s -> s.readiness().ready()).isPresent()) {
                return bay.get();
            }
            var trouble = trouble(words, bay);
            if (System.nanoTime() >= until) {
                throw new ProblemException(trouble);
            }
            if (told.isEmpty() || !told.get().equals(trouble.advice())) {
                waiting.tell(trouble.sentence());
                told = Optional.of(trouble.advice());
            }
            try {
                Thread.sleep(ASK_EVERY);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new ProblemException(trouble, e);
            }
        }
    }

    private static Problem trouble(String words, Optional<Bay> bay) {
        var status = bay.flatMap(Bay::status);
        if (status.isEmpty()) {
            return Problem.failure(
                    words, "No such phone is plugged in", "Plug it in, or see \"phones\" for those that are");
        }
        return status.get()
                .readiness()
                .next()
                .map(step -> Problem.failure(status.get().model(), "The phone " + step.waiting(), step.instruction()))
                .orElseGet(() -> Problem.failure(words, "The phone is not ready", "Wait a moment"));
    }
}
