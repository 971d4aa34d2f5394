package app.custodex.extract.contacts;

import app.custodex.base.Problem;
import app.custodex.extract.Batch;
import app.custodex.extract.Clean;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Labelled;
import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import ezvcard.VCard;
import ezvcard.VCardVersion;
import ezvcard.parameter.ImageType;
import ezvcard.property.Address;
import ezvcard.property.Anniversary;
import ezvcard.property.Birthday;
import ezvcard.property.Categories;
import ezvcard.property.Email;
import ezvcard.property.FormattedName;
import ezvcard.property.Impp;
import ezvcard.property.Nickname;
import ezvcard.property.Note;
import ezvcard.property.Organization;
import ezvcard.property.Photo;
import ezvcard.property.ProductId;
import ezvcard.property.RawProperty;
import ezvcard.property.Related;
import ezvcard.property.Revision;
import ezvcard.property.Role;
import ezvcard.property.StructuredName;
import ezvcard.property.Telephone;
import ezvcard.property.Title;
import ezvcard.property.Uid;
import ezvcard.property.VCardProperty;
import ezvcard.util.PartialDate;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Maps contacts to vCards of one version. What the version has no property for goes into an X- property, and is told. */
final class VcardMapping {
    // RFC 6350 §6.4.1 and §5.6; in RFC 2426 §3.3.1 too.
    private static final Set<String> TYPES =
            Set.of("home", "work", "fax", "pager", "video", "textphone", "car", "isdn", "modem", "bbs", "pcs");
    private static final Set<String> TYPES_OF_4 = Set.of("home", "work", "fax", "pager", "video", "textphone");
    /** The owner's own label of a property of the same group: our name for it, and the one that address books know. */
    private static final List<String> OWN_LABELS = List.of("X-LABEL", "X-ABLabel");

    // RFC 6350 §6.6.6
    private static final Set<String> RELATIONS = Set.of(
            "contact",
            "acquaintance",
            "friend",
            "met",
            "co-worker",
            "colleague",
            "co-resident",
            "neighbor",
            "child",
            "parent",
            "sibling",
            "spouse",
            "kin",
            "muse",
            "crush",
            "date",
            "sweetheart",
            "me",
            "agent",
            "emergency");

    private final VCardVersion version;
    private final Batch batch;

    VcardMapping(VCardVersion version, Batch batch) {
        this.version = version;
        this.batch = batch;
    }

    VCard card(Contact contact) {
        var card = new VCard(version);
        card.setProductId(new ProductId("-//Custodex//Contacts//EN"));
        card.setFormattedName(new FormattedName(Clean.text(contact.title())));
        card.setStructuredName(name(contact.name()));
        optional(card, "X-PHONETIC-FIRST-NAME", contact.name().phoneticGiven());
        optional(card, "X-PHONETIC-LAST-NAME", contact.name().phoneticFamily());
        if (!contact.uid().isEmpty()) {
            card.setUid(new Uid(Clean.text(contact.uid())));
        }
        if (!contact.nicknames().isEmpty()) {
            var nickname = new Nickname();
            contact.nicknames().forEach(n -> nickname.getValues().add(Clean.text(n)));
            card.addNickname(nickname);
        }
        organisation(card, contact.organisation());
        var labels = new Labels(card);
        for (var phone : contact.phones()) {
            labels.put(
                    phone.label(),
                    phone.preferred(),
                    card::addTelephoneNumber,
                    new Telephone(Clean.text(phone.written())));
        }
        for (var mail : contact.mails()) {
            labels.put(mail.label(), mail.preferred(), card::addEmail, new Email(Clean.text(mail.value())));
        }
        for (var web : contact.webs()) {
            // Written raw: a URI is not escaped (RFC 6350 §6.7.8), though the library would.
            labels.put(
                    web.label(), web.preferred(), card::addProperty, new RawProperty("URL", Clean.line(web.value())));
        }
        contact.chats().forEach(chat -> chat(card, labels, chat));
        contact.addresses().forEach(a -> labels.put(a.label(), a.preferred(), card::addAddress, address(a)));
        contact.birthday().ifPresent(day -> birthday(card, day));
        contact.anniversary().ifPresent(day -> anniversary(card, day));
        contact.related().forEach(related -> related(card, related));
        contact.notes().forEach(note -> card.addNote(new Note(Clean.text(note))));
        if (!contact.groups().isEmpty()) {
            var categories = new Categories();
            contact.groups().forEach(g -> categories.getValues().add(Clean.text(g)));
            card.setCategories(categories);
        }
        contact.changed().ifPresent(at -> card.setRevision(new Revision(at)));
        contact.extras().forEach(extra -> VcardExtraNames.of(version, extra).ifPresent(card::addProperty));
        photo(card, contact);
        return card;
    }

    private static StructuredName name(Contact.PersonName name) {
        var n = new StructuredName();
        n.setFamily(Clean.text(name.family()));
        n.setGiven(Clean.text(name.given()));
        part(n.getAdditionalNames(), name.middle());
        part(n.getPrefixes(), name.prefix());
        part(n.getSuffixes(), name.suffix());
        return n;
    }

    private static void part(List<String> to, String value) {
        if (!value.isEmpty()) {
            to.add(Clean.text(value));
        }
    }

