package app.custodex.catalogue;

import app.custodex.search.Asked;
import app.custodex.search.Asked.Part;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Optional;

/**
 * Looks for things by what was typed.
 *
 * @param db the catalogue
 * @param words where its index of words is: in another database while it is being made
 * @param hasBeginnings whether the beginnings of words are written, which comes after everything else
 */
record WordSearch(Connection db, Connection words, boolean hasBeginnings) {
    /** The numbers of the things that hold it. */
    BitSet holding(Asked asked) throws SQLException, IOException {
        var found = Optional.<BitSet>empty();
        var others = new ArrayList<Part>();
        for (var part : asked.parts()) {
            if (hasBeginnings
                    && part.open()
                    && part.words().size() == 1
                    && Beginnings.covers(part.words().getFirst())) {
                found = Optional.of(
                        both(found, Beginnings.holding(db, part.words().getFirst())));
            } else {
                others.add(part);
            }
        }
        if (!others.isEmpty()) {
            var matching = new Conditions(words);
            matching.add("words MATCH ?", Asked.match(others));
            found = Optional.of(both(found, matching.numbers("SELECT group_concat(rowid) FROM words")));
        }
        var holding = found.orElseGet(BitSet::new);
        if (asked.number().isPresent()) {
            // Whose number it is in, whatever way it was written.
            var number = new Conditions(db);
            number.address("instr(digits, ?) > 0", national(asked.number().get()));
            holding.or(number.numbers("SELECT group_concat(id) FROM thing"));
        }
        return holding;
    }

    /** Those that are in both, where there is something to be in already. */
    static BitSet both(Optional<BitSet> one, BitSet other) {
        one.ifPresent(other::and);
        return other;
    }

    /** Without the zeros by which a number is dialled inside its own country, or abroad. */
    private static String national(String digits) {
        var stripped = digits.replaceFirst("^0+", "");
        return stripped.length() < 3 ? digits : stripped;
    }
}
