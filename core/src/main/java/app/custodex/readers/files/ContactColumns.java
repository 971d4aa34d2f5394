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
import app.custodex.readers.Days;
import app.custodex.search.Fold;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What the columns of a table are, guessed from their titles, and the contact that a row of it is. */
final class ContactColumns {
    /** What a column may be. The pattern is matched by its folded title without its number. */
    private enum Part {
        NAME("(full |display )?names?"),
        PREFIX("prefix|name prefix"),
        GIVEN("(given|first|christian) ?names?|vorname|prenom"),
        MIDDLE("(middle|additional|second) ?names?"),
        FAMILY("(family|last) ?names?|surname|nachname|nom"),
        SUFFIX("suffix|name suffix"),
        SOUND_GIVEN("spoken given name|phonetic (given|first) name"),
        SOUND_FAMILY("spoken family name|phonetic (family|last) name"),
        NICKNAME("nick ?names?"),
        FIRM("organi[sz]ation|company|firm|firma|employer"),
        DEPARTMENT("department"),
        TITLE("(job )?title|position"),
        ROLE("role"),
        PHONE(
                "((home|work|mobile|business|fax|pager|main|primary|other|cell) )?(phone|telephone|tel|number|mobile|cell|fax|pager|handy)"
                        + "( number| no)?"),
        MAIL("((home|work|other) )?e ?mail( address)?|mail"),
        WEB("web|website|web page|url|home ?page"),
        CHAT("chat"),
        BOX("(.* )?(po )?box"),
        EXTENDED("(.* )?extended( address)?"),
        STREET("((home|work|business|address) )?street( address)?|address( line)?|strasse"),
        TOWN("((home|work|business|address) )?(town|city|locality)|ort"),
        REGION("((home|work|business|address) )?(region|state|province|county)"),
        CODE("((home|work|business|address) )?(code|zip|zip code|postal code|postcode|plz)"),
        COUNTRY("((home|work|business|address) )?country"),
        BIRTHDAY("birthday|date of birth|born|geburtstag"),
        ANNIVERSARY("anniversary"),
        RELATED("related"),
        GROUPS("groups?|labels?|categor(y|ies)"),
        NOTES("notes?|comments?|remarks?"),
        UID("identifier|uid"),
        /** Follows from other columns. */
        NOTHING("photo|changed utc|(.* )?e 164");

        private final Pattern title;

        Part(String title) {
            this.title = Pattern.compile(title);
        }
    }

    private static final Pattern NUMBERED = Pattern.compile("^(.*?) ?(\\d+)(.*)$");

    /**
     * @param number of those that are several, from 1
     * @param label whether it holds the label of another column
     */
    private record Column(String title, Optional<Part> part, int number, boolean label) {}

    private final List<Column> columns;

    private ContactColumns(List<Column> columns) {
        this.columns = columns;
    }

    static ContactColumns of(List<String> titles) {
        return new ContactColumns(titles.stream().map(ContactColumns::column).toList());
    }

    private static Column column(String title) {
        var words = Fold.fold(title).replaceAll("[^\\p{L}\\p{N}]+", " ").strip();
        int number = 1;
        var numbered = NUMBERED.matcher(words);
        if (numbered.matches() && numbered.group(2).length() < 4) {
            number = Integer.parseInt(numbered.group(2));
            words = (numbered.group(1) + numbered.group(3)).strip();
        }
        boolean label = words.endsWith(" label")
                || words.endsWith(" type")
                || words.endsWith(" name") && words.startsWith("other");
        var bare = label ? words.substring(0, words.lastIndexOf(' ')) : words;
        return new Column(
                title.strip(),
                Stream.of(Part.values())
                        .filter(part -> part.title.matcher(bare).matches())
                        .findFirst(),
                number,
                label);
    }

    /** Whether somebody could be called or written to by what is in it. */
    boolean areContacts() {
        return has(Part.NAME, Part.GIVEN, Part.FAMILY, Part.FIRM, Part.NICKNAME)
                && has(Part.PHONE, Part.MAIL, Part.STREET);
    }

    private boolean has(Part... parts) {
        return columns.stream().flatMap(column -> column.part().stream()).anyMatch(List.of(parts)::contains);
    }

    /** Which column was taken for what, in one line. */
    String told() {
        var unknown = columns.stream()
                .filter(column -> column.part().isEmpty() && !column.title().isEmpty())
                .map(Column::title)
                .toList();
        var known = columns.stream()
                .filter(column ->
                        column.part().filter(part -> part != Part.NOTHING).isPresent() && !column.label())
                .map(column -> column.title() + " as "
                        + column.part().get().name().toLowerCase(Locale.ROOT).replace('_', ' '))
                .collect(Collectors.joining(", "));
        return "Read as a table of contacts: " + known
                + (unknown.isEmpty() ? "" : "; kept as they are: " + String.join(", ", unknown));
    }

    private static final class Cells {
        private final Map<Part, Map<Integer, String>> values = new EnumMap<>(Part.class);
        private final Map<Part, Map<Integer, String>> labels = new EnumMap<>(Part.class);

        String first(Part part) {
            return values.getOrDefault(part, Map.of()).values().stream()
                    .findFirst()
                    .orElse("");
        }

        String at(Part part, int number) {
            return values.getOrDefault(part, Map.of()).getOrDefault(number, "");
        }

        String label(Part part, int number) {
            return labels.getOrDefault(part, Map.of()).getOrDefault(number, "");
        }

