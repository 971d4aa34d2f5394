package app.custodex.readers.files;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A property is found in a card without parsing the card. */
class CardLineTest {
    private static Optional<String> value(String text, String property) {
        return CardLine.first(text, property, any -> true).map(line -> text.substring(line.value(), line.end()));
    }

    /** Names are the same in small letters and capitals, and may be in a group (RFC 6350 §3.3). */
    @ParameterizedTest
    @CsvSource({
        "UID:abc,abc",
        "uid:abc,abc",
        "item1.UID:abc,abc",
        "Uid;VALUE=text:abc:def,abc:def",
        "'UID;X=\"a:b\":c',c",
        "'UID;X=\"a;b\":c',c",
        "UID:,''"
    })
    void aPropertyIsFoundHoweverItIsWritten(String line, String expected) {
        for (var end : List.of("\r\n", "\n", "")) {
            assertEquals(Optional.of(expected), value("BEGIN:VCARD\r\nFN:UID\r\n" + line + end, "UID"));
        }
    }

    @ParameterizedTest
    @CsvSource({"UIDX:abc", "XUID:abc", "UID", "NOTE:UID:abc", "'NOTE:\\nUID:abc'", "UID.X:abc", "''"})
    void whatOnlyLooksLikeItIsNot(String line) {
        assertEquals(Optional.empty(), value("BEGIN:VCARD\r\n" + line + "\r\nEND:VCARD\r\n", "UID"));
    }

    @Test
    void theFirstThatFitsIsTaken() {
        var text = "PHOTO:https://example.org/a.jpg\r\nPHOTO;ENCODING=b:AAAA\r\nPHOTO;ENCODING=b:BBBB\r\n";
        var inline = CardLine.first(text, "PHOTO", line -> line.parameters().contains("ENCODING"));
        assertEquals(
                "AAAA",
                inline.map(line -> text.substring(line.value(), line.end())).orElseThrow());
        assertEquals(";ENCODING=b", inline.orElseThrow().parameters());
    }

    /** Against a plain pattern, over lines put together at random. */
    @Test
    void itAgreesWithAPlainPattern() {
        var random = new java.util.Random(3);
        var parts = List.of("UID", "uid", "a.", ":", ";X=1", "\r\n", "\n", "NOTE", "x", "\"", "END:VCARD");
        var plain =
                Pattern.compile("(?im)^(?:[^:;\\r\\n]*\\.)?UID(?:;(?:\"[^\"\\r\\n]*\"|[^:\"\\r\\n])*)?:([^\\r\\n]*)");
        int found = 0;
        for (int round = 0; round < 20_000; round++) {
            var text = new StringBuilder();
            for (int n = random.nextInt(9); n >= 0; n--) {
                text.append(parts.get(random.nextInt(parts.size())));
            }
            var expected = plain.matcher(text);
            var is = value(text.toString(), "UID");
            assertEquals(expected.find() ? Optional.of(expected.group(1)) : Optional.empty(), is, text.toString());
            found += is.isPresent() ? 1 : 0;
        }
        assertTrue(found > 500, "it found " + found);
    }
}
