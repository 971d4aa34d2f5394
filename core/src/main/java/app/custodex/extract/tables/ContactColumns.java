package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.model.Contact;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/** A contact as a row. */
final class ContactColumns {
    private ContactColumns() {}

    /** As many columns as the fullest of them needs; they are looked at once for it. */
    static List<Column> of(Batch batch) {
        var contacts = new Fullest();
        batch.look().forEach(thing -> contacts.take((Contact) thing));
        var columns = new ArrayList<Column>();
        columns.add(column("Name", Contact::title));
        columns.add(column("Prefix", c -> c.name().prefix()));
        columns.add(column("Given name", c -> c.name().given()));
        columns.add(column("Middle name", c -> c.name().middle()));
        columns.add(column("Family name", c -> c.name().family()));
        columns.add(column("Suffix", c -> c.name().suffix()));
        columns.add(column("Phonetic given name", c -> c.name().phoneticGiven()));
        columns.add(column("Phonetic family name", c -> c.name().phoneticFamily()));
        columns.add(column("Nicknames", c -> String.join("\n", c.nicknames())));
        columns.add(column("Organisation", c -> c.organisation().name()));
        columns.add(column("Department", c -> c.organisation().department()));
        columns.add(column("Title", c -> c.organisation().title()));
        columns.add(column("Role", c -> c.organisation().role()));
        several(contacts.phones, "Telephone", (title, at) -> {
            columns.add(column(title + " label", c -> at(c.phones(), at, p -> p.label())));
            columns.add(column(title, c -> at(c.phones(), at, p -> p.written())));
            columns.add(column(title + " E.164", c -> at(c.phones(), at, p -> p.e164())));
        });
        several(contacts.mails, "E-mail", labelled(columns, Contact::mails));
        several(contacts.webs, "Website", labelled(columns, Contact::webs));
        several(contacts.chats, "Chat", labelled(columns, Contact::chats));
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
        columns.add(column("Birthday", c -> c.birthday().map(Contact.Day::iso).orElse("")));
        columns.add(
                column("Anniversary", c -> c.anniversary().map(Contact.Day::iso).orElse("")));
        several(contacts.related, "Related", labelled(columns, Contact::related));
        columns.add(column("Groups", c -> String.join("\n", c.groups())));
        columns.add(column("Notes", c -> String.join("\n", c.notes())));
        columns.add(column("Photo", c -> leavesOutPhoto(c, batch)));
        columns.add(
                column("Changed (UTC)", c -> c.changed().map(Object::toString).orElse("")));
        several(contacts.extras, "Other", (title, at) -> {
            columns.add(column(title + " name", c -> at(c.extras(), at, e -> e.name())));
            columns.add(column(title, c -> at(c.extras(), at, e -> e.value())));
        });
        columns.add(column("Identifier", Contact::uid));
        return columns;
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
