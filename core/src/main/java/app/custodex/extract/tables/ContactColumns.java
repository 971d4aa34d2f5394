package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;

/** A contact as a row. */
final class ContactColumns {
    private ContactColumns() {}

    /** What of a contact may stand in columns: its code, and what it is called. */
    private enum Part {
        NAME("Name"),
        NAME_PARTS("Name in its parts"),
        PHONETIC("Phonetic name"),
        NICKNAMES("Nicknames"),
        ORGANISATION("Organisation"),
        TELEPHONES("Telephones"),
        E_MAILS("E-mail"),
        WEBSITES("Websites"),
        CHATS("Chats"),
        ADDRESSES("Addresses"),
        BIRTHDAY("Birthday"),
        ANNIVERSARY("Anniversary"),
        RELATED("Related"),
        GROUPS("Groups"),
        NOTES("Notes"),
        PHOTO("Whether there is a photo"),
        CHANGED("When it was changed"),
        OTHER("Other"),
        IDENTIFIER("Identifier");

        private final String label;

        Part(String label) {
            this.label = label;
        }

        String code() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    private static final Choice COLUMNS = Choice.some(
            "columns",
            "Columns",
            Arrays.stream(Part.values())
                    .map(part -> new Choice.Value(part.code(), part.label))
                    .toList());

    /** What can be chosen for a group, if anything. */
    static List<Choice> choices(KindGroup group) {
        return group == KindGroup.CONTACTS ? List.of(COLUMNS) : List.of();
    }

    /** As many columns as the fullest of them needs; they are looked at once for it. */
    static List<Column> of(Batch batch, Chosen chosen) {
        var contacts = new Fullest();
        batch.look().forEach(thing -> contacts.take((Contact) thing));
        var wanted = Choice.split(chosen.of(COLUMNS));
        var columns = new ArrayList<Column>();
        if (wanted.isEmpty()) {
            for (var part : Part.values()) {
                add(columns, part, contacts, batch);
            }
        }
        for (var code : wanted) {
            Arrays.stream(Part.values())
                    .filter(part -> part.code().equals(code))
                    .forEach(part -> add(columns, part, contacts, batch));
        }
        return columns;
    }

    private static void add(List<Column> columns, Part part, Fullest contacts, Batch batch) {
        switch (part) {
            case NAME -> columns.add(column("Name", Contact::title));
            case NAME_PARTS -> {
                columns.add(column("Prefix", c -> c.name().prefix()));
                columns.add(column("Given name", c -> c.name().given()));
                columns.add(column("Middle name", c -> c.name().middle()));
                columns.add(column("Family name", c -> c.name().family()));
                columns.add(column("Suffix", c -> c.name().suffix()));
            }
            case PHONETIC -> {
                columns.add(column("Phonetic given name", c -> c.name().phoneticGiven()));
                columns.add(column("Phonetic family name", c -> c.name().phoneticFamily()));
            }
            case NICKNAMES -> columns.add(column("Nicknames", c -> String.join("\n", c.nicknames())));
            case ORGANISATION -> {
                columns.add(column("Organisation", c -> c.organisation().name()));
                columns.add(column("Department", c -> c.organisation().department()));
                columns.add(column("Title", c -> c.organisation().title()));
                columns.add(column("Role", c -> c.organisation().role()));
            }
            case TELEPHONES ->
                several(contacts.phones, "Telephone", (title, at) -> {
                    columns.add(column(title + " label", c -> at(c.phones(), at, p -> p.label())));
                    columns.add(column(title, c -> at(c.phones(), at, p -> p.written())));
                    columns.add(column(title + " E.164", c -> at(c.phones(), at, p -> p.e164())));
                });
            case E_MAILS -> several(contacts.mails, "E-mail", labelled(columns, Contact::mails));
            case WEBSITES -> several(contacts.webs, "Website", labelled(columns, Contact::webs));
            case CHATS -> several(contacts.chats, "Chat", labelled(columns, Contact::chats));
            case ADDRESSES -> addresses(columns, contacts);
            case BIRTHDAY ->
                columns.add(column(
                        "Birthday", c -> c.birthday().map(Contact.Day::iso).orElse("")));
            case ANNIVERSARY ->
                columns.add(column(
                        "Anniversary",
                        c -> c.anniversary().map(Contact.Day::iso).orElse("")));
            case RELATED -> several(contacts.related, "Related", labelled(columns, Contact::related));
            case GROUPS -> columns.add(column("Groups", c -> String.join("\n", c.groups())));
            case NOTES -> columns.add(column("Notes", c -> String.join("\n", c.notes())));
            case PHOTO -> columns.add(column("Photo", c -> leavesOutPhoto(c, batch)));
            case CHANGED ->
                columns.add(column(
                        "Changed (UTC)", c -> c.changed().map(Object::toString).orElse("")));
            case OTHER ->
                several(contacts.extras, "Other", (title, at) -> {
                    columns.add(column(title + " name", c -> at(c.extras(), at, e -> e.name())));
                    columns.add(column(title, c -> at(c.extras(), at, e -> e.value())));
                });
            case IDENTIFIER -> columns.add(column("Identifier", Contact::uid));
        }
    }

    private static void addresses(List<Column> columns, Fullest contacts) {
        several(contacts.addresses, "Address", (title, at) -> {
            columns.add(column(title + " label", c -> at(c.addresses(), at, a -> a.label())));
            columns.add(column(title + " PO box", c -> at(c.addresses(), at, a -> a.box())));
            columns.add(column(title + " extended", c -> at(c.addresses(), at, a -> a.extended())));
            columns.add(column(title + " street", c -> at(c.addresses(), at, a -> a.street())));
            columns.add(column(title + " town", c -> at(c.addresses(), at, a -> a.town())));
            columns.add(column(title + " region", c -> at(c.addresses(), at, a -> a.region())));
            columns.add(column(title + " postcode", c -> at(c.addresses(), at, a -> a.code())));
            columns.add(column(title + " country", c -> at(c.addresses(), at, a -> a.country())));
        });
    }

    private interface Group {
        void add(String title, int at);
    }

    private static Column column(String title, Function<Contact, String> value) {
        return Column.text(title, thing -> value.apply((Contact) thing));
    }

    private static String leavesOutPhoto(Contact contact, Batch batch) {
        if (contact.hasPhoto()) {
            batch.leftOut("photos");
        }
        return contact.hasPhoto() ? "yes" : "";
    }

    /** How many of each a contact has at most. */
    private static final class Fullest {
        private int phones;
        private int mails;
        private int webs;
        private int chats;
        private int addresses;
        private int related;
        private int extras;

        void take(Contact c) {
            phones = Math.max(phones, c.phones().size());
            mails = Math.max(mails, c.mails().size());
            webs = Math.max(webs, c.webs().size());
            chats = Math.max(chats, c.chats().size());
            addresses = Math.max(addresses, c.addresses().size());
            related = Math.max(related, c.related().size());
            extras = Math.max(extras, c.extras().size());
        }
    }

    private static void several(int most, String title, Group group) {
        for (int i = 0; i < most; i++) {
            group.add(title + " " + (i + 1), i);
        }
    }

    private static Group labelled(List<Column> columns, Function<Contact, List<Contact.Labelled>> values) {
        return (title, at) -> {
            columns.add(column(title + " label", c -> at(values.apply(c), at, v -> v.label())));
            columns.add(column(title, c -> at(values.apply(c), at, v -> v.value())));
        };
    }

    private static <T> String at(List<T> values, int index, Function<T, String> part) {
        return index < values.size() ? part.apply(values.get(index)) : "";
    }
}
