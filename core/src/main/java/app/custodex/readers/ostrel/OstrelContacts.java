package app.custodex.readers.ostrel;

import app.custodex.link.Layout;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Address;
import app.custodex.model.Contact.Extra;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.Days;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneDatabase.Row;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;

/** Reads the people. */
final class OstrelContacts extends StoreReader {
    private static final String PEOPLE = Layout.OSTREL_PEOPLE.text();
    private static final List<String> PERSON = List.of(
            "id",
            "uid",
            "prefix",
            "given",
            "middle",
            "family",
            "suffix",
            "sound_given",
            "sound_family",
            "nickname",
            "organisation",
            "department",
            "title",
            "birthday",
            "note",
            "changed",
            "account");

    OstrelContacts() {
        super("people", Layout.OSTREL_PEOPLE, Set.of(ThingKind.CONTACT));
    }

    private record Reach(long place, String way, String label, String value) {}

    private record Placed(long place, Address address) {}

    /** What hangs on a person in the other tables, as it is written there. */
    private static final class Belongings {
        private static final Belongings NONE = new Belongings();
        private List<Reach> reach = List.of();
        private List<Placed> addresses = List.of();
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

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        Map<Long, Belongings> belongings = new HashMap<>();
        Set<String> written = new HashSet<>();
        losses.tell(
                "numbers and addresses of people",
                database.each("reach", List.of("person", "place", "way", "label", "value"), row -> {
                    var reach = new Reach(row.number("place"), row.text("way"), row.text("label"), row.text("value"));
                    var of = of(belongings, row);
                    of.reach = Belongings.with(of.reach, reach);
                    if (reach.way().equals("phone")) {
                        written.add(reach.value());
                    }
                }));
        // Telephone numbers are worked out beside the reading of the other tables.
        var worked = CompletableFuture.runAsync(() -> written.forEach(phone::e164));
        losses.tell(
                "postal addresses",
                database.each(
                        "post",
                        List.of("person", "place", "label", "street", "town", "region", "code", "country"),
                        row -> {
                            var of = of(belongings, row);
                            of.addresses = Belongings.with(of.addresses, new Placed(row.number("place"), address(row)));
                        }));
        groups(database, belongings, losses);
        losses.tell(
                "photos of people",
                database.each("portrait", List.of("person"), row -> of(belongings, row).photo = true));
        worked.join();
        losses.require(
                "people",
                database.each(
                        "person",
                        PERSON,
                        row -> sink.thing(
                                contact(row, belongings.getOrDefault(row.number("id"), Belongings.NONE), phone))));
    }

    private static void groups(PhoneDatabase database, Map<Long, Belongings> belongings, Losses losses)
            throws IOException {
        var names = new HashMap<Long, String>();
        losses.tell(
                "groups",
                database.each("circle", List.of("id", "name"), row -> names.put(row.number("id"), row.text("name"))));
        losses.tell("members of groups", database.each("circle_member", List.of("circle", "person"), row -> {
            var name = names.get(row.number("circle"));
            if (name != null) {
                var of = of(belongings, row);
                of.groups = Belongings.with(of.groups, name);
            }
        }));
    }

    private static Belongings of(Map<Long, Belongings> belongings, Row row) throws SQLException {
        return belongings.computeIfAbsent(row.number("person"), id -> new Belongings());
    }

    private static Address address(Row row) throws SQLException {
        return new Address(
                row.text("label"),
                "",
                "",
                row.text("street"),
                row.text("town"),
                row.text("region"),
                row.text("code"),
                row.text("country"));
    }

    /** This family keeps no name in one piece; it shows the parts as they are spoken. */
    private static PersonName name(Row row) throws SQLException {
        var parts = new PersonName(
                "",
                row.text("prefix"),
                row.text("given"),
                row.text("middle"),
                row.text("family"),
                row.text("suffix"),
                row.text("sound_given"),
                row.text("sound_family"));
        return new PersonName(
                parts.composed(),
                parts.prefix(),
                parts.given(),
                parts.middle(),
                parts.family(),
                parts.suffix(),
                parts.phoneticGiven(),
                parts.phoneticFamily());
    }

    private static Contact contact(Row person, Belongings has, PhoneFiles phone) throws SQLException {
        var birthday = person.text("birthday");
        var day = Days.parse(birthday);
        var extras = new ArrayList<Extra>();
        if (day.isEmpty() && !birthday.isEmpty()) {
            extras.add(new Extra("BDAY", birthday));
        }
        var phones = new ArrayList<PhoneNumber>();
        var mails = new ArrayList<Labelled>();
        var webs = new ArrayList<Labelled>();
        var chats = new ArrayList<Labelled>();
        for (var reach : has.reach.stream()
                .sorted(Comparator.comparingLong(Reach::place))
                .toList()) {
            switch (reach.way()) {
                case "phone" -> phones.add(new PhoneNumber(reach.label(), reach.value(), phone.e164(reach.value())));
                case "mail" -> mails.add(new Labelled(reach.label(), reach.value()));
                case "web" -> webs.add(new Labelled(reach.label(), reach.value()));
                case "chat" ->
                    chats.add(
                            new Labelled(reach.label(), reach.label().toLowerCase(Locale.ROOT) + ":" + reach.value()));
                default -> extras.add(new Extra("X-" + reach.way().toUpperCase(Locale.ROOT), reach.value()));
            }
        }
        var nickname = person.text("nickname");
        var note = person.text("note");
        return new Contact(
                new ThingId(PEOPLE, Long.toString(person.number("id"))),
                person.text("account"),
                person.text("uid"),
                name(person),
                nickname.isEmpty() ? List.of() : List.of(nickname),
                new Organisation(person.text("organisation"), person.text("department"), person.text("title"), ""),
                phones,
                mails,
                webs,
                chats,
                has.addresses.stream()
                        .sorted(Comparator.comparingLong(Placed::place))
                        .map(Placed::address)
                        .toList(),
                day,
                Optional.empty(),
                List.of(),
                note.isEmpty() ? List.of() : List.of(note),
                has.groups,
                has.photo,
                Ostrel.instant(person.number("changed")),
                extras);
    }

    @Override
    public Optional<byte[]> picture(ThingId id, PhoneFiles phone) throws IOException {
        return phone.database(Layout.OSTREL_PEOPLE).bytes("portrait", "image", "person", Long.parseLong(id.key()));
    }
}
