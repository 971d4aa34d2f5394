package app.custodex.readers.files;

import app.custodex.model.Contact;
import app.custodex.model.Contact.Address;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.ThingId;
import app.custodex.readers.Days;
import ezvcard.VCard;
import ezvcard.property.DateOrTimeProperty;
import ezvcard.property.Note;
import ezvcard.property.StructuredName;
import ezvcard.property.Telephone;
import ezvcard.property.VCardProperty;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoField;
import java.time.temporal.Temporal;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Maps a vCard to a contact. What has no field of its own is kept as an extra. */
final class VcardReading {
    /** The owner's own label of a property of the same group. */
    static final String LABEL = "X-LABEL";

    /** The same, as address books write it. */
    static final String OTHER_LABEL = "X-ABLABEL";

    static final String SOUND_GIVEN = "X-PHONETIC-FIRST-NAME";
    static final String SOUND_FAMILY = "X-PHONETIC-LAST-NAME";

    /** What vCard 3.0 has no property for. */
    static final String BIRTHDAY = "X-BIRTHDAY";

    static final String ANNIVERSARY = "X-ANNIVERSARY";
    static final String RELATED = "X-RELATED";

    /** An address in a chat service that is no URI. */
    static final String CHAT = "X-CHAT";

    /** Says how a number is used, not whose or where it is. */
    private static final Set<String> NO_LABEL = Set.of("voice", "pref", "internet", "text", "msg", "x400");

    private final VcardParse parse;
    private final VCard card;
    private final UnaryOperator<String> e164;
    private final VcardLosses losses;
    private final Map<String, String> labels;
    private final Set<String> unread = new HashSet<>();

    /** @param e164 writes a number in the form of ITU-T E.164; empty when it could not be dialled */
    VcardReading(VcardParse parse, UnaryOperator<String> e164, VcardLosses losses) {
        this.parse = parse;
        this.card = parse.card();
        this.e164 = e164;
        this.losses = losses;
        this.labels = labels(card);
    }

    Contact contact(ThingId id, String account) {
        var birthday = day(card.getBirthday(), "BDAY", BIRTHDAY);
        var anniversary = day(card.getAnniversary(), "ANNIVERSARY", ANNIVERSARY);
        var changed = card.getRevision() == null
                ? Optional.<Instant>empty()
                : revision(card.getRevision().getValue());
        if (changed.isEmpty()) {
            unread.add("REV");
        }
        return new Contact(
                id,
                account,
                parse.uid(),
                name(card),
                card.getNicknames().stream()
                        .flatMap(n -> n.getValues().stream())
                        .toList(),
                organisation(card),
                card.getTelephoneNumbers().stream().map(this::phone).toList(),
                card.getEmails().stream()
                        .map(m -> labelled(m, VcardParse.text(m.getValue())))
                        .toList(),
                card.getUrls().stream()
                        .map(u -> labelled(u, VcardParse.text(u.getValue())))
                        .toList(),
                Stream.concat(
                                card.getImpps().stream()
                                        .map(i -> labelled(
                                                i,
                                                i.getUri() == null
                                                        ? ""
                                                        : i.getUri().toString())),
                                own(CHAT).map(chat -> new Labelled("", chat)))
                        .toList(),
                card.getAddresses().stream()
                        .map(a -> address(a, label(a), isPreferred(a)))
                        .toList(),
                birthday,
                anniversary,
                Stream.concat(
                                card.getRelations().stream()
                                        .map(r -> labelled(
                                                r, VcardParse.text(r.getText() == null ? r.getUri() : r.getText()))),
                                own(RELATED).map(VcardReading::related))
                        .toList(),
                card.getNotes().stream().map(Note::getValue).toList(),
                card.getCategoriesList().stream()
                        .flatMap(c -> c.getValues().stream())
                        .toList(),
                parse.hasPhoto(),
                changed,
                new VcardExtras(parse, losses).of(unread));
    }

    private static Labelled related(String written) {
        int colon = written.indexOf(": ");
        return colon < 0
                ? new Labelled("", written)
                : new Labelled(written.substring(0, colon), written.substring(colon + 2));
    }

    /** Values of a property that is not of the standard, as texts. */
    private Stream<String> own(String name) {
        return card.getExtendedProperties(name).stream()
                .map(property -> VcardExtras.unescape(VcardParse.text(property.getValue())));
    }

    private static Map<String, String> labels(VCard card) {
        var labels = new HashMap<String, String>();
        for (var name : List.of(OTHER_LABEL, LABEL)) {
            for (var property : card.getExtendedProperties(name)) {
                if (property.getGroup() != null) {
                    labels.put(property.getGroup(), VcardExtras.unescape(VcardParse.text(property.getValue())));
                }
            }
        }
        return labels;
    }

