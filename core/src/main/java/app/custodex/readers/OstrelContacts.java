package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.link.FileSource;
import app.custodex.link.Layout;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Address;
import app.custodex.model.Contact.Extra;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import java.io.IOException;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Reads an Ostrel's people database. Its times are microseconds since 2000-01-01T00:00Z. */
final class OstrelContacts {
    private static final Instant EPOCH = Instant.parse("2000-01-01T00:00:00Z");
    private static final String PEOPLE = Layout.OSTREL_PEOPLE.text();

    private final FileSource files;
    private final PhoneNumbers numbers;
    private final PrivatePlace place;
    private final List<Problem> problems = new ArrayList<>();

    OstrelContacts(FileSource files, PhoneNumbers numbers, PrivatePlace place) {
        this.files = files;
        this.numbers = numbers;
        this.place = place;
    }

    /** What hangs on a person in the other tables. */
    private static final class Belongings {
        private final List<PhoneNumber> phones = new ArrayList<>();
        private final List<Labelled> mails = new ArrayList<>();
        private final List<Labelled> webs = new ArrayList<>();
        private final List<Labelled> chats = new ArrayList<>();
        private final List<Extra> extras = new ArrayList<>();
        private final List<Address> addresses = new ArrayList<>();
        private final List<String> groups = new ArrayList<>();
    }

    ContactBook read() throws IOException {
        if (!files.has(Layout.OSTREL_PEOPLE)) {
            return new ContactBook(List.of(), List.of(), new NoPhotos());
        }
        var database = PhoneDatabase.open(files, Layout.OSTREL_PEOPLE, place);
        try {
            Map<Long, Belongings> belongings = new HashMap<>();
            rows(database, "SELECT person, way, label, value FROM reach ORDER BY person, place", row -> reach(of(belongings, row), row));
            rows(
                    database,
                    "SELECT person, label, street, town, region, code, country FROM post ORDER BY person, place",
                    row -> of(belongings, row).addresses.add(address(row)));
            rows(
                    database,
                    "SELECT m.person, c.name FROM circle_member m JOIN circle c ON c.id = m.circle ORDER BY m.person, c.id",
                    row -> of(belongings, row).groups.add(text(row, "name")));
            Set<Long> withPhoto = new HashSet<>();
            rows(database, "SELECT person FROM portrait", row -> withPhoto.add(row.getLong("person")));
            var contacts = new ArrayList<Contact>();
            people(database, row -> {
                long id = row.getLong("id");
                contacts.add(contact(row, belongings.getOrDefault(id, new Belongings()), withPhoto.contains(id)));
            });
            return new ContactBook(contacts, problems, new Portraits(database));
        } catch (RuntimeException e) {
            database.close();
            throw e;
        }
    }

    private void rows(PhoneDatabase database, String sql, PhoneDatabase.Row row) {
        try {
            database.forEach(sql, row);
        } catch (SQLException e) {
            problems.add(damage(e));
        }
    }

    /** Reads the table from its start; where it is torn, looks up the rest one by one. */
    private void people(PhoneDatabase database, PhoneDatabase.Row row) {
        long[] last = {0};
        PhoneDatabase.Row remembering = found -> {
            row.read(found);
            last[0] = found.getLong("id");
        };
        try {
            database.forEach("SELECT * FROM person ORDER BY id", remembering);
        } catch (SQLException torn) {
            problems.add(damage(torn));
            long end = database.number("SELECT max(person) FROM reach").orElse(last[0]);
            for (long id = last[0] + 1; id <= end; id++) {
                try {
                    database.forEach("SELECT * FROM person WHERE id = " + id, row);
                } catch (SQLException lost) {
                    // Already told: this one lies in the torn part.
                }
            }
        }
    }

    private static Problem damage(SQLException e) {
        return Problem.loss(
                PEOPLE,
                "The phone's people database is torn (" + e.getMessage() + ")",
                "What could be read is shown; look into an older layer for the rest");
    }

    private static Belongings of(Map<Long, Belongings> belongings, ResultSet row) throws SQLException {
        return belongings.computeIfAbsent(row.getLong("person"), id -> new Belongings());
    }

    private void reach(Belongings to, ResultSet row) throws SQLException {
        var label = text(row, "label");
        var value = text(row, "value");
        var way = text(row, "way");
        switch (way) {
            case "phone" -> to.phones.add(new PhoneNumber(label, value, numbers.e164(value)));
            case "mail" -> to.mails.add(new Labelled(label, value));
            case "web" -> to.webs.add(new Labelled(label, value));
            case "chat" -> to.chats.add(new Labelled(label, label.toLowerCase(Locale.ROOT) + ":" + value));
            default -> to.extras.add(new Extra("X-" + way.toUpperCase(Locale.ROOT), value));
        }
    }

    private static Address address(ResultSet row) throws SQLException {
        return new Address(
                text(row, "label"),
                "",
                "",
                text(row, "street"),
                text(row, "town"),
                text(row, "region"),
                text(row, "code"),
                text(row, "country"));
    }

    private static Contact contact(ResultSet row, Belongings has, boolean photo) throws SQLException {
        var birthday = text(row, "birthday");
        var day = Days.parse(birthday);
        var extras = new ArrayList<>(has.extras);
        if (day.isEmpty() && !birthday.isEmpty()) {
            extras.add(new Extra("BDAY", birthday));
        }
        var nickname = text(row, "nickname");
        var note = text(row, "note");
        long changed = row.getLong("changed");
        return new Contact(
                "person-" + row.getLong("id"),
                text(row, "uid"),
                new PersonName(
                        "",
                        text(row, "prefix"),
                        text(row, "given"),
                        text(row, "middle"),
                        text(row, "family"),
                        text(row, "suffix"),
                        text(row, "sound_given"),
                        text(row, "sound_family")),
                nickname.isEmpty() ? List.of() : List.of(nickname),
                new Organisation(text(row, "organisation"), text(row, "department"), text(row, "title"), ""),
                has.phones,
                has.mails,
                has.webs,
                has.chats,
                has.addresses,
                day,
                Optional.empty(),
                List.of(),
                note.isEmpty() ? List.of() : List.of(note),
                has.groups,
                photo,
                changed == 0 ? Optional.empty() : Optional.of(EPOCH.plus(changed, ChronoUnit.MICROS)),
                extras);
    }

    private static String text(ResultSet row, String column) throws SQLException {
        var text = row.getString(column);
        return text == null ? "" : text;
    }

    private static final class NoPhotos implements ContactBook.Photos {
        @Override
        public Optional<byte[]> of(Contact contact) {
            return Optional.empty();
        }

        @Override
        public void close() {}
    }

    private record Portraits(PhoneDatabase database) implements ContactBook.Photos {
        @Override
        public Optional<byte[]> of(Contact contact) throws IOException {
            try {
                return database.bytes(
                        "SELECT image FROM portrait WHERE person = ?",
                        Long.parseLong(contact.id().substring("person-".length())));
            } catch (SQLException e) {
                throw new IOException(damage(e).sentence(), e);
            }
        }

        @Override
        public void close() throws IOException {
            database.close();
        }
    }
}
