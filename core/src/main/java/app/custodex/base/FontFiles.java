package app.custodex.base;

import java.io.InputStream;
import java.io.SequenceInputStream;
import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/** The fonts that ship with the program, as files, and which of them draws which script. */
public final class FontFiles {
    /** Latin, Greek and Cyrillic. */
    public static final String PLAIN = "NotoSans_400Regular";

    /** Greek and Cyrillic in the weight of the window's headings. */
    public static final String STRONG = "NotoSans_600SemiBold";

    /** The same as the plain one in the weight of headings on paper. */
    public static final String BOLD = "NotoSans_700Bold";

    public static final String EMOJI = "NotoEmoji_400Regular";

    /** Signs of no script, and what else several scripts use; the first that has a sign draws it. */
    public static final List<String> SIGNS = List.of(
            PLAIN,
            EMOJI,
            "NotoSansSymbols_400Regular",
            "NotoSansSymbols2_400Regular",
            "NotoSansMath_400Regular",
            "NotoSansSC_400Regular");

    private FontFiles() {}

    /** The file that draws a script. */
    public static String of(UnicodeScript script) {
        return switch (script) {
            case HAN, HIRAGANA, KATAKANA, BOPOMOFO -> "NotoSansSC_400Regular";
            case HANGUL -> "NotoSansKR_400Regular";
            case ARABIC -> "NotoSansArabic_400Regular";
            case ARMENIAN -> "NotoSansArmenian_400Regular";
            case BENGALI -> "NotoSansBengali_400Regular";
            case DEVANAGARI -> "NotoSansDevanagari_400Regular";
            case ETHIOPIC -> "NotoSansEthiopic_400Regular";
            case GEORGIAN -> "NotoSansGeorgian_400Regular";
            case GUJARATI -> "NotoSansGujarati_400Regular";
            case GURMUKHI -> "NotoSansGurmukhi_400Regular";
            case HEBREW -> "NotoSansHebrew_400Regular";
            case KANNADA -> "NotoSansKannada_400Regular";
            case KHMER -> "NotoSansKhmer_400Regular";
            case LAO -> "NotoSansLao_400Regular";
            case MALAYALAM -> "NotoSansMalayalam_400Regular";
            case MYANMAR -> "NotoSansMyanmar_400Regular";
            case ORIYA -> "NotoSansOriya_400Regular";
            case SINHALA -> "NotoSansSinhala_400Regular";
            case TAMIL -> "NotoSansTamil_400Regular";
            case TELUGU -> "NotoSansTelugu_400Regular";
            case THAANA -> "NotoSansThaana_400Regular";
            case THAI -> "NotoSansThai_400Regular";
            case TIBETAN -> "NotoSerifTibetan_400Regular";
            default -> PLAIN;
        };
    }

    /** A font as a TrueType file. A large one lies in several pieces, since not every place that keeps sources takes large files. */
    public static InputStream open(String file) {
        var whole = piece(file + ".ttf");
        if (whole.isPresent()) {
            return whole.get();
        }
        var pieces = new ArrayList<InputStream>();
        for (var piece = piece(file + ".ttf.1");
                piece.isPresent();
                piece = piece(file + ".ttf." + (pieces.size() + 1))) {
            pieces.add(piece.get());
        }
        if (pieces.isEmpty()) {
            throw new IllegalStateException("the font " + file + " is missing from the program");
        }
        return new SequenceInputStream(Collections.enumeration(pieces));
    }

    private static Optional<InputStream> piece(String name) {
        return Optional.ofNullable(FontFiles.class.getResourceAsStream("/app/custodex/fonts/" + name));
    }
}
