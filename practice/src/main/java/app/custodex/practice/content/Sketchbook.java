package app.custodex.practice.content;

import java.io.IOException;
import java.nio.file.Path;

/** Draws the pictures that media/make.sh turns into the formats that Java can't write. */
final class Sketchbook {
    private Sketchbook() {}

    public static void main(String[] args) throws IOException {
        for (int i = 0; i < 8; i++) {
            Photographer.take(Path.of(args[0]).resolve(i + ".jpg"), 900 + i, Photographer.LAST_DAY.minusDays(i * 66L));
        }
    }
}
