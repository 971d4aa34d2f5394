package app.custodex.practice.island;

import app.custodex.practice.island.Talk.Clip;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Reads what the islanders say, which is written down in small-talk.txt and stories.txt beside this class. */
final class Scripts {
    private static final Pattern MARK = Pattern.compile("\\s*\\[([^\\]]*)\\]$");

    /** All of it, read once. */
    static final List<Piece> SMALL_TALK = smallTalk();

    static final List<Scene> STORIES = stories();

    private Scripts() {}

    /**
     * A line and what hangs on it.
     *
     * @param who speaks: a letter in small talk, a name in a story
     * @param minutes after the line before
     * @param replyTo the place of a line of the same piece
     */
    record Line(
            String who,
            int minutes,
            String text,
            Optional<Integer> replyTo,
            Optional<Motif> picture,
            boolean voice,
            Optional<String> former,
            boolean removed,
            List<String> signs) {}

    /** @param tags when and among whom it is said */
    record Piece(Set<String> tags, List<Line> lines) {}

    /**
     * What was said in one conversation at one time.
     *
     * @param where the title of a group, or "Name and Name"
     */
    record Scene(LocalDateTime from, String where, List<Line> lines) {}

    private static List<List<String>> blocks(String file) {
        var blocks = new ArrayList<List<String>>();
        try (var in = new BufferedReader(new InputStreamReader(
                Optional.ofNullable(Scripts.class.getResourceAsStream(file))
                        .orElseThrow(() -> new IllegalStateException("missing from the program: " + file)),
                StandardCharsets.UTF_8))) {
            for (var line = in.readLine(); line != null; line = in.readLine()) {
                if (line.startsWith("== ")) {
                    blocks.add(new ArrayList<>());
                }
                if (!line.isBlank() && !blocks.isEmpty()) {
                    blocks.getLast().add(line);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return blocks;
    }

    private static List<Piece> smallTalk() {
        var pieces = new ArrayList<Piece>();
        for (var block : blocks("small-talk.txt")) {
            pieces.add(new Piece(
                    Set.of(block.getFirst().substring(3).split(" ")),
                    block.stream()
                            .skip(1)
                            .map(line -> line(line.substring(0, 1), 0, line.substring(3)))
                            .toList()));
        }
        return List.copyOf(pieces);
    }

    private static List<Scene> stories() {
        var scenes = new ArrayList<Scene>();
        for (var block : blocks("stories.txt")) {
            var head = block.getFirst().split(" ", 4);
            scenes.add(new Scene(
                    LocalDateTime.parse(head[1] + "T" + head[2]),
                    head[3],
                    block.stream()
                            .skip(1)
                            .map(line -> line.split(" ", 3))
                            .map(words -> line(words[0], Integer.parseInt(words[1].substring(1)), words[2]))
                            .toList()));
        }
        return List.copyOf(scenes);
    }

    private static Line line(String who, int minutes, String written) {
        var text = written;
        Optional<Integer> replyTo = Optional.empty();
        Optional<Motif> picture = Optional.empty();
        Optional<String> former = Optional.empty();
        boolean voice = false;
        boolean removed = false;
        var signs = new ArrayList<String>();
        for (var mark = MARK.matcher(text); mark.find(); mark = MARK.matcher(text)) {
            var words = mark.group(1).split(" ", 2);
            text = text.substring(0, mark.start());
            switch (words[0]) {
                case "re" -> replyTo = Optional.of(Integer.parseInt(words[1]) - 1);
                case "picture" -> picture = Optional.of(Motif.of(words[1]));
                case "was" -> former = Optional.of(words[1]);
                case "voice" -> voice = true;
                case "gone" -> removed = true;
                case "link" -> text = text + " " + words[1];
                default -> signs.add(words[0].substring(1));
            }
        }
        return new Line(who, minutes, text, replyTo, picture, voice, former, removed, signs);
    }

    /** What hangs on a line. */
    static Optional<Clip> clip(Line line, long seed) {
        return line.picture()
                .<Clip>map(motif -> new Talk.Picture(motif, seed))
                .or(() -> line.voice() ? Optional.of(new Talk.Voice((int) Math.floorMod(seed, 4L))) : Optional.empty());
    }
}
