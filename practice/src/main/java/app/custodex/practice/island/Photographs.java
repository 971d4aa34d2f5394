package app.custodex.practice.island;

import app.custodex.practice.island.Life.Album;
import app.custodex.practice.island.Life.Role;
import app.custodex.practice.island.Life.Shot;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.stream.IntStream;

/** The pictures that an islander took, and what they were sorted into. */
final class Photographs {
    private static final int ORDINARY = 84;

    private final SplittableRandom random;
    private final List<Shot> shots = new ArrayList<>();

    /** @param count how many, about; 0 for as many as people take */
    Photographs(long seed, Islander owner, LocalDateTime until, int count) {
        this.random = new SplittableRandom(seed * 524_287 + owner.ordinal());
        walks(count == 0 ? ORDINARY : count);
        for (int i = 0; i < 6; i++) {
            take(
                    i % 3 == 2 ? Motif.BOAT : Motif.STORM,
                    LocalDateTime.of(2025, 11, 14, 17 + i / 2, 4 + i * 9),
                    i == 3,
                    0);
            take(i % 2 == 0 ? Motif.CHOIR : Motif.SEA, LocalDateTime.of(2026, 1, 9, 12 + i, 20), i == 4, 0);
        }
        for (int i = 0; i < 5; i++) { // held down while a seal looked
            take(Motif.SEAL, LocalDateTime.of(2025, 8, 2, 14, 0, i / 3), false, 1);
        }
        take(Motif.SCREEN, LocalDateTime.of(2025, 12, 31, 23, 58), false, 0);
        take(Motif.SCREEN, LocalDateTime.of(2026, 1, 12, 17, 55), false, 0);
        shots.removeIf(shot -> shot.at().isAfter(until));
        shots.sort(Comparator.comparing(Shot::at));
    }

    private void walks(int count) {
        long minutes = ChronoUnit.MINUTES.between(Life.BEGIN.atStartOfDay(), Life.NOW);
        for (int i = 0; i < count; i++) {
            // More of them lately, as on any phone.
            double when = Math.sqrt((i + random.nextDouble()) / count);
            var day = Life.BEGIN
                    .atStartOfDay()
                    .plusMinutes((long) (when * minutes))
                    .toLocalDate();
            boolean night = random.nextInt(7) == 0;
            var at = day.atTime(
                    night ? 21 + random.nextInt(2) : 7 + random.nextInt(13), random.nextInt(60), random.nextInt(60));
            take(motif(day, night), at, random.nextInt(20) == 0, 0);
        }
    }

    private Motif motif(LocalDate day, boolean night) {
        var of = night
                ? List.of(Motif.AURORA, Motif.NIGHT, Motif.LIGHTHOUSE)
                : switch (Weather.season(day)) {
                    case "winter" -> List.of(Motif.SNOW, Motif.SEA, Motif.BREAD, Motif.DOG, Motif.STORM, Motif.CLIFF);
                    case "summer" -> List.of(Motif.SUNSET, Motif.SEAL, Motif.BOAT, Motif.KELP, Motif.CLIFF, Motif.DOG);
                    default -> List.of(Motif.KELP, Motif.HILL, Motif.GATE, Motif.LIGHTHOUSE, Motif.SEA, Motif.BREAD);
                };
        return of.get(random.nextInt(of.size()));
    }

    private void take(Motif motif, LocalDateTime at, boolean moving, int burst) {
        boolean located = motif != Motif.SCREEN && random.nextInt(5) != 0;
        var spot = at.toLocalDate().equals(LocalDate.of(2026, 1, 9)) ? Spot.LAMPHOLM : motif.spot();
        long of = burst > 0 ? 77_000 : random.nextLong(1L << 40);
        shots.add(new Shot(motif, of, at, located ? Optional.of(spot) : Optional.empty(), moving, burst));
    }

    List<Shot> shots() {
        return shots;
    }

    List<Album> albums() {
        var albums = new ArrayList<Album>();
        add(albums, "Storm night", Role.OWN, shot -> shot.at().toLocalDate().equals(Weather.STORM_NIGHT));
        add(
                albums,
                "Choir tour",
                Role.OWN,
                shot -> shot.at().isAfter(LocalDateTime.of(2026, 1, 9, 0, 0))
                        && shot.at().isBefore(LocalDateTime.of(2026, 1, 12, 0, 0)));
        add(albums, "Seals", Role.OWN, shot -> shot.motif() == Motif.SEAL);
        every(albums, Role.FAVOURITES, 9, 4);
        every(albums, Role.HIDDEN, 31, 3);
        every(albums, Role.BIN, 17, 11);
        return albums;
    }

    /** One in so many of the walks, from a place on. */
    private void every(List<Album> albums, Role role, int step, int from) {
        var places = IntStream.range(0, shots.size())
                .filter(i -> i % step == from % step
                        && shots.get(i).burst() == 0
                        && shots.get(i).motif() != Motif.SCREEN)
                .boxed()
                .toList();
        if (!places.isEmpty()) {
            albums.add(new Album("", role, places));
        }
    }

    private void add(List<Album> albums, String name, Role role, java.util.function.Predicate<Shot> in) {
        var places = new ArrayList<Integer>();
        for (int i = 0; i < shots.size(); i++) {
            if (in.test(shots.get(i))) {
                places.add(i);
            }
        }
        if (!places.isEmpty()) {
            albums.add(new Album(name, role, places));
        }
    }
}
