package app.custodex.desktop.ui;

import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.io.UncheckedIOException;
import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import javafx.scene.text.Font;

/** The fonts that ship with the application: the interface's own at once, those of other scripts when they are needed. */
public final class Fonts {
    private static final Set<String> LOADED = new HashSet<>();
    private static final Set<UnicodeScript> HAN =
            EnumSet.of(UnicodeScript.HAN, UnicodeScript.HIRAGANA, UnicodeScript.KATAKANA, UnicodeScript.BOPOMOFO);

    private static final String NOTO_SANS = "Noto Sans";

    private Fonts() {}

    /** Loads the interface's own fonts. */
    public static void load() {
        for (var file : new String[] {
            "HankenGrotesk_400Regular",
            "HankenGrotesk_500Medium",
            "HankenGrotesk_600SemiBold",
            "HankenGrotesk_700Bold",
            "SplineSansMono_400Regular",
            "SplineSansMono_500Medium"
        }) {
            loadOnce(file);
        }
    }

    private static synchronized void loadOnce(String file) {
        if (!LOADED.add(file)) {
            return;
        }
        try (var in = open(file)) {
            if (Font.loadFont(in, 14) == null) {
                throw new IllegalStateException("the font " + file + " can't be read");
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A large font lies in several pieces, since not every place that keeps sources takes large files. */
    private static InputStream open(String file) {
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
        return Optional.ofNullable(Fonts.class.getResourceAsStream("/app/custodex/desktop/fonts/" + name));
    }

    /** The family that draws a script; empty text for those that the interface's own font draws. */
    static String family(UnicodeScript script) {
        if (HAN.contains(script)) {
            return family("NotoSansSC_400Regular", "Noto Sans SC");
        }
        return switch (script) {
            case HANGUL -> family("NotoSansKR_400Regular", "Noto Sans KR");
            case THAI -> family("NotoSansThai_400Regular", "Noto Sans Thai");
            case BENGALI -> family("NotoSansBengali_400Regular", "Noto Sans Bengali");
            case TAMIL -> family("NotoSansTamil_400Regular", "Noto Sans Tamil");
            case ARABIC -> family("NotoSansArabic_400Regular", "Noto Sans Arabic");
            case HEBREW -> family("NotoSansHebrew_400Regular", "Noto Sans Hebrew");
            case DEVANAGARI -> family("NotoSansDevanagari_400Regular", "Noto Sans Devanagari");
            case GREEK, CYRILLIC -> family("NotoSans_400Regular", NOTO_SANS);
            default -> "";
        };
    }

    /** The family that draws a script in the weight of the interface's own headings; most come in one weight. */
    static String strong(String family) {
        return family.equals(NOTO_SANS) ? family("NotoSans_600SemiBold", "Noto Sans SemiBold") : family;
    }

    static String emojiFamily() {
        return family("NotoEmoji_400Regular", "Noto Emoji");
    }

    private static String family(String file, String family) {
        loadOnce(file);
        return family;
    }
}
