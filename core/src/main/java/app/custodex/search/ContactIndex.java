package app.custodex.search;

import app.custodex.base.Suppliers;
import app.custodex.model.Contact;
import com.ibm.icu.text.AlphabeticIndex;
import com.ibm.icu.text.Collator;
import com.ibm.icu.text.RawCollationKey;
import com.ibm.icu.util.ULocale;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import java.util.stream.IntStream;

/**
 * Contacts from A to Z by the collation of a locale (Unicode Technical Standard #10, with CLDR's tailorings), with the
 * letter that each stands under, and a way to find one by typing. Immutable.
 */
public final class ContactIndex {
    /** Of Hangul, in the order of its syllables (Unicode Standard, section 3.12). */
    private static final String CONSONANTS = "ㄱㄲㄴㄷㄸㄹㅁㅂㅃㅅㅆㅇㅈㅉㅊㅋㅌㅍㅎ";

    private static final int FIRST_SYLLABLE = 0xAC00;
    private static final int SYLLABLES_EACH = 588;

    private final Locale locale;
    private final List<Contact> sorted;
    // Made when they are first asked for: opening a layer needs neither.
    private final Supplier<List<Folded>> folded = Suppliers.once(this::fold);
    private final Supplier<AlphabeticIndex.ImmutableIndex<Contact>> letters = Suppliers.once(this::letters);

    public ContactIndex(List<Contact> contacts, Locale locale) {
        this.locale = locale;
        record Keyed(Contact contact, RawCollationKey key) {}
        var collators = ThreadLocal.withInitial(() -> Collator.getInstance(ULocale.forLocale(locale)));
        sorted = contacts.parallelStream()
                .map(contact -> new Keyed(contact, collators.get().getRawCollationKey(contact.title(), null)))
                .sorted(Comparator.comparing(Keyed::key))
                .map(Keyed::contact)
                .toList();
    }

    /** Loads the rules of a locale, so that the first index is made without waiting for them. */
    public static void prepare(Locale locale) {
        Collator.getInstance(ULocale.forLocale(locale)).getRawCollationKey("Å", null);
    }

    private ContactIndex(Locale locale, List<Contact> sorted) {
        this.locale = locale;
        this.sorted = List.copyOf(sorted);
    }

    /** Contacts that are in the order of the locale already. */
    public static ContactIndex ofSorted(List<Contact> sorted, Locale locale) {
        return new ContactIndex(locale, sorted);
    }

    private List<Folded> fold() {
        return sorted.parallelStream().map(Folded::of).toList();
    }

    private AlphabeticIndex.ImmutableIndex<Contact> letters() {
        return new AlphabeticIndex<Contact>(ULocale.forLocale(locale))
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

    /** The letter that a contact stands under in this locale; "…" for what has none. */
    public String letter(Contact contact) {
        return whole(letters.get()
                .getBucket(letters.get().getBucketIndex(contact.title()))
                .getLabel());
    }

    /** A consonant of Hangul by itself as the first syllable that begins with it, as Korean lists do (common practice, no source). */
    private static String whole(String letter) {
        int consonant = CONSONANTS.indexOf(letter);
        return letter.length() == 1 && consonant >= 0
                ? Character.toString(FIRST_SYLLABLE + consonant * SYLLABLES_EACH)
                : letter;
    }

    /**
     * The contacts, from A to Z, that contain every word typed: in a name, firm, group, note or address, whatever the
     * accents and capitals; digits also within a telephone number however it is written.
     */
    public List<Contact> find(String typed) {
        var words = Fold.fold(typed).strip().split("\\s+");
        if (words.length == 1 && words[0].isEmpty()) {
            return sorted;
        }
        var numbers = Arrays.stream(words).map(Folded::digits).toList();
        var texts = folded.get();
        return IntStream.range(0, sorted.size())
                .filter(i -> matches(texts.get(i), words, numbers))
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
}
