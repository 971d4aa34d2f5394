package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Person;
import app.custodex.search.Asked;
import app.custodex.search.Fold;
import java.util.Locale;
import java.util.function.Predicate;

/** Who is meant by what somebody typed. */
public final class Meant {
    /** Fewer digits are the end of too many numbers. */
    private static final int SHORTEST_NUMBER = 4;

    private Meant() {}

    /** Who has this name, this mail address, or this number in any writing. */
    public static Predicate<Person> exactly(String typed) {
        var name = Fold.fold(typed.strip());
        var address = typed.strip().toLowerCase(Locale.ROOT);
        var digits = typed.chars().anyMatch(Character::isLetter)
                ? ""
                : Asked.digits(typed).replaceFirst("^0+", "");
        return person -> Fold.fold(person.name()).equals(name)
                || person.addresses().contains(address)
                || digits.length() >= SHORTEST_NUMBER
                        && person.addresses().stream().anyMatch(known -> known.endsWith(digits));
    }

    /** The same, and whose name has words that begin as each of those that were typed. */
    public static Predicate<Person> perhaps(String typed) {
        var words = Fold.words(Fold.fold(typed));
        Predicate<Person> called = person -> {
            var own = Fold.words(Fold.fold(person.name()));
            return words.stream()
                    .allMatch(word -> own.stream().anyMatch(part -> part.text().startsWith(word.text())));
        };
        return words.isEmpty() ? exactly(typed) : exactly(typed).or(called);
    }
}
