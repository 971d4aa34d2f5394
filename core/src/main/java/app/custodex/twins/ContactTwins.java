package app.custodex.twins;

import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.model.Contact;
import app.custodex.model.ThingKind;
import app.custodex.search.Fold;
import app.custodex.twins.TwinSet.Likeness;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/**
 * Contacts that seem to be one person: they share a number, a mail address, an address in a chat service, or both name and birthday. A
 * name alone is never enough.
 */
final class ContactTwins {
    /** A number that more contacts have is that of a switchboard or a household, and tells nobody apart (common practice, no source). */
    private static final int MOST_SHARING = 4;
    /** Digits; shorter numbers are codes and extensions. */
    private static final int SHORTEST = 5;

    private static final String UNLIKE = "; but their names have nothing in common";

    private ContactTwins() {}

    static List<TwinSet> of(Catalogue catalogue) throws IOException {
        var contacts = new ArrayList<Contact>();
        var numbers = new ArrayList<Integer>();
        catalogue.forEach(catalogue.find(Filter.EVERYTHING.of(ThingKind.CONTACT), Order.AS_KEPT), entry -> {
            contacts.add((Contact) entry.thing());
            numbers.add((int) entry.number());
        });
        // What somebody shares, in words, and who shares it.
        Map<String, Set<Integer>> sharing = new LinkedHashMap<>();
        for (int i = 0; i < contacts.size(); i++) {
            int at = i;
            signs(
                    contacts.get(i),
                    sign -> sharing.computeIfAbsent(sign, s -> new LinkedHashSet<>())
                            .add(at));
        }
        var groups = new Groups(contacts.size());
        var reasons = new LinkedHashMap<String, Integer>();
        sharing.forEach((words, who) -> {
            if (who.size() > 1 && who.size() <= MOST_SHARING) {
                int first = who.iterator().next();
                who.forEach(other -> groups.join(first, other));
                reasons.put(words, first);
            }
        });
        var sets = new ArrayList<TwinSet>();
        var doubtful = new ArrayList<TwinSet>();
        for (var group : groups.groups()) {
            var shared = reasons.entrySet().stream()
                    .filter(reason -> group.contains(reason.getValue()))
                    .map(Map.Entry::getKey)
                    .collect(Collectors.joining("; "));
            var members = group.stream().map(numbers::get).toList();
            if (areNamesAlike(group.stream().map(contacts::get).toList())) {
                sets.add(new TwinSet(Likeness.ONE_PERSON, shared, members));
            } else {
                doubtful.add(new TwinSet(Likeness.ONE_PERSON, shared + UNLIKE, members));
            }
        }
        sets.addAll(doubtful); // last: nobody looks through a hundred of them
        return sets;
    }

    /** Whether each has a word of its name in common with the first: a household shares its number, too. */
    private static boolean areNamesAlike(List<Contact> contacts) {
        var first = words(contacts.getFirst());
        return contacts.stream().skip(1).noneMatch(other -> Collections.disjoint(first, words(other)));
    }

    private static Set<String> words(Contact contact) {
        return new HashSet<>(List.of(Fold.fold(contact.title()).split("[^\\p{L}\\p{N}]+")));
    }

    /** @param to takes what is compared, in the words in which it is told */
    private static void signs(Contact contact, Consumer<String> to) {
        contact.phones().forEach(phone -> {
            var number = MergeProposal.number(phone);
            if (number.chars().filter(Character::isDigit).count() >= SHORTEST) {
                to.accept("the same number " + number);
            }
        });
        contact.mails().forEach(mail -> {
            var address = mail.value().strip().toLowerCase(Locale.ROOT);
            if (address.contains("@")) {
                to.accept("the same mail address " + address);
            }
        });
        contact.chats().forEach(chat -> {
            var address = chat.value().strip().toLowerCase(Locale.ROOT);
            if (!address.isEmpty()) {
                var where = chat.label().isBlank() ? "a chat service" : chat.label();
                to.accept("the same address " + address + " in " + where);
            }
        });
        contact.birthday().ifPresent(day -> {
            var name = Fold.fold(contact.title()).strip();
            if (!name.isEmpty()) {
                to.accept("the same name " + name + " and birthday " + day.iso());
            }
        });
    }
}
