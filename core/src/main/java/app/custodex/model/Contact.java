package app.custodex.model;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * A person, firm or thing in somebody's phone.
 *
 * @param account the account or folder that it is kept in; empty for the phone's own
 * @param uid the phone's lasting identifier of it; may be empty
 * @param chats addresses in chat services, as "service:name"
 * @param birthday absent when the phone has none, or one that is no date (which is then among the extras)
 * @param hasPhoto whether its book gives a photo of it
 * @param changed last change by the phone's clock, UTC
 * @param extras what the phone keeps beyond the fields above, as written
 */
public record Contact(
        ThingId id,
        String account,
        String uid,
        PersonName name,
        List<String> nicknames,
        Organisation organisation,
        List<PhoneNumber> phones,
        List<Labelled> mails,
        List<Labelled> webs,
        List<Labelled> chats,
        List<Address> addresses,
        Optional<Day> birthday,
        Optional<Day> anniversary,
        List<Labelled> related,
        List<String> notes,
        List<String> groups,
        boolean hasPhoto,
        Optional<Instant> changed,
        List<Extra> extras)
        implements Thing {
    public Contact {
        nicknames = List.copyOf(nicknames);
        phones = List.copyOf(phones);
        mails = List.copyOf(mails);
        webs = List.copyOf(webs);
        chats = List.copyOf(chats);
        addresses = List.copyOf(addresses);
        related = List.copyOf(related);
        notes = List.copyOf(notes);
        groups = List.copyOf(groups);
        extras = List.copyOf(extras);
    }

    @Override
    public ThingKind kind() {
        return ThingKind.CONTACT;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(name.display());
        to.accept(name.composed());
        to.accept(name.phoneticGiven());
        to.accept(name.phoneticFamily());
        to.accept(organisation.name());
        to.accept(organisation.department());
        to.accept(organisation.title());
        to.accept(organisation.role());
        nicknames.forEach(to);
        groups.forEach(to);
        notes.forEach(to);
        mails.forEach(mail -> to.accept(mail.value()));
        webs.forEach(web -> to.accept(web.value()));
        chats.forEach(chat -> to.accept(chat.value()));
        addresses.forEach(address -> to.accept(String.join(" ", address.lines())));
        phones.forEach(phone -> {
            to.accept(phone.written());
            to.accept(phone.e164());
        });
        for (var extra : extras) {
            if (!extra.value().startsWith("data:")) {
                to.accept(extra.value());
            }
        }
    }

    /** What to call it where one line is all there is: its name, else its firm, else how it is reached. */
    @Override
    public String title() {
        if (!name.display().isBlank()) {
            return name.display();
        }
        return Stream.of(
                        Stream.of(name.composed(), organisation.name()),
                        nicknames.stream(),
                        phones.stream().map(PhoneNumber::written),
                        mails.stream().map(Labelled::value))
                .flatMap(s -> s)
                .filter(text -> !text.isBlank())
                .findFirst()
                .orElse("(no name)");
    }

    /**
     * Empty text for a part that is not there.
     *
     * @param display the name as the phone shows it
     * @param phoneticGiven how the given name is spoken, or its Latin form
     * @param phoneticFamily likewise
     */
    public record PersonName(
            String display,
            String prefix,
            String given,
            String middle,
            String family,
            String suffix,
            String phoneticGiven,
            String phoneticFamily) {
        /** The parts in the order in which they are spoken. */
        public String composed() {
            var text = new StringBuilder();
            for (var part : List.of(prefix, given, middle, family, suffix)) {
                if (!part.isBlank()) {
                    text.append(text.isEmpty() ? "" : " ").append(part.strip());
                }
            }
            return text.toString();
        }
    }

    public record Organisation(String name, String department, String title, String role) {
        public static final Organisation NONE = new Organisation("", "", "", "");

        public boolean isEmpty() {
            return name.isEmpty() && department.isEmpty() && title.isEmpty() && role.isEmpty();
        }
    }

    /**
     * @param label "home", "work fax", "mobile" or whatever its owner wrote; may be empty
     * @param preferred whether it is the one to use among several
     */
    public record Labelled(String label, String value, boolean preferred) {
        public Labelled(String label, String value) {
            this(label, value, false);
        }
    }

    /**
     * @param label as in {@link Labelled}
     * @param written as it is on the phone
     * @param e164 in the form of ITU-T E.164; empty when it is no number that could be dialled
     * @param preferred whether it is the one to use among several
     */
    public record PhoneNumber(String label, String written, String e164, boolean preferred) {
        public PhoneNumber(String label, String written, String e164) {
            this(label, written, e164, false);
        }
    }

    public record Address(
            String label,
            String box,
            String extended,
            String street,
            String town,
            String region,
            String code,
            String country,
            boolean preferred) {
        public Address(
                String label,
                String box,
                String extended,
                String street,
                String town,
                String region,
                String code,
                String country) {
            this(label, box, extended, street, town, region, code, country, false);
        }

        /** The parts that are there, from the small to the large. */
        public List<String> lines() {
            return Stream.of(box, extended, street, (code + " " + town).strip(), region, country)
                    .filter(part -> !part.isBlank())
                    .toList();
        }
    }

    /**
     * A day that comes every year.
     *
     * @param year absent when only the day is known
     */
    public record Day(Optional<Integer> year, int month, int day) {
        /** ISO 8601, or "--MM-DD" without a year (RFC 6350 §4.3.1, after ISO 8601:2000). */
        public String iso() {
            return year.map(y -> String.format(Locale.ROOT, "%04d-", y)).orElse("--")
                    + String.format(Locale.ROOT, "%02d-%02d", month, day);
        }
    }

    /**
     * What has no field of its own.
     *
     * @param name of a vCard property (RFC 6350), or an "X-" name
     * @param parameters as vCard writes them, such as "PREF=1;TYPE=work"; may be empty
     * @param value as vCard writes it under a name of the standard; plain text under an "X-" name
     */
    public record Extra(String name, String parameters, String value) {
        public Extra(String name, String value) {
            this(name, "", value);
        }
    }
}
