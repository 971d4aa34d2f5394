package app.custodex.practice.content;

import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Shot;
import app.custodex.practice.island.Motif;
import app.custodex.practice.island.Spot;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;

/** Draws the pictures that media/make.sh turns into the formats that Java can't write. */
final class Sketchbook {
    private Sketchbook() {}

    public static void main(String[] args) throws IOException {
        var photographer = new Photographer(Photographer.Quality.FULL);
        for (int i = 0; i < 8; i++) {
            photographer.take(
                    Path.of(args[0]).resolve(i + ".jpg"),
                    new Shot(
                            Motif.values()[i * 2],
                            900 + i,
                            Life.NOW.minusDays(i * 66L).withHour(8 + i),
                            Optional.of(Spot.HARBOUR),
                            false,
                            0));
        }
    }
}
