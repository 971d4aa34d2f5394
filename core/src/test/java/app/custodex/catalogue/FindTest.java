package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.search.Marks;
import java.io.IOException;
import java.nio.file.Path;
import java.text.Normalizer;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Finding by the index gives what a plain look through all texts gives. */
class FindTest {
    private static final List<List<String>> SCRIPTS = List.of(
            List.of("Kettle", "storm", "Åse", "naïve", "Łucja", "straße", "rope-ladder", "don't", "42", "x2"),
            List.of("шторм", "Ёлка", "паром", "маяк", "Прибоева"),
            List.of("νερό", "Αλμύρα", "λιμάνι", "θάλασσα"),
            List.of("عَاصِفَة", "مرفأ", "شكراً", "جزيلاً", "١٢"),
            List.of("סְעָרָה", "נמל", "תודה", "רבה"),
            List.of("तूफ़ान", "शुक्रिया", "नाव", "कल"),
            List.of("港", "海が光る", "明日", "灯台で会う", "がくせい", "カメラ"),
            List.of("พรุ่งนี้", "ท่าเรือ", "ประภาคาร", "เรือ"),
            List.of("등대", "바다", "내일", "항구에서"));
    private static final Pattern NO_WORD = Pattern.compile("[^\\p{L}\\p{Nd}\\p{Mn}\\p{Mc}]+");
    private static final Pattern UNSPACED = Pattern.compile("[\\p{IsHan}\\p{IsHiragana}\\p{IsKatakana}\\p{IsThai}ー]");

    @TempDir
    Path folder;

    private final Random random = new Random(12);
    private final List<String> texts = new ArrayList<>();

    @BeforeEach
    void write() {
        for (int i = 0; i < 600; i++) {
            var text = new StringBuilder();
            for (int n = 1 + random.nextInt(8); n > 0; n--) {
                var script = SCRIPTS.get(random.nextInt(6) == 0 ? random.nextInt(SCRIPTS.size()) : i % SCRIPTS.size());
                text.append(script.get(random.nextInt(script.size())));
                text.append(
                        i % SCRIPTS.size() < 6 || random.nextInt(3) == 0 ? " " : random.nextInt(4) == 0 ? "。🌊" : "");
            }
            texts.add(text.toString());
        }
    }

    private Catalogue catalogue() throws IOException {
        var phone = new WrittenReader(folder);
        var notes = new ArrayList<Thing>();
        for (int i = 0; i < texts.size(); i++) {
            notes.add(new Note(
                    new ThingId("notes", Integer.toString(i)),
                    "",
                    "",
                    "",
                    texts.get(i),
                    Optional.of(Moment.at(Instant.ofEpochSecond(i))),
                    List.of()));
        }
        phone.write("notes", notes.toArray(Thing[]::new));
        return phone.catalogue(Optional.empty(), 1);
    }

    /** Written anew, without the product's own: letters without the marks that are dropped, in small ones. */
    private static String plain(String text) {
        var bare = Normalizer.normalize(text, Normalizer.Form.NFKD)
                .toLowerCase(Locale.ROOT)
                .replaceAll(
                        "[\\u0300-\\u036f\\u0591-\\u05bd\\u064b-\\u065f\\u0640\\u0670\\ufe00-\\ufe0f\\u200b-\\u200f]",
                        "");
        return Normalizer.normalize(bare, Normalizer.Form.NFC);
    }

    /** A word may go on; of a script without spaces, what is asked may stand anywhere. */
    private static boolean holds(String text, String asked) {
        var in = plain(text);
        for (var word : NO_WORD.split(plain(asked))) {
            if (word.isEmpty()) {
                continue;
            }
            boolean there = UNSPACED.matcher(word).find()
                    ? in.contains(word)
                    : Arrays.stream(NO_WORD.split(UNSPACED.matcher(in).replaceAll(" ")))
                            .anyMatch(part -> part.startsWith(word));
            if (!there) {
                return false;
            }
        }
        return true;
    }

