package app.custodex.desktop.ui;

import app.custodex.base.FontFiles;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.Character.UnicodeScript;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import javafx.scene.text.Font;

/** The fonts that ship with the application: the interface's own at once, those of other scripts when they are needed. */
public final class Fonts {
    /** Family names by the files that are loaded. */
    private static final Map<String, String> FAMILIES = new ConcurrentHashMap<>();

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

    private static synchronized String loadOnce(String file) {
        var known = FAMILIES.get(file);
        if (known != null) {
            return known;
        }
        try (var in = FontFiles.open(file)) {
            var font = Font.loadFont(in, 14);
            if (font == null) {
                throw new IllegalStateException("the font " + file + " can't be read");
            }
            FAMILIES.put(file, font.getFamily());
            return font.getFamily();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The family that draws a script; empty text for those that the interface's own font draws. */
    static String family(UnicodeScript script) {
        return switch (script) {
            case LATIN, COMMON, INHERITED, UNKNOWN -> "";
            default -> loadOnce(FontFiles.of(script));
        };
    }

    /** The family that draws a script in the weight of the interface's own headings; most come in one weight. */
    static String strong(String family) {
        return family.equals(FAMILIES.get(FontFiles.PLAIN)) ? loadOnce(FontFiles.STRONG) : family;
    }

    static String emojiFamily() {
        return loadOnce(FontFiles.EMOJI);
    }
}
