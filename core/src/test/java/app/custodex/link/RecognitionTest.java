package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The starts are those of the published formats: JPEG, PNG, TIFF, ISO 14496-12, RIFF, RFC 6350, RFC 5545, RFC 4867, RFC 9639. */
class RecognitionTest {
    @ParameterizedTest
    @CsvSource({
        "a.bin, FFD8FFE000104A46, PHOTOS",
        "letter.txt, 89504E470D0A1A0A, PHOTOS",
        "x, 49492A0008000000, PHOTOS",
        "x, 255044462D312E37, BOOKS",
        "x.dat, 424547494E3A56434152440D0A, CONTACTS",
        "x, 424547494E3A5643414C454E4441520D0A, CALENDARS",
        "x, 2321414D520A3C, MEMOS",
        "x, 664C614300000022, MUSIC",
        "film, 000000186674797069736F6D0000020069736F6D, VIDEOS",
        "picture, 0000001866747970686569630000000068656963, PHOTOS",
        "picture.heic, 0000001866747970686569630000000068656963, PHOTOS",
        "tune.m4a, 00000018667479704D34412000000000, MUSIC",
        "x, 524946460000000057415645666D7420, MUSIC",
        "x, 524946460000000057454250565038, PHOTOS",
        "report.docx, 504B030414000600, BOOKS",
        "x.zip, 504B030414000600, OTHER",
        "note.md, 68656C6C6F, NOTES",
        "nothing, 00, OTHER"
    })
    void tellsAFileByItsStartAndElseByItsName(String name, String hexadecimal, Kind kind) {
        assertEquals(kind, Recognition.byContent(new PhonePath(name), bytes(hexadecimal)));
    }

    private static byte[] bytes(String hexadecimal) {
        return HexFormat.of().parseHex(hexadecimal);
    }

    @Test
    void anEmptyFileIsWhatItIsCalled() {
        assertEquals(Kind.PHOTOS, Recognition.byContent(new PhonePath("a.jpg"), new byte[0]));
        assertEquals(
                Kind.OTHER,
                Recognition.byContent(new PhonePath("a"), "From nobody".getBytes(StandardCharsets.US_ASCII)));
    }
}
