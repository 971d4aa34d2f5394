package app.custodex.twins;

import app.custodex.model.Contact;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.search.Asked;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * Contacts that are to be written as one, value by value: what they say alike stands once, of what there can only be one the fullest is
 * proposed. Never changed; another choice is another proposal.
 */
public final class MergeProposal {
    /** What a value is. */
    public enum Part {
        NAME("Name", true),
        NICKNAME("Nickname", false),
        WORK("Work", true),
        PHONE("Telephone", false),
        MAIL("Mail", false),
        CHAT("Chat", false),
        WEB("Web", false),
        ADDRESS("Address", false),
        BIRTHDAY("Birthday", true),
        ANNIVERSARY("Anniversary", true),
        RELATED("Related", false),
        GROUP("Group", false),
        NOTE("Note", false),
        EXTRA("More", false),
        PICTURE("Picture", true);

        private final String label;
        private final boolean single;

        Part(String label, boolean single) {
            this.label = label;
            this.single = single;
        }

        public String label() {
            return label;
        }

        /** Whether a contact has one of it at most. */
        public boolean single() {
            return single;
        }
    }

    /**
     * One value.
     *
     * @param key by which it is known again among those of the same contacts
     * @param label such as "home"; may be empty
     * @param from which of the contacts have it
     * @param kept whether it is in the merged contact
     */
    public record Value(Part part, String key, String label, String text, List<Integer> from, boolean kept) {}

    private final List<Contact> contacts;
    private final Set<String> leftOut;

    private MergeProposal(List<Contact> contacts, Set<String> leftOut) {
        this.contacts = List.copyOf(contacts);
        this.leftOut = Set.copyOf(leftOut);
    }

    /** What is proposed of itself. */
    public static MergeProposal of(List<Contact> contacts) {
        var all = new MergeProposal(contacts, Set.of());
        var leftOut = new HashSet<String>();
        for (var part : Part.values()) {
            if (part.single()) {
                var values = all.values(part);
                var fullest = values.stream()
                        .max(Comparator.comparingInt(
                                        (Value value) -> value.text().length())
                                .thenComparing(value -> -values.indexOf(value)));
                values.stream()
                        .filter(value -> !Optional.of(value).equals(fullest))
                        .forEach(value -> leftOut.add(value.key()));
            }
        }
        return new MergeProposal(contacts, leftOut);
    }

    /** Contacts as one where that was settled and all of them are among these; the others as they are. */
    public static List<Contact> merged(List<Contact> apart, List<Merge> merges) {
        var contacts = new ArrayList<>(apart);
        for (var merge : merges) {
            var members = merge.of().stream()
                    .flatMap(id ->
                            contacts.stream().filter(contact -> contact.id().equals(id)))
                    .toList();
            if (members.size() == merge.of().size() && !members.isEmpty()) {
                contacts.set(
                        contacts.indexOf(members.getFirst()), of(members, merge).merged());
                contacts.removeAll(members);
            }
        }
        return List.copyOf(contacts);
    }

    /** What was settled before. */
    public static MergeProposal of(List<Contact> contacts, Merge merge) {
        return new MergeProposal(contacts, merge.leftOut());
    }

    public List<Contact> contacts() {
        return contacts;
    }

    /** What is kept of it. */
    public Merge settled() {
        return new Merge(contacts.stream().map(Contact::id).toList(), leftOut);
    }

    /** All values of all contacts, part by part. */
    public List<Value> values() {
        return Stream.of(Part.values()).flatMap(part -> values(part).stream()).toList();
    }

    /** With a value kept or left out; of what there can only be one, another one takes its place. */
    public MergeProposal with(Value value, boolean kept) {
        var next = new HashSet<>(leftOut);
        if (kept && value.part().single()) {
            values(value.part()).forEach(other -> next.add(other.key()));
        }
        if (kept) {
            next.remove(value.key());
        } else {
            next.add(value.key());
        }
        return new MergeProposal(contacts, next);
    }

    /** The number as it is compared: in its international form, or its digits. */
    static String number(PhoneNumber phone) {
        return phone.e164().isEmpty() ? Asked.digits(phone.written()) : phone.e164();
    }

    private static String key(Part part, String of) {
        return part.name() + '\n' + of.strip().toLowerCase(Locale.ROOT);
    }

    private static String work(Organisation of) {
        return join(of.title(), of.role(), of.department(), of.name());
    }

    private static String join(String... parts) {
        return String.join(
                ", ", Stream.of(parts).filter(part -> !part.isBlank()).toList());
    }

    private static String name(PersonName of) {
        return of.display().isBlank() ? of.composed() : of.display();
    }

    /** What contacts have of a part, and how it is told and compared. */
    private record Kind<T>(
            Function<Contact, Stream<T>> in,
            Function<T, String> text,
            Function<T, String> label,
            Function<T, String> compared) {
        static <T> Kind<T> of(Function<Contact, Stream<T>> in, Function<T, String> text) {
            return new Kind<>(in, text, any -> "", text);
        }
    }

