package app.custodex.docket;

import app.custodex.link.PhoneIdentity;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import java.net.URI;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
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
 * @param done when each step was last done, UTC; for the check-in, when it was first
 * @param layers numbers of the layers made for this docket
 * @param automatic absent when each backup is started by hand
 * @param own whether it is for a phone of the shop's own: there is no customer whose consent is needed
 * @param country in which numbers without one are dialled, where the source does not say, by ISO 3166-1 alpha-2; empty for that of
 *     whoever looks
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
        Optional<Automatic> automatic,
        boolean own,
        @JsonSetter(nulls = Nulls.AS_EMPTY) String country) {
    public Docket {
        Objects.requireNonNull(opened);
        Objects.requireNonNull(customer);
        Objects.requireNonNull(consent);
        Objects.requireNonNull(address);
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
        return label(number);
    }

    /** "0412". */
    public static String label(int number) {
        return String.format(Locale.ROOT, "%04d", number);
    }

    /** Whether anything may be done to the phone's data: the customer has given consent, or there is no customer. */
    public boolean mayBeWorkedOn() {
        return own || consent.isPresent();
    }

    public Docket withPhone(PhoneIdentity identity) {
        return with(formed(), Optional.of(identity), done, layers, automatic);
    }

    public Docket withDone(RouteStep step, Instant at) {
        if (step == RouteStep.CHECK_IN && done.containsKey(step)) {
            return this; // a docket that is changed was checked in when it was opened
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

    /** With the customer's consent, or without it. */
    public Docket withConsent(Optional<Consent> newConsent) {
        return withForm(new Form(customer, reach, reason, newConsent, promised, own, country));
    }

    /** With what was written on the check-in form. */
    public Docket withForm(Form form) {
        return with(form, phone, done, layers, automatic);
    }

    private Form formed() {
        return new Form(customer, reach, reason, consent, promised, own, country);
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
                newAutomatic,
                form.own(),
                form.country());
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
            Optional<LocalDateTime> promised,
            boolean own,
            String country) {
        /** In the country of whoever looks. */
        public Form(
                String customer,
                String reach,
                String reason,
                Optional<Consent> consent,
                Optional<LocalDateTime> promised,
                boolean own) {
            this(customer, reach, reason, consent, promised, own, "");
        }

        /** For a customer's phone. */
        public Form(
                String customer,
                String reach,
                String reason,
                Optional<Consent> consent,
                Optional<LocalDateTime> promised) {
            this(customer, reach, reason, consent, promised, false);
        }
    }
}
