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
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** The pictures that an owner took. Each is drawn by itself, so that a phone can be used before all of them are there. */
public final class Roll {
    private Roll() {}

    /**
     * A picture.
     *
     * @param file where it lies
     * @param shipped the clip that it is, for the formats that can't be drawn here
     */
    public record Picture(Path file, Shot shot, Optional<String> shipped) {}

    /** The pictures of a phone, the newest first. */
    public static List<Picture> of(Family family, Path files, Life life) {
        var pictures = new ArrayList<Picture>();
        for (int i = 0; i < life.shots().size(); i++) {
            pictures.add(
                    family == Family.OSTREL
                            ? OstrelMedia.picture(files, life, i)
                            : PellowMedia.picture(files, life, i));
        }
        pictures.sort(
                Comparator.comparing((Picture picture) -> picture.shot().at()).reversed());
        return pictures;
    }

    /** Draws them, on all processors. */
    static void draw(List<Picture> pictures, Photographer photographer) throws IOException {
        try {
            pictures.parallelStream().forEach(picture -> {
                try {
                    draw(picture, photographer);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /** Draws one. It is there whole or not at all, also for somebody who lists the phone meanwhile. */
    public static void draw(Picture picture, Photographer photographer) throws IOException {
        if (picture.shipped().isPresent()) {
            Clips.put(picture.shipped().get(), picture.file(), picture.shot().at());
            return;
        }
        Files.createDirectories(Disk.parent(picture.file()));
        var part = Files.createTempFile("practice-picture", ".jpg");
        try {
            photographer.take(part, picture.shot());
            Files.move(part, picture.file(), StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(part);
        }
    }
}
