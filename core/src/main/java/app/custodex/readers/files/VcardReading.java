package app.custodex.readers.files;

import app.custodex.model.Contact;
import app.custodex.model.Contact.Address;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Extra;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.ThingId;
import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import ezvcard.VCard;
import ezvcard.property.DateOrTimeProperty;
import ezvcard.property.Note;
import ezvcard.property.StructuredName;
import ezvcard.property.VCardProperty;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoField;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** Maps a vCard to a contact. Properties without a field of their own are kept as extras. */
final class VcardReading {
    /** The owner's own label of a property of the same group. */
    static final String LABEL = "X-LABEL";

    static final String SOUND_GIVEN = "X-PHONETIC-FIRST-NAME";
    static final String SOUND_FAMILY = "X-PHONETIC-LAST-NAME";
    private static final Set<String> KNOWN = Set.of(LABEL, SOUND_GIVEN, SOUND_FAMILY);
    /** Says how a number is used, not whose or where it is. */
    private static final Set<String> NO_LABEL = Set.of("voice", "pref", "internet", "text", "msg");

    private final UnaryOperator<String> e164;

    /** @param e164 writes a number in the form of ITU-T E.164; empty when it could not be dialled */
    VcardReading(UnaryOperator<String> e164) {
        this.e164 = e164;
    }

    Contact contact(ThingId id, String account, VCard card) {
        var labels = labels(card);
        var extras = extras(card);
        return new Contact(
                id,
                account,
                card.getUid() == null ? "" : text(card.getUid().getValue()),
                name(card),
                card.getNicknames().stream()
                        .flatMap(n -> n.getValues().stream())
                        .toList(),
                organisation(card),
                card.getTelephoneNumbers().stream()
                        .map(tel -> phone(
                                label(tel, labels),
                                tel.getText() == null
                                        ? tel.getUri() == null
                                                ? ""
                                                : tel.getUri().getNumber()
                                        : tel.getText()))
                        .toList(),
                card.getEmails().stream()
                        .map(m -> new Labelled(label(m, labels), text(m.getValue())))
                        .toList(),
                card.getUrls().stream()
                        .map(u -> new Labelled(label(u, labels), text(u.getValue())))
                        .toList(),
                card.getImpps().stream()
                        .map(i -> new Labelled(
                                label(i, labels),
                                i.getUri() == null ? "" : i.getUri().toString()))
                        .toList(),
                card.getAddresses().stream()
                        .map(a -> address(a, label(a, labels)))
                        .toList(),
                day(card.getBirthday(), "BDAY", extras),
                day(card.getAnniversary(), "ANNIVERSARY", extras),
                card.getRelations().stream()
                        .map(r -> new Labelled(label(r, labels), text(r.getText() == null ? r.getUri() : r.getText())))
                        .toList(),
                card.getNotes().stream().map(Note::getValue).toList(),
                card.getCategoriesList().stream()
                        .flatMap(c -> c.getValues().stream())
                        .toList(),
                !card.getPhotos().isEmpty() && card.getPhotos().getFirst().getData() != null,
                card.getRevision() == null
                        ? Optional.empty()
                        : revision(card.getRevision().getValue()),
                extras);
    }

    static Optional<byte[]> photo(VCard card) {
        return card.getPhotos().stream()
                .flatMap(photo -> Optional.ofNullable(photo.getData()).stream())
                .findFirst();
    }

    private static String text(@Nullable String value) {
        return value == null ? "" : value;
    }

    private static Map<String, String> labels(VCard card) {
        var labels = new HashMap<String, String>();
        for (var property : card.getExtendedProperties(LABEL)) {
            if (property.getGroup() != null) {
                labels.put(property.getGroup(), unescape(property.getValue()));
            }
        }
        return labels;
    }

    /** Extended properties come as they are written. */
    private static String unescape(@Nullable String value) {
        return VObjectPropertyValues.unescape(text(value));
    }

    private static List<Extra> extras(VCard card) {
        var extras = new ArrayList<Extra>();
        for (var property : card.getExtendedProperties()) {
            if (!KNOWN.contains(property.getPropertyName().toUpperCase(Locale.ROOT))) {
                extras.add(new Extra(property.getPropertyName(), unescape(property.getValue())));
            }
        }
        return extras;
    }

    private static String label(VCardProperty property, Map<String, String> labels) {
        var own = property.getGroup() == null ? null : labels.get(property.getGroup());
        if (own != null) {
            return own;
        }
        return property.getParameters("TYPE").stream()
                .map(type -> type.toLowerCase(Locale.ROOT))
                .filter(type -> !NO_LABEL.contains(type))
                .findFirst()
                .map(type -> type.equals("cell") ? "mobile" : type)
                .orElse("");
    }

    private PhoneNumber phone(String label, String written) {
        return new PhoneNumber(label, written, e164.apply(written));
    }

    private static PersonName name(VCard card) {
        var n = card.getStructuredName() == null ? new StructuredName() : card.getStructuredName();
        return new PersonName(
                card.getFormattedName() == null
                        ? ""
                        : text(card.getFormattedName().getValue()),
                String.join(" ", n.getPrefixes()),
                text(n.getGiven()),
                String.join(" ", n.getAdditionalNames()),
                text(n.getFamily()),
                String.join(" ", n.getSuffixes()),
                extended(card, SOUND_GIVEN),
                extended(card, SOUND_FAMILY));
    }

    private static String extended(VCard card, String name) {
        return card.getExtendedProperties(name).stream()
                .findFirst()
                .map(p -> unescape(p.getValue()))
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
                        : text(card.getTitles().getFirst().getValue()),
                card.getRoles().isEmpty() ? "" : text(card.getRoles().getFirst().getValue()));
    }

    private static Address address(ezvcard.property.Address a, String label) {
        return new Address(
                label,
                String.join(", ", a.getPoBoxes()),
                String.join(", ", a.getExtendedAddresses()),
                String.join(", ", a.getStreetAddresses()),
                String.join(", ", a.getLocalities()),
                String.join(", ", a.getRegions()),
                String.join(", ", a.getPostalCodes()),
                String.join(", ", a.getCountries()));
    }

    private static Optional<Day> day(@Nullable DateOrTimeProperty property, String name, List<Extra> extras) {
        if (property == null) {
            return Optional.empty();
        }
        if (property.getDate() != null) {
            try {
                var date = LocalDate.from(property.getDate());
                return Optional.of(new Day(Optional.of(date.getYear()), date.getMonthValue(), date.getDayOfMonth()));
            } catch (DateTimeException e) {
                extras.add(new Extra(name, property.getDate().toString()));
                return Optional.empty();
            }
        }
        var partial = property.getPartialDate();
        if (partial != null && partial.getMonth() != null && partial.getDate() != null) {
            return Optional.of(new Day(Optional.ofNullable(partial.getYear()), partial.getMonth(), partial.getDate()));
        }
        extras.add(new Extra(name, property.getText() != null ? property.getText() : String.valueOf(partial)));
        return Optional.empty();
    }

    private static Optional<Instant> revision(@Nullable Temporal value) {
        return value != null && value.isSupported(ChronoField.INSTANT_SECONDS)
                ? Optional.of(Instant.from(value))
                : Optional.empty();
    }
}