    private String query() {
        var text = texts.get(random.nextInt(texts.size()));
        var parts = NO_WORD.split(text);
        var part = parts[random.nextInt(parts.length)];
        if (part.isEmpty()) {
            return query();
        }
        int end = 1 + random.nextInt(part.length());
        boolean unspaced = UNSPACED.matcher(part).find();
        if (unspaced != UNSPACED.matcher(part).replaceAll("").isEmpty()) {
            return query(); // half of this script and half of that: told apart differently by everybody
        }
        int from = unspaced ? random.nextInt(end) : 0;
        var first = part.substring(from, end);
        if (NO_WORD.matcher(plain(first)).matches()
                || Character.getType(plain(first).codePointAt(0)) == Character.NON_SPACING_MARK) {
            return query();
        }
        return random.nextInt(3) == 0 ? first.toUpperCase(Locale.ROOT) + " " + "storm" : first;
    }

    @Test
    void twoHundredQueriesInEightScriptsGiveWhatAPlainLookGives() throws IOException {
        int hits = 0;
        try (var catalogue = catalogue()) {
            for (int i = 0; i < 200; i++) {
                var asked = query();
                var found = new TreeSet<Integer>();
                catalogue.forEach(
                        catalogue.find(asked, Filter.EVERYTHING, Order.OLDEST_FIRST),
                        entry -> found.add(Integer.parseInt(entry.thing().id().key())));
                var expected = new TreeSet<Integer>();
                for (int n = 0; n < texts.size(); n++) {
                    if (holds(texts.get(n), asked)) {
                        expected.add(n);
                    }
                }
                assertEquals(expected, found, asked);
                var marked = new TreeSet<Integer>();
                for (int n = 0; n < texts.size(); n++) {
                    if (!Marks.of(asked).in(texts.get(n)).isEmpty()) {
                        marked.add(n);
                    }
                }
                // Of several words each is marked where it is; only texts with all of them are found.
                assertTrue(asked.contains(" ") ? marked.containsAll(found) : marked.equals(found), asked);
                hits += found.size();
            }
        }
        assertTrue(hits > 2_000, hits + " hits");
    }

    /** What is marked, between brackets. */
    private static String marked(String typed, String text) {
        var shown = new StringBuilder(text);
        for (var mark : Marks.of(typed).in(text).reversed()) {
            shown.insert(mark.until(), ']').insert(mark.from(), '[');
        }
        return shown.toString();
    }

    @ParameterizedTest
    @CsvSource({
        "key lighthouse,The key to the lighthouse,The [key] to the [lighthouse]",
        "'\"the light\"',To the light or the lights,To [the light] or the lights",
        "ase,'Åse, ÅSE\u0301N, Base','[Åse], [ÅSE\u0301N], Base'",
        "灯台,あの灯台で,あの[灯台]で",
        "ΟΔΟΣ,Μία οδός,Μία [οδός]",
        "7700 900,call +44 (7700) 900-166 now,call +[44 (7700) 900-166] now",
        "…,kettle,kettle"
    })
    void whatWasFoundIsMarkedInWholeWords(String typed, String text, String shown) {
        assertEquals(shown, marked(typed, text));
    }

    @ParameterizedTest
    @CsvSource({
        "ase,Åse,true",
        "か,が,false",
        "灯台,あの灯台で,true",
        "台灯,あの灯台で,false",
        "เรือ,ท่าเรือ,true",
        "عاصفة,عَاصِفَة,true",
        "strasse,straße,false",
        "ﬁ,find,true",
        "ｋｅｔｔｌｅ,kettle,true"
    })
    void whatIsTheSameToReadersIsTheSameHere(String asked, String text, boolean found) throws IOException {
        texts.clear();
        texts.add(text);
        try (var catalogue = catalogue()) {
            assertEquals(found ? 1 : 0, catalogue.find(asked, Filter.EVERYTHING, Order.OLDEST_FIRST).length);
        }
    }
}
