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
import ezvcard.VCardVersion;
import ezvcard.util.TelUri;
import java.net.URI;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/** Maps a vCard to a contact, property by property. What has no field of its own is kept as an extra. */
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
    private static final Set<String> NO_LABEL = Set.of("voice", "pref", "internet", "text", "msg", "x400", "");

    private static final int NAME_PARTS = 5;
    private static final int ADDRESS_PARTS = 7;

    private final VcardParse card;
    private final UnaryOperator<String> e164;
    private final VcardLosses losses;
    private final VcardLibrary library;
    private final VcardExtras extras;

    /** The owner's words, by group. */
    private final Map<String, String> labels = new HashMap<>();

    /** Groups of which a property shows the label. */
    private final Set<String> labelled = new HashSet<>();

    /** Of properties of which a contact has one, by name. */
    private final Map<String, String> texts = new HashMap<>();

    private final List<String> name = new ArrayList<>();
    private final List<String> organisation = new ArrayList<>();
    private final List<String> nicknames = new ArrayList<>();
    private final List<PhoneNumber> phones = new ArrayList<>();
    private final List<Labelled> mails = new ArrayList<>();
    private final List<Labelled> webs = new ArrayList<>();
    private final List<Labelled> chats = new ArrayList<>();
    private final List<Address> addresses = new ArrayList<>();
    private final List<Labelled> related = new ArrayList<>();
    private final List<String> notes = new ArrayList<>();
    private final List<String> groups = new ArrayList<>();
    private final Map<String, Day> days = new HashMap<>();
    private Optional<Instant> changed = Optional.empty();
    private boolean photo;

    /** @param e164 writes a number in the form of ITU-T E.164; empty when it could not be dialled */
    VcardReading(VcardParse card, UnaryOperator<String> e164, VcardLosses losses) {
        this.card = card;
        this.e164 = e164;
        this.losses = losses;
        this.library = new VcardLibrary(card.version(), losses);
        this.extras = new VcardExtras(losses);
    }

    Contact contact(ThingId id, String account) {
        labels();
        for (var property : card.properties()) {
            if (!comesLast(property)) {
                read(property);
            }
        }
        for (var property : card.properties()) {
            if (comesLast(property)) {
                read(property);
            }
        }
        return new Contact(
                id,
                account,
                text("UID"),
                name(),
                nicknames,
                organisation(),
                phones,
                mails,
                webs,
                chats,
                addresses,
                Optional.ofNullable(days.get("BDAY")),
                Optional.ofNullable(days.get("ANNIVERSARY")),
                related,
                notes,
                groups,
                card.hasPhoto(),
                changed,
                extras.all());
    }

    private void labels() {
        for (var name : List.of(OTHER_LABEL, LABEL)) {
            for (var property : card.properties()) {
                if (property.key().equals(name) && !property.group().isEmpty()) {
                    labels.put(property.group(), property.text());
                }
            }
        }
    }

    /** Read after all the others, because it belongs to one of them or counts only where they say nothing. */
    private static boolean comesLast(CardProperty property) {
        return switch (property.key()) {
            case BIRTHDAY, ANNIVERSARY, LABEL, OTHER_LABEL -> true;
            default -> false;
        };
    }

    private void read(CardProperty property) {
        if (readIntoField(property)) {
            extras.keepParameters(property);
        } else {
            extras.keep(property);
        }
    }

    /** Reads a property into its field. Returns false when there is no such field, or when it has no room for all of the value. */
    private boolean readIntoField(CardProperty property) {
        return switch (property.key()) {
            case "PRODID", "PROFILE" -> true; // tell of the file, not of the person
            case "FN", "TITLE", "ROLE", "UID", SOUND_GIVEN, SOUND_FAMILY -> setOnce(property);
            case "N" -> readName(property);
            case "ORG" -> setOnce(property) && organisation.addAll(property.parts());
            case "NICKNAME" -> addAll(nicknames, property.list());
            case "CATEGORIES" -> addAll(groups, property.list());
            case "NOTE" -> notes.add(property.text());
            case "TEL" -> phones.add(phone(property));
            case "EMAIL" -> mails.add(labelled(property));
            case "URL" -> webs.add(labelled(property));
            case "IMPP" -> isUri(property) && chats.add(labelled(property));
            case CHAT -> chats.add(new Labelled("", property.text()));
            case "ADR" -> readAddress(property);
            case "RELATED" -> related.add(labelled(property));
            case RELATED -> related.add(related(property.text()));
            case "BDAY", "ANNIVERSARY" -> setDay(property.key(), library.day(property));
            case BIRTHDAY -> setDay("BDAY", Days.parse(property.text()));
            case ANNIVERSARY -> setDay("ANNIVERSARY", Days.parse(property.text()));
            case "REV" -> readChanged(property);
            case "PHOTO" -> readPhoto(property);
            case LABEL, OTHER_LABEL -> isLabelUsed(property);
            default -> {
                library.check(property);
                yield false;
            }
        };
    }

    /** Whether the label is shown at a property of its group. */
    private boolean isLabelUsed(CardProperty label) {
        return labelled.contains(label.group()) && label.text().equals(labels.get(label.group()));
    }

    private boolean setOnce(CardProperty property) {
        return !property.value().isBlank() && texts.putIfAbsent(property.key(), property.text()) == null;
    }

    private static boolean addAll(List<String> to, List<String> values) {
        to.addAll(values);
        return true;
    }

    private boolean readName(CardProperty property) {
        if (!setOnce(property)) {
            return false;
        }
        name.addAll(components(property, " "));
        return fits(property, NAME_PARTS);
    }

    private boolean readAddress(CardProperty property) {
        var parts = components(property, ", ");
        addresses.add(new Address(
                label(property),
                part(parts, 0),
                part(parts, 1),
                part(parts, 2),
                part(parts, 3),
                part(parts, 4),
                part(parts, 5),
                part(parts, 6),
                property.isPreferred()));
        return fits(property, ADDRESS_PARTS);
    }

    /** The parts between the semicolons. In vCard 2.1 a comma in one of them is only a comma. */
    private List<String> components(CardProperty property, String between) {
        if (card.version() == VCardVersion.V2_1) {
            return property.parts();
        }
        var components = new ArrayList<String>(NAME_PARTS);
        for (var list : property.lists()) {
            components.add(list.size() == 1 ? list.getFirst() : String.join(between, list));
        }
        return components;
    }

    /** Whether the value has no more parts than these; RFC 9554 adds some. */
    private boolean fits(CardProperty property, int parts) {
        var lists = property.lists();
        for (int i = parts; i < lists.size(); i++) {
            if (!String.join("", lists.get(i)).isEmpty()) {
                return false;
            }
        }
        return true;
    }

    private boolean isUri(CardProperty property) {
        try {
            URI.create(property.text());
            return true;
        } catch (IllegalArgumentException e) {
            losses.odd();
            return false;
        }
    }

    private boolean setDay(String name, Optional<Day> day) {
        return day.isPresent()
                && (days.putIfAbsent(name, day.get()) == null || days.get(name).equals(day.get()));
    }

    private boolean readChanged(CardProperty property) {
        if (changed.isPresent()) {
            return false;
        }
        changed = library.instant(property);
        return changed.isPresent();
    }

    /** The first that is inside the card. */
    private boolean readPhoto(CardProperty property) {
        if (photo || !card.hasPhoto() || !property.isInline()) {
            return false;
        }
        photo = true;
        return true;
    }

    private PhoneNumber phone(CardProperty property) {
        var written = property.text();
        boolean told = property.dataType().filter("uri"::equalsIgnoreCase).isPresent();
        if (told || written.regionMatches(true, 0, "tel:", 0, "tel:".length())) {
            try {
                var uri = TelUri.parse(written);
                written = uri.getNumber() + (uri.getExtension() == null ? "" : " ext. " + uri.getExtension());
            } catch (IllegalArgumentException e) {
                if (told) {
                    losses.odd();
                }
            }
        }
        return new PhoneNumber(label(property), written, e164.apply(written), property.isPreferred());
    }

    private Labelled labelled(CardProperty property) {
        return new Labelled(label(property), property.text(), property.isPreferred());
    }

    /** All types, since a number may be a fax and at work; or the owner's own word, with the types that it does not say. */
    private String label(CardProperty property) {
        labelled.add(property.group());
        var own = labels.getOrDefault(property.group(), "");
        var words = own.toLowerCase(Locale.ROOT);
        var label = new StringBuilder(own);
        var said = new HashSet<String>();
        for (var written : property.types()) {
            var lower = written.toLowerCase(Locale.ROOT);
            var type = lower.equals("cell") ? "mobile" : lower;
            if (!NO_LABEL.contains(type) && said.add(type) && !words.contains(type)) {
                label.append(label.isEmpty() ? "" : " ").append(type);
            }
        }
        return label.toString();
    }

    private static Labelled related(String written) {
        int colon = written.indexOf(": ");
        return colon < 0
                ? new Labelled("", written)
                : new Labelled(written.substring(0, colon), written.substring(colon + 2));
    }

    private PersonName name() {
        return new PersonName(
                text("FN"),
                part(name, 3),
                part(name, 1),
                part(name, 2),
                part(name, 0),
                part(name, 4),
                text(SOUND_GIVEN),
                text(SOUND_FAMILY));
    }

    private Organisation organisation() {
        return new Organisation(
                part(organisation, 0),
                String.join(", ", organisation.subList(Math.min(1, organisation.size()), organisation.size())),
                text("TITLE"),
                text("ROLE"));
    }

    private String text(String property) {
        return texts.getOrDefault(property, "");
    }

    private static String part(List<String> parts, int index) {
        return index < parts.size() ? parts.get(index) : "";
    }
}