        List<Labelled> all(Part part) {
            return values.getOrDefault(part, Map.of()).entrySet().stream()
                    .map(e -> new Labelled(label(part, e.getKey()), e.getValue()))
                    .toList();
        }

        List<String> lines(Part part) {
            return first(part).isEmpty() ? List.of() : first(part).lines().toList();
        }
    }

    Contact contact(ThingId id, List<String> fields, UnaryOperator<String> e164) {
        var cells = new Cells();
        var extras = new ArrayList<Extra>();
        var used = new HashMap<Part, Integer>();
        var names = new HashMap<Integer, String>();
        for (int i = 0; i < Math.min(columns.size(), fields.size()); i++) {
            var column = columns.get(i);
            var value = fields.get(i).strip();
            if (value.isEmpty() || column.part().equals(Optional.of(Part.NOTHING))) {
                continue;
            }
            if (column.part().isEmpty()) {
                extra(column, value, names).ifPresent(extras::add);
                continue;
            }
            var part = column.part().get();
            var into = column.label() ? cells.labels : cells.values;
            var of = into.computeIfAbsent(part, p -> new LinkedHashMap<>());
            // "Home phone" and "Work phone" have no numbers of their own.
            int number = column.label() || !of.containsKey(column.number())
                    ? column.number()
                    : 1000 + used.merge(part, 1, Integer::sum);
            of.put(number, value);
            if (!column.label() && (part == Part.PHONE || part == Part.MAIL)) {
                word(column.title())
                        .ifPresent(label -> cells.labels
                                .computeIfAbsent(part, p -> new LinkedHashMap<>())
                                .putIfAbsent(number, label));
            }
        }
        return contact(id, cells, extras, e164);
    }

    /** "Other 1 name" names what is in "Other 1", as our own tables have it; else the title is the name. */
    private static Optional<Extra> extra(Column column, String value, Map<Integer, String> names) {
        var title = Fold.fold(column.title());
        if (column.label() && title.startsWith("other")) {
            names.put(column.number(), value);
            return Optional.empty();
        }
        var own = title.matches("other \\d+")
                ? Optional.ofNullable(names.get(column.number()))
                : Optional.<String>empty();
        return Optional.of(new Extra(
                own.orElseGet(() -> "X-" + column.title().replaceAll("[^A-Za-z0-9]+", "-")), value));
    }

    /** What the title itself says of a number. */
    private static Optional<String> word(String title) {
        var folded = Fold.fold(title);
        return Stream.of("home", "work", "business", "mobile", "cell", "fax", "pager")
                .filter(folded::contains)
                .findFirst()
                .map(word -> word.equals("business") ? "work" : word.equals("cell") ? "mobile" : word);
    }

    private static Contact contact(ThingId id, Cells cells, List<Extra> extras, UnaryOperator<String> e164) {
        var birthday = day(cells, Part.BIRTHDAY, extras);
        var anniversary = day(cells, Part.ANNIVERSARY, extras);
        var name = new PersonName(
                cells.first(Part.NAME),
                cells.first(Part.PREFIX),
                cells.first(Part.GIVEN),
                cells.first(Part.MIDDLE),
                cells.first(Part.FAMILY),
                cells.first(Part.SUFFIX),
                cells.first(Part.SOUND_GIVEN),
                cells.first(Part.SOUND_FAMILY));
        return new Contact(
                id,
                "",
                cells.first(Part.UID),
                name.display().isEmpty()
                        ? new PersonName(
                                name.composed(),
                                name.prefix(),
                                name.given(),
                                name.middle(),
                                name.family(),
                                name.suffix(),
                                name.phoneticGiven(),
                                name.phoneticFamily())
                        : name,
                cells.lines(Part.NICKNAME),
                new Organisation(
                        cells.first(Part.FIRM),
                        cells.first(Part.DEPARTMENT),
                        cells.first(Part.TITLE),
                        cells.first(Part.ROLE)),
                cells.all(Part.PHONE).stream()
                        .map(phone -> new PhoneNumber(phone.label(), phone.value(), e164.apply(phone.value())))
                        .toList(),
                cells.all(Part.MAIL),
                cells.all(Part.WEB),
                cells.all(Part.CHAT),
                addresses(cells),
                birthday,
                anniversary,
                cells.all(Part.RELATED),
                cells.first(Part.NOTES).isEmpty() ? List.of() : List.of(cells.first(Part.NOTES)),
                cells.lines(Part.GROUPS),
                false,
                Optional.empty(),
                extras);
    }

    /** What is no day is kept as it is. */
    private static Optional<Day> day(Cells cells, Part part, List<Extra> extras) {
        var written = cells.first(part);
        var day = Days.parse(written);
        if (day.isEmpty() && !written.isEmpty()) {
            extras.add(new Extra("X-" + part, written));
        }
        return day;
    }

    private static List<Address> addresses(Cells cells) {
        var parts = List.of(Part.BOX, Part.EXTENDED, Part.STREET, Part.TOWN, Part.REGION, Part.CODE, Part.COUNTRY);
        return parts.stream()
                .flatMap(part -> cells.values.getOrDefault(part, Map.of()).keySet().stream())
                .distinct()
                .sorted()
                .map(number -> new Address(
                        cells.label(Part.STREET, number),
                        cells.at(Part.BOX, number),
                        cells.at(Part.EXTENDED, number),
                        cells.at(Part.STREET, number),
                        cells.at(Part.TOWN, number),
                        cells.at(Part.REGION, number),
                        cells.at(Part.CODE, number),
                        cells.at(Part.COUNTRY, number)))
                .toList();
    }
}
