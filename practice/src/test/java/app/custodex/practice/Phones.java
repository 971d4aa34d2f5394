package app.custodex.practice;

import app.custodex.practice.content.OstrelStore;
import app.custodex.practice.content.PellowStore;
import app.custodex.practice.content.People;
import app.custodex.practice.content.Photographer.Quality;
import app.custodex.practice.island.Island;
import app.custodex.practice.island.Islander;
import app.custodex.practice.island.Life;
import java.io.IOException;
import java.nio.file.Path;

/** The files of phones for tests, with small pictures. */
final class Phones {
    private Phones() {}

    static Life ostrel(Path files, long seed, int people, OstrelStore.System system) throws IOException {
        var life = life(Islander.FENNA, seed);
        OstrelStore.write(files, life, new People(seed, life.owner()).take(people), system, Quality.SKETCH);
        return life;
    }

    static Life pellow(Path files, long seed, int people, PellowStore.Base base) throws IOException {
        var life = life(Islander.JORUN, seed);
        PellowStore.write(files, life, new People(seed, life.owner()).take(people), base, Quality.SKETCH);
        return life;
    }

    private static Life life(Islander owner, long seed) {
        return new Island(seed).life(owner, Life.NOW, Island.Size.ORDINARY);
    }
}