    private static final Kind<PersonName> NAMES = Kind.of(
            contact -> Stream.of(contact.name()).filter(name -> !name(name).isBlank()), MergeProposal::name);
    private static final Kind<String> NICKNAMES = Kind.of(contact -> contact.nicknames().stream(), Function.identity());
    private static final Kind<Organisation> WORKS =
            Kind.of(contact -> Stream.of(contact.organisation()).filter(work -> !work.isEmpty()), MergeProposal::work);
    private static final Kind<PhoneNumber> PHONES = new Kind<>(
            contact -> contact.phones().stream(), PhoneNumber::written, PhoneNumber::label, MergeProposal::number);
    private static final Kind<Labelled> MAILS = labelled(Contact::mails);
    private static final Kind<Labelled> CHATS = labelled(Contact::chats);
    private static final Kind<Labelled> WEBS = labelled(Contact::webs);
    private static final Kind<Labelled> RELATED = labelled(Contact::related);
    private static final Kind<Contact.Address> ADDRESSES = new Kind<>(
            contact -> contact.addresses().stream(),
            address -> String.join("\n", address.lines()),
            Contact.Address::label,
            address -> String.join("\n", address.lines()));
    private static final Kind<Day> BIRTHDAYS = Kind.of(contact -> contact.birthday().stream(), Day::iso);
    private static final Kind<Day> ANNIVERSARIES = Kind.of(contact -> contact.anniversary().stream(), Day::iso);
    private static final Kind<String> GROUPS = Kind.of(contact -> contact.groups().stream(), Function.identity());
    private static final Kind<String> NOTES = Kind.of(contact -> contact.notes().stream(), Function.identity());
    private static final Kind<Contact.Extra> EXTRAS = new Kind<>(
            contact -> contact.extras().stream(),
            Contact.Extra::value,
            Contact.Extra::name,
            extra -> extra.name() + '\n' + extra.value());
    /** Pictures are told apart by whose they are. */
    private static final Kind<Contact> PICTURES = new Kind<>(
            contact -> Stream.of(contact).filter(Contact::hasPhoto),
            contact -> "of " + contact.title(),
            any -> "",
            contact -> contact.id().item() + '\n' + contact.id().key());

    private static Kind<Labelled> labelled(Function<Contact, List<Labelled>> in) {
        return new Kind<>(contact -> in.apply(contact).stream(), Labelled::value, Labelled::label, Labelled::value);
    }

    private static Kind<?> kind(Part part) {
        return switch (part) {
            case NAME -> NAMES;
            case NICKNAME -> NICKNAMES;
            case WORK -> WORKS;
            case PHONE -> PHONES;
            case MAIL -> MAILS;
            case CHAT -> CHATS;
            case WEB -> WEBS;
            case ADDRESS -> ADDRESSES;
            case BIRTHDAY -> BIRTHDAYS;
            case ANNIVERSARY -> ANNIVERSARIES;
            case RELATED -> RELATED;
            case GROUP -> GROUPS;
            case NOTE -> NOTES;
            case EXTRA -> EXTRAS;
            case PICTURE -> PICTURES;
        };
    }

    private List<Value> values(Part part) {
        return values(part, kind(part));
    }

    private <T> List<Value> values(Part part, Kind<T> kind) {
        var values = new LinkedHashMap<String, Value>();
        for (int i = 0; i < contacts.size(); i++) {
            int at = i;
            kind.in().apply(contacts.get(i)).forEach(each -> {
                var key = key(part, kind.compared().apply(each));
                var value = new Value(
                        part,
                        key,
                        kind.label().apply(each),
                        kind.text().apply(each),
                        List.of(at),
                        !leftOut.contains(key));
                values.merge(key, value, MergeProposal::alsoFrom);
            });
        }
        return List.copyOf(values.values());
    }

    private static Value alsoFrom(Value one, Value other) {
        var from = new ArrayList<>(one.from());
        other.from().stream().filter(i -> !from.contains(i)).forEach(from::add);
        return new Value(one.part(), one.key(), one.label(), one.text(), List.copyOf(from), one.kept());
    }

    /** What is kept of a part, each once. */
    private <T> List<T> kept(Part part, Kind<T> kind) {
        var kept = new LinkedHashMap<String, T>();
        contacts.stream()
                .flatMap(kind.in())
                .forEach(each -> kept.putIfAbsent(key(part, kind.compared().apply(each)), each));
        kept.keySet().removeAll(leftOut);
        return List.copyOf(kept.values());
    }

    private <T> Optional<T> one(Part part, Kind<T> kind) {
        return kept(part, kind).stream().findFirst();
    }

    /** The one contact that they become. It is known by the one whose picture it has, or by the first. */
    public Contact merged() {
        var first = contacts.getFirst();
        var pictured = one(Part.PICTURE, PICTURES);
        var none = new PersonName("", "", "", "", "", "", "", "");
        return new Contact(
                pictured.orElse(first).id(),
                first.account(),
                first.uid(),
                one(Part.NAME, NAMES).orElse(none),
                kept(Part.NICKNAME, NICKNAMES),
                one(Part.WORK, WORKS).orElse(Organisation.NONE),
                kept(Part.PHONE, PHONES),
                kept(Part.MAIL, MAILS),
                kept(Part.WEB, WEBS),
                kept(Part.CHAT, CHATS),
                kept(Part.ADDRESS, ADDRESSES),
                one(Part.BIRTHDAY, BIRTHDAYS),
                one(Part.ANNIVERSARY, ANNIVERSARIES),
                kept(Part.RELATED, RELATED),
                kept(Part.NOTE, NOTES),
                kept(Part.GROUP, GROUPS),
                pictured.isPresent(),
                contacts.stream().flatMap(contact -> contact.changed().stream()).max(Comparator.naturalOrder()),
                kept(Part.EXTRA, EXTRAS));
    }
}
