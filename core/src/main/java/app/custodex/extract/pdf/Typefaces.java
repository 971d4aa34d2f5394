package app.custodex.extract.pdf;

import app.custodex.base.FontFiles;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The fonts that ship with the program, each loaded when it is needed, and what they have made of words so far. Used by one thread. */
public final class Typefaces implements Closeable {
    private static final int WORDS_KEPT = 40_000;
    private static final int EMOJI_STYLE = 0xfe0f;

    private final Map<String, Typeface> loaded = new HashMap<>();
    private final Map<Word, Shaped> words = new LinkedHashMap<>(1 << 10, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Word, Shaped> eldest) {
            return size() > WORDS_KEPT;
        }
    };

    private record Word(Typeface typeface, String text, boolean rightToLeft) {}

    Shaped shape(Typeface typeface, String text, boolean rightToLeft) {
        return words.computeIfAbsent(new Word(typeface, text, rightToLeft), word -> typeface.shape(text, rightToLeft));
    }

    /** The one for Latin. */
    Typeface plain(boolean strong) {
        return load(strong ? FontFiles.BOLD : FontFiles.PLAIN);
    }

    /**
     * The font that draws what readers see as one sign.
     *
     * @param before the one that drew the sign before; it goes on as long as it can
     * @param strong whether it is to look like a heading
     * @return empty when there is none
     */
    Optional<Typeface> of(String cluster, Optional<Typeface> before, boolean strong) {
        int first = cluster.codePointAt(0);
        var script = UnicodeScript.of(first);
        boolean common = script == UnicodeScript.COMMON || script == UnicodeScript.INHERITED;
        if (common && before.isPresent() && drawsAll(before.get(), cluster) && !isEmoji(cluster)) {
            return before;
        }
        for (var file : files(cluster, script, common, strong)) {
            var typeface = load(file);
            if (drawsAll(typeface, cluster)) {
                return Optional.of(typeface);
            }
        }
        // Marks that none has are dropped rather than the letter.
        return files(cluster, script, common, strong).stream()
                .map(this::load)
                .filter(typeface -> typeface.draws(first))
                .findFirst();
    }

    private static List<String> files(String cluster, UnicodeScript script, boolean common, boolean strong) {
        var files = new ArrayList<String>();
        if (isEmoji(cluster)) {
            files.add(FontFiles.EMOJI);
        }
        var own = FontFiles.of(script);
        files.add(strong && own.equals(FontFiles.PLAIN) ? FontFiles.BOLD : own);
        if (!common) {
            files.add(FontFiles.PLAIN);
        }
        files.addAll(FontFiles.SIGNS);
        return files;
    }

    private static boolean isEmoji(String cluster) {
        return Character.isEmojiPresentation(cluster.codePointAt(0))
                || cluster.indexOf(EMOJI_STYLE) > 0
                || cluster.codePoints()
                        .filter(Character::isEmojiModifier)
                        .findAny()
                        .isPresent();
    }

    private static boolean drawsAll(Typeface typeface, String cluster) {
        return cluster.codePoints().allMatch(sign -> isSilent(sign) || typeface.draws(sign));
    }

    /** Whether nothing is drawn for it: joiners, marks of direction, variation selectors. */
    private static boolean isSilent(int sign) {
        return Character.getType(sign) == Character.FORMAT || sign >= 0xfe00 && sign <= EMOJI_STYLE;
    }

    private Typeface load(String file) {
        return loaded.computeIfAbsent(file, name -> {
            try {
                return Typeface.load(name);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    @Override
    public void close() throws IOException {
        for (var typeface : loaded.values()) {
            typeface.close();
        }
    }
}