    private Labelled labelled(VCardProperty property, String value) {
        return new Labelled(label(property), value, isPreferred(property));
    }

    /** All types, since a number may be a fax and at work; or the owner's own word, with the types that it does not say. */
    private String label(VCardProperty property) {
        var own = property.getGroup() == null ? "" : labels.getOrDefault(property.getGroup(), "");
        var words = own.toLowerCase(Locale.ROOT);
        return Stream.concat(
                        Stream.of(own),
                        property.getParameters("TYPE").stream()
                                .map(type -> type.toLowerCase(Locale.ROOT))
                                .filter(type -> !NO_LABEL.contains(type))
                                .map(type -> type.equals("cell") ? "mobile" : type)
                                .distinct()
                                .filter(type -> !words.contains(type)))
                .filter(word -> !word.isEmpty())
                .collect(Collectors.joining(" "));
    }

    private static boolean isPreferred(VCardProperty property) {
        return property.getParameters().first("PREF") != null
                || property.getParameters("TYPE").stream().anyMatch("pref"::equalsIgnoreCase);
    }

    private PhoneNumber phone(Telephone tel) {
        var written = VcardParse.text(tel.getText());
        var uri = tel.getUri();
        if (tel.getText() == null && uri != null) {
            written = uri.getNumber() + (uri.getExtension() == null ? "" : " ext. " + uri.getExtension());
        }
        return new PhoneNumber(label(tel), written, e164.apply(written), isPreferred(tel));
    }

    private static PersonName name(VCard card) {
        var n = card.getStructuredName() == null ? new StructuredName() : card.getStructuredName();
        return new PersonName(
                card.getFormattedName() == null
                        ? ""
                        : VcardParse.text(card.getFormattedName().getValue()),
                String.join(" ", n.getPrefixes()),
                VcardParse.text(n.getGiven()),
                String.join(" ", n.getAdditionalNames()),
                VcardParse.text(n.getFamily()),
                String.join(" ", n.getSuffixes()),
                extended(card, SOUND_GIVEN),
                extended(card, SOUND_FAMILY));
    }

    private static String extended(VCard card, String name) {
        return card.getExtendedProperties(name).stream()
                .findFirst()
                .map(p -> VcardExtras.unescape(VcardParse.text(p.getValue())))
                .orElse("");
    }

    private static Organisation organisation(VCard card) {
        var org = card.getOrganization() == null
                ? List.<String>of()
                : card.getOrganization().getValues();
        return new Organisation(
                org.isEmpty() ? "" : org.getFirst(),
                String.join(", ", org.subList(Math.min(1, org.size()), org.size())),
                card.getTitles().isEmpty()
                        ? ""
                        : VcardParse.text(card.getTitles().getFirst().getValue()),
                card.getRoles().isEmpty()
                        ? ""
                        : VcardParse.text(card.getRoles().getFirst().getValue()));
    }

    private static Address address(ezvcard.property.Address a, String label, boolean preferred) {
        return new Address(
                label,
                String.join(", ", a.getPoBoxes()),
                String.join(", ", a.getExtendedAddresses()),
                String.join(", ", a.getStreetAddresses()),
                String.join(", ", a.getLocalities()),
                String.join(", ", a.getRegions()),
                String.join(", ", a.getPostalCodes()),
                String.join(", ", a.getCountries()),
                preferred);
    }

    /** @param other the property that stands for it where the version has none */
    private Optional<Day> day(@Nullable DateOrTimeProperty property, String name, String other) {
        var day = property == null ? own(other).findFirst().flatMap(Days::parse) : day(property);
        if (day.isEmpty()) {
            unread.add(name);
            unread.add(other);
        }
        return day;
    }

    private static Optional<Day> day(DateOrTimeProperty property) {
        if (property.getDate() != null) {
            try {
                var date = LocalDate.from(property.getDate());
                return Optional.of(new Day(Optional.of(date.getYear()), date.getMonthValue(), date.getDayOfMonth()));
            } catch (DateTimeException e) {
                return Optional.empty();
            }
        }
        var partial = property.getPartialDate();
        return partial != null && partial.getMonth() != null && partial.getDate() != null
                ? Optional.of(new Day(Optional.ofNullable(partial.getYear()), partial.getMonth(), partial.getDate()))
                : Optional.empty();
    }

    private static Optional<Instant> revision(@Nullable Temporal value) {
        return value != null && value.isSupported(ChronoField.INSTANT_SECONDS)
                ? Optional.of(Instant.from(value))
                : Optional.empty();
    }
}