    private static void organisation(VCard card, Contact.Organisation from) {
        if (!from.name().isEmpty() || !from.department().isEmpty()) {
            var organization = new Organization();
            organization.getValues().add(Clean.text(from.name()));
            part(organization.getValues(), from.department());
            card.setOrganization(organization);
        }
        if (!from.title().isEmpty()) {
            card.addTitle(new Title(Clean.text(from.title())));
        }
        if (!from.role().isEmpty()) {
            card.addRole(new Role(Clean.text(from.role())));
        }
    }

    private static void chat(VCard card, Labels labels, Labelled chat) {
        try {
            labels.put(chat.label(), chat.preferred(), card::addImpp, new Impp(new URI(Clean.line(chat.value()))));
        } catch (URISyntaxException e) {
            optional(card, "X-CHAT", chat.value());
        }
    }

    private static Address address(Contact.Address from) {
        var address = new Address();
        address.setPoBox(Clean.text(from.box()));
        address.setExtendedAddress(Clean.text(from.extended()));
        address.setStreetAddress(Clean.text(from.street()));
        address.setLocality(Clean.text(from.town()));
        address.setRegion(Clean.text(from.region()));
        address.setPostalCode(Clean.text(from.code()));
        address.setCountry(Clean.text(from.country()));
        return address;
    }

    private void birthday(VCard card, Day day) {
        var date = date(day);
        if (date.isPresent()) {
            card.setBirthday(new Birthday(date.get()));
        } else if (version == VCardVersion.V4_0 && day.year().isEmpty()) {
            card.setBirthday(new Birthday(partial(day)));
        } else {
            optional(card, "X-BIRTHDAY", day.iso());
            batch.leftOut(
                    day.year().isEmpty()
                            ? "birthdays without a year, which are in X-BIRTHDAY"
                            : "birthdays that are on no calendar, which are in X-BIRTHDAY");
        }
    }

    private void anniversary(VCard card, Day day) {
        var date = date(day);
        if (version != VCardVersion.V4_0 || (date.isEmpty() && day.year().isPresent())) {
            optional(card, "X-ANNIVERSARY", day.iso());
        } else {
            card.setAnniversary(date.map(Anniversary::new).orElseGet(() -> new Anniversary(partial(day))));
        }
    }

    /** Empty for a day without a year, and for one that is on no calendar, such as 29 February 1999. */
    private static Optional<LocalDate> date(Day day) {
        try {
            return day.year().map(year -> LocalDate.of(year, day.month(), day.day()));
        } catch (DateTimeException onNoCalendar) {
            return Optional.empty();
        }
    }

    private static PartialDate partial(Day day) {
        return PartialDate.builder().month(day.month()).date(day.day()).build();
    }

    private void related(VCard card, Labelled from) {
        if (version != VCardVersion.V4_0) {
            optional(card, "X-RELATED", from.label().isEmpty() ? from.value() : from.label() + ": " + from.value());
            return;
        }
        var related = new Related();
        related.setText(Clean.text(from.value()));
        var label = from.label().toLowerCase(Locale.ROOT);
        if (RELATIONS.contains(label)) {
            related.getParameters().put("TYPE", label);
        } else if (!label.isEmpty()) {
            batch.leftOut("words for a relation that vCard does not know");
        }
        card.addRelated(related);
    }

    private static void optional(VCard card, String name, String value) {
        if (!value.isEmpty()) {
            card.addProperty(new RawProperty(name, VObjectPropertyValues.escape(Clean.text(value))));
        }
    }

    private void photo(VCard card, Contact contact) {
        ContactPhotos.of(contact, batch)
                .ifPresent(bytes -> PictureFormat.of(bytes)
                        .ifPresentOrElse(
                                type -> card.addPhoto(new Photo(bytes, ImageType.get(null, type.mediaType(), null))),
                                () -> batch.problem(Problem.loss(
                                        contact.title(),
                                        "The photo is in no format that vCard readers know",
                                        "Take it out as a file"))));
    }

    /** Puts labels on properties: a TYPE where the standard has one, else the owner's words in a grouped X-LABEL. */
    private final class Labels {
        private final VCard card;
        private int group;

        Labels(VCard card) {
            this.card = card;
        }

        private interface Add<P> {
            void to(P property);
        }

        <P extends VCardProperty> void put(String label, boolean preferred, Add<P> add, P property) {
            var words = label.isBlank()
                    ? List.<String>of()
                    : List.of(label.strip().toLowerCase(Locale.ROOT).split(" ", -1));
            if (words.stream().allMatch(this::isType)) {
                words.forEach(word -> property.addParameter("TYPE", word.equals("mobile") ? "cell" : word));
            } else {
                group++;
                property.setGroup("item" + group);
                for (var name : OWN_LABELS) {
                    var own = new RawProperty(name, VObjectPropertyValues.escape(Clean.text(label)));
                    own.setGroup("item" + group);
                    card.addProperty(own);
                }
            }
            if (preferred) {
                property.addParameter(
                        version == VCardVersion.V4_0 ? "PREF" : "TYPE", version == VCardVersion.V4_0 ? "1" : "pref");
            }
            add.to(property);
        }

        private boolean isType(String word) {
            return word.equals("mobile") || (version == VCardVersion.V4_0 ? TYPES_OF_4 : TYPES).contains(word);
        }
    }
}
