package app.custodex.practice.content;

import app.custodex.base.Disk;
import app.custodex.link.Family;
import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Shot;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** The pictures and recordings on a phone. Each is made by itself, so that a phone can be used before all of them are there. */
public final class Roll {
    private Roll() {}

    /** Makes a drawing in an empty file. */
    interface Hand {
        void draw(Photographer photographer, Path to) throws IOException;
    }

    /**
     * Something that is drawn.
     *
     * @param file where it lies then
     */
    public record Drawing(Path file, Hand hand) {
        /** Draws it. It is there whole or not at all, also for somebody who lists the phone meanwhile. */
        public void draw(Photographer photographer) throws IOException {
            Files.createDirectories(Disk.parent(file));
            var part = Files.createTempFile("practice-picture", ".part");
            try {
                hand.draw(photographer, part);
                Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
            } finally {
                Files.deleteIfExists(part);
            }
        }
    }

    /** Everything that is drawn: what hangs on messages, then the owner's pictures, the newest first. */
    public static List<Drawing> of(Family family, Path files, Life life) {
        var pictures = new ArrayList<Drawing>();
        for (int i = 0; i < life.shots().size(); i++) {
            pictures.add(
                    family == Family.OSTREL
                            ? OstrelMedia.picture(files, life, i)
                            : PellowMedia.picture(files, life, i));
        }
        Collections.reverse(pictures);
        var all = new ArrayList<>(
                family == Family.OSTREL ? OstrelTalk.parts(files, life) : PellowTalk.parts(files, life));
        all.addAll(pictures);
        return all;
    }

    /** Draws them, on all processors. */
    static void draw(List<Drawing> drawings, Photographer photographer) throws IOException {
        try {
            drawings.parallelStream().forEach(drawing -> {
                try {
                    drawing.draw(photographer);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /** A picture that the owner took. */
    static Drawing picture(Path file, Shot shot) {
        return new Drawing(file, (photographer, to) -> photographer.take(to, shot));
    }

    /** The same, in a format that can't be drawn here: a clip that is shipped. */
    static Drawing shipped(String clip, Path file, Shot shot) {
        return new Drawing(file, (photographer, to) -> Clips.put(clip, to, shot.at()));
    }
}
