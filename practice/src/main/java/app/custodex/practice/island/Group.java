package app.custodex.practice.island;

import static app.custodex.practice.island.Islander.AGLAYA;
import static app.custodex.practice.island.Islander.BRANN;
import static app.custodex.practice.island.Islander.CORMAC;
import static app.custodex.practice.island.Islander.DAGNY;
import static app.custodex.practice.island.Islander.EILIF;
import static app.custodex.practice.island.Islander.FENNA;
import static app.custodex.practice.island.Islander.HALVARD;
import static app.custodex.practice.island.Islander.IVO;
import static app.custodex.practice.island.Islander.JORUN;
import static app.custodex.practice.island.Islander.KAITO;
import static app.custodex.practice.island.Islander.MAREN;
import static app.custodex.practice.island.Islander.NEFELI;
import static app.custodex.practice.island.Islander.NOOR;
import static app.custodex.practice.island.Islander.SUNNIVA;
import static app.custodex.practice.island.Islander.TOVE;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** A conversation of more than two. */
enum Group {
    CHOIR(
            "Skerrow choir",
            Circle.CHOIR,
            member(MAREN),
            member(HALVARD),
            member(JORUN),
            member(FENNA),
            member(NOOR),
            member(SUNNIVA),
            member(CORMAC),
            member(AGLAYA),
            joined(NEFELI, LocalDate.of(2024, 9, 3))),
    STORM(
            "Storm watch, east",
            Circle.FERRY,
            member(EILIF),
            member(JORUN),
            member(IVO),
            member(FENNA),
            member(AGLAYA),
            member(CORMAC),
            member(SUNNIVA),
            member(DAGNY),
            joined(NOOR, LocalDate.of(2024, 2, 1)),
            left(HALVARD, LocalDate.of(2025, 2, 20))),
    FERRY(
            "Ferry crew",
            Circle.FERRY,
            member(EILIF),
            member(JORUN),
            member(TOVE),
            joined(NEFELI, LocalDate.of(2024, 5, 1))),
    SCHOOL(
            "School lunch",
            Circle.SCHOOL,
            member(NOOR),
            member(SUNNIVA),
            member(DAGNY),
            left(MAREN, LocalDate.of(2025, 6, 30)),
            member(IVO)),
    SEALS(
            "Seal count",
            Circle.SEALS,
            joined(KAITO, LocalDate.of(2024, 5, 18)),
            member(FENNA),
            member(SUNNIVA),
            joined(BRANN, LocalDate.of(2024, 5, 18))),
    KIN("Rook family", Circle.KIN, member(FENNA), member(HALVARD), member(BRANN), member(DAGNY));

    /** @param left absent while they are in it */
    record Member(Islander who, LocalDate joined, Optional<LocalDate> left) {
        boolean at(LocalDateTime time) {
            return !time.toLocalDate().isBefore(joined)
                    && left.map(day -> time.toLocalDate().isBefore(day)).orElse(true);
        }
    }

    private final String title;
    private final Circle circle;
    private final List<Member> members;

    Group(String title, Circle circle, Member... members) {
        this.title = title;
        this.circle = circle;
        this.members = Arrays.asList(members);
    }

    private static Member member(Islander who) {
        return new Member(who, LocalDate.of(2023, 1, 1), Optional.empty());
    }

    private static Member joined(Islander who, LocalDate day) {
        return new Member(who, day, Optional.empty());
    }

    private static Member left(Islander who, LocalDate day) {
        return new Member(who, LocalDate.of(2023, 1, 1), Optional.of(day));
    }

    String title() {
        return title;
    }

    Circle circle() {
        return circle;
    }

    List<Member> members() {
        return members;
    }
}
