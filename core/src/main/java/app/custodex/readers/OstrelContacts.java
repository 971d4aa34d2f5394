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
import java.util.concurrent.CompletableFuture;

/** Reads an Ostrel's people database. Its times are microseconds since 2000-01-01T00:00Z. */
final class OstrelContacts {
    private static final Instant EPOCH = Instant.parse("2000-01-01T00:00:00Z");
    private static final String PEOPLE = Layout.OSTREL_PEOPLE.text();

    /** Behind a torn place, this many are looked up one by one: more than any phone holds. */
    private static final long MAX_LOOKED_UP = 200_000;

    private static final String PERSON = "SELECT id, uid, prefix, given, middle, family, suffix, sound_given,"
            + " sound_family, nickname, organisation, department, title, birthday, note, changed FROM person";

    private final FileSource files;
    private final PhoneNumbers numbers;
    private final PrivatePlace place;
    private final List<Problem> problems = new ArrayList<>();

    OstrelContacts(FileSource files, PhoneNumbers numbers, PrivatePlace place) {
        this.files = files;
        this.numbers = numbers;
        this.place = place;
    }

    private record Reach(String way, String label, String value) {}

    /** What hangs on a person in the other tables, as it is written there. */
    private static final class Belongings {
        private static final Belongings NONE = new Belongings();
        private List<Reach> reach = List.of();
        private List<Address> addresses = List.of();
        private List<String> groups = List.of();
        private boolean photo;

        /** Most people have one of each at most; only the others get a list that grows. */
        private static <T> List<T> with(List<T> list, T more) {
            if (list.isEmpty()) {
                return List.of(more);
            }
            var longer = list instanceof ArrayList<T> growing ? growing : new ArrayList<>(list);
            longer.add(more);
            return longer;
        }
    }

    private record Row(
            long id,
            String uid,
            PersonName name,
            String nickname,
            Organisation organisation,
            String birthday,
            String note,
            long changed) {}

    ContactBook read() throws IOException {
        if (!files.has(Layout.OSTREL_PEOPLE)) {
            return new ContactBook(List.of(), List.of(), new Portraits(files, place));
        }
        try (var database = PhoneDatabase.open(files, Layout.OSTREL_PEOPLE, place)) {
            Map<Long, Belongings> belongings = new HashMap<>();
            Set<String> written = new HashSet<>();
            rows(database, "SELECT person, way, label, value FROM reach ORDER BY person, place", row -> {
                var reach = new Reach(text(row, 2), text(row, 3), text(row, 4));
                var of = of(belongings, row);
                of.reach = Belongings.with(of.reach, reach);
                if (reach.way().equals("phone")) {
                    written.add(reach.value());
                }
            });
            // Telephone numbers are worked out beside the reading of the other tables.
            var worked = CompletableFuture.runAsync(() -> written.forEach(numbers::e164));
            rows(
                    database,
                    "SELECT person, label, street, town, region, code, country FROM post ORDER BY person, place",
                    row -> {
                        var of = of(belongings, row);
                        of.addresses = Belongings.with(of.addresses, address(row));
                    });
            rows(
                    database,
                    "SELECT m.person, c.name FROM circle_member m JOIN circle c ON c.id = m.circle ORDER BY m.person, c.id",
                    row -> {
                        var of = of(belongings, row);
                        of.groups = Belongings.with(of.groups, text(row, 2));
                    });
            rows(database, "SELECT person FROM portrait", row -> of(belongings, row).photo = true);
            var people = new ArrayList<Row>();
            people(database, row -> people.add(person(row)));
            worked.join();
            var contacts = people.parallelStream()
                    .map(person -> contact(person, belongings.getOrDefault(person.id(), Belongings.NONE)))
                    .toList();
            return new ContactBook(contacts, problems, new Portraits(files, place));
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
            last[0] = found.getLong(1);
        };
        try {
            database.forEach(PERSON + " ORDER BY id", remembering);
        } catch (SQLException torn) {
            problems.add(damage(torn));
            long end = Math.min(database.number("SELECT max(id) FROM person").orElse(last[0]), last[0] + MAX_LOOKED_UP);
            for (long id = last[0] + 1; id <= end; id++) {
                try {
                    database.forEach(PERSON + " WHERE id = " + id, row);
                } catch (SQLException lost) {
                    // Already told: this one lies in the torn part.
                }
            }
        }
    }

