package app.custodex.search;

import app.custodex.model.Contact;
import com.ibm.icu.text.AlphabeticIndex;
import com.ibm.icu.text.Collator;
import com.ibm.icu.text.RawCollationKey;
import com.ibm.icu.util.ULocale;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Contacts from A to Z by the collation of a locale (Unicode Technical Standard #10, with CLDR's tailorings), with the
 * letter that each stands under, and a way to find one by typing. Immutable.
 */
public final class ContactIndex {
    private final List<Contact> sorted;
    private final List<Folded> folded;
    private final Map<String, Integer> position;
    private final AlphabeticIndex.ImmutableIndex<Contact> letters;

    public ContactIndex(List<Contact> contacts, Locale locale) {
        var collators = ThreadLocal.withInitial(() -> Collator.getInstance(ULocale.forLocale(locale)));
        var keys = new RawCollationKey[contacts.size()];
        Arrays.parallelSetAll(keys, i -> collators.get().getRawCollationKey(contacts.get(i).title(), null));
        var order = IntStream.range(0, contacts.size())
                .boxed()
                .sorted((a, b) -> keys[a].compareTo(keys[b]))
                .toList();
        sorted = order.stream().map(contacts::get).toList();
        folded = sorted.parallelStream().map(Folded::of).toList();
        position = HashMap.newHashMap(sorted.size());
        for (int i = 0; i < sorted.size(); i++) {
            position.put(sorted.get(i).id(), i);
        }
        letters = new AlphabeticIndex<Contact>(ULocale.forLocale(locale))
                .setMaxLabelCount(999)
                .addLabels(
                        Locale.ENGLISH,
                        Locale.of("el"),
                        Locale.of("ru"),
                        Locale.of("ar"),
                        Locale.of("he"),
                        Locale.of("hi"),
                        Locale.KOREAN,
                        Locale.JAPANESE)
                .buildImmutableIndex();
    }

    /** All contacts from A to Z. */
    public List<Contact> ascending() {
        return sorted;
    }

    /** All contacts from Z to A. */
    public List<Contact> descending() {
        return sorted.reversed();
    }

    /** Where a contact stands from A to Z; -1 when it isn't one of these. */
    public int position(Contact contact) {
        return position.getOrDefault(contact.id(), -1);
    }

    /** The letter that a contact stands under in this locale; "…" for what has none. */
    public String letter(Contact contact) {
        return letters.getBucket(letters.getBucketIndex(contact.title())).getLabel();
    }

    /**
     * The contacts, from A to Z, that contain every word typed: in a name, firm, group, note or address, whatever the
     * accents and capitals; digits also within a telephone number however it is written.
     */
    public List<Contact> find(String typed) {
        var words = Folded.fold(typed).strip().split("\\s+");
        if (words.length == 1 && words[0].isEmpty()) {
            return sorted;
        }
        var numbers = Arrays.stream(words).map(Folded::digits).toList();
        return IntStream.range(0, sorted.size())
                .filter(i -> matches(folded.get(i), words, numbers))
                .mapToObj(sorted::get)
                .toList();
    }

    private static boolean matches(Folded contact, String[] words, List<String> numbers) {
        for (int i = 0; i < words.length; i++) {
            if (!contact.text().contains(words[i])
                    && (numbers.get(i).isEmpty() || !contact.digits().contains(numbers.get(i)))) {
                return false;
            }
        }
        return true;
    }

    /** The same contacts the other way round. */
    public static List<Contact> reversed(List<Contact> contacts) {
        return Collections.unmodifiableList(contacts.reversed());
    }
}
