package app.custodex.docket;

import app.custodex.link.PhoneIdentity;
import com.fasterxml.jackson.annotation.JsonIgnore;
import java.net.URI;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One job. Immutable; each change gives a new record with the same number.
 *
 * @param number counts from 1 in each shop
 * @param opened UTC
 * @param customer name
 * @param reach how the customer is reached while the phone is here; may be empty
 * @param reason what the customer wants, in a sentence
 * @param consent absent until the customer gave it
 * @param promised when the phone is to be ready, in the shop's local time
 * @param address where the phone was plugged in
 * @param phone as it described itself; absent until it trusted the bench
 * @param done when each step was first done, UTC
 * @param layers numbers of the layers made for this docket
 * @param automatic absent when each backup is started by hand
 */
public record Docket(
        int number,
        Instant opened,
        String customer,
        String reach,
        String reason,
        Optional<Consent> consent,
        Optional<LocalDateTime> promised,
        URI address,
        Optional<PhoneIdentity> phone,
        Map<RouteStep, Instant> done,
        List<Integer> layers,
        Optional<Automatic> automatic) {
    public Docket {
        done = Map.copyOf(done);
        layers = List.copyOf(layers);
    }

    /**
     * @param given UTC
     * @param extent what may be done with the data, in the shop's words
     */
    public record Consent(Instant given, String extent) {}

    /** "0412". */
    @JsonIgnore
    public String label() {
        return "%04d".formatted(number);
    }

    public Docket withPhone(PhoneIdentity identity) {
        return with(formed(), Optional.of(identity), done, layers, automatic);
    }

    public Docket withDone(RouteStep step, Instant at) {
        if (done.containsKey(step)) {
            return this;
        }
        var steps = new EnumMap<RouteStep, Instant>(RouteStep.class);
        steps.putAll(done);
        steps.put(step, at);
        return with(formed(), phone, steps, layers, automatic);
    }

    public Docket withLayer(int layer) {
        var more = new ArrayList<>(layers);
        more.add(layer);
        return with(formed(), phone, done, more, automatic);
    }

    public Docket withAutomatic(Optional<Automatic> when) {
        return with(formed(), phone, done, layers, when);
    }

    /** With what was written on the check-in form. */
    public Docket withForm(Form form) {
        return with(form, phone, done, layers, automatic);
    }

    private Form formed() {
        return new Form(customer, reach, reason, consent, promised);
    }

    private Docket with(
            Form form,
            Optional<PhoneIdentity> newPhone,
            Map<RouteStep, Instant> newDone,
            List<Integer> newLayers,
            Optional<Automatic> newAutomatic) {
        return new Docket(
                number,
                opened,
                form.customer(),
                form.reach(),
                form.reason(),
                form.consent(),
                form.promised(),
                address,
                newPhone,
                newDone,
                newLayers,
                newAutomatic);
    }

    /**
     * When the phone is backed up without anybody asking.
     *
     * @param daily each day from this time on, by the shop's clock, as soon as the phone is ready; empty for each time that it is
     *     plugged in
     * @param since from when on, UTC
     */
    public record Automatic(Optional<LocalTime> daily, Instant since) {}

    /** What a technician writes down. */
    public record Form(
            String customer,
            String reach,
            String reason,
            Optional<Consent> consent,
            Optional<LocalDateTime> promised) {}
}