    private static Problem damage(SQLException e) {
        return Problem.loss(
                PEOPLE,
                "The phone's people database is torn",
                "What could be read is shown; look into an older layer for the rest");
    }

    private static Belongings of(Map<Long, Belongings> belongings, ResultSet row) throws SQLException {
        return belongings.computeIfAbsent(row.getLong(1), id -> new Belongings());
    }

    private static Address address(ResultSet row) throws SQLException {
        return new Address(text(row, 2), "", "", text(row, 3), text(row, 4), text(row, 5), text(row, 6), text(row, 7));
    }

    private static Row person(ResultSet row) throws SQLException {
        return new Row(
                row.getLong(1),
                text(row, 2),
                name(text(row, 3), text(row, 4), text(row, 5), text(row, 6), text(row, 7), text(row, 8), text(row, 9)),
                text(row, 10),
                new Organisation(text(row, 11), text(row, 12), text(row, 13), ""),
                text(row, 14),
                text(row, 15),
                row.getLong(16));
    }

    /** This family keeps no name in one piece; it shows the parts as they are spoken. */
    private static PersonName name(
            String prefix,
            String given,
            String middle,
            String family,
            String suffix,
            String soundGiven,
            String soundFamily) {
        var parts = new PersonName("", prefix, given, middle, family, suffix, soundGiven, soundFamily);
        return new PersonName(parts.composed(), prefix, given, middle, family, suffix, soundGiven, soundFamily);
    }

    private Contact contact(Row person, Belongings has) {
        var day = Days.parse(person.birthday());
        var extras = new ArrayList<Extra>();
        if (day.isEmpty() && !person.birthday().isEmpty()) {
            extras.add(new Extra("BDAY", person.birthday()));
        }
        var phones = new ArrayList<PhoneNumber>();
        var mails = new ArrayList<Labelled>();
        var webs = new ArrayList<Labelled>();
        var chats = new ArrayList<Labelled>();
        for (var reach : has.reach) {
            switch (reach.way()) {
                case "phone" -> phones.add(new PhoneNumber(reach.label(), reach.value(), numbers.e164(reach.value())));
                case "mail" -> mails.add(new Labelled(reach.label(), reach.value()));
                case "web" -> webs.add(new Labelled(reach.label(), reach.value()));
                case "chat" ->
                    chats.add(
                            new Labelled(reach.label(), reach.label().toLowerCase(Locale.ROOT) + ":" + reach.value()));
                default -> extras.add(new Extra("X-" + reach.way().toUpperCase(Locale.ROOT), reach.value()));
            }
        }
        return new Contact(
                "person-" + person.id(),
                person.uid(),
                person.name(),
                person.nickname().isEmpty() ? List.of() : List.of(person.nickname()),
                person.organisation(),
                phones,
                mails,
                webs,
                chats,
                has.addresses,
                day,
                Optional.empty(),
                List.of(),
                person.note().isEmpty() ? List.of() : List.of(person.note()),
                has.groups,
                has.photo,
                person.changed() == 0 ? Optional.empty() : Optional.of(EPOCH.plus(person.changed(), ChronoUnit.MICROS)),
                extras);
    }

    private static String text(ResultSet row, int column) throws SQLException {
        var text = row.getString(column);
        return text == null ? "" : text;
    }

    /** The database is opened when the first photo is asked for. */
    static final class Portraits implements ContactBook.Photos {
        private final FileSource files;
        private final PrivatePlace place;
        private Optional<PhoneDatabase> database = Optional.empty();

        Portraits(FileSource files, PrivatePlace place) {
            this.files = files;
            this.place = place;
        }

        @Override
        public synchronized Optional<byte[]> of(Contact contact) throws IOException {
            if (database.isEmpty()) {
                database = Optional.of(PhoneDatabase.open(files, Layout.OSTREL_PEOPLE, place));
            }
            try {
                return database.get()
                        .bytes(
                                "SELECT image FROM portrait WHERE person = ?",
                                Long.parseLong(contact.id().substring("person-".length())));
            } catch (SQLException e) {
                throw new IOException(damage(e).sentence(), e);
            }
        }

        @Override
        public synchronized void close() throws IOException {
            if (database.isPresent()) {
                database.get().close();
                database = Optional.empty();
            }
        }
    }
}
