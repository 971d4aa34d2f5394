package app.custodex.practice.island;

import app.custodex.practice.island.Talk.Said;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;

/**
 * What one islander's phone holds at some time. Times are by the island's clock.
 *
 * @param until the time
 * @param erased messages that the owner erased before
 */
public record Life(
        Islander owner,
        LocalDateTime until,
        List<Talk> talks,
        List<Said> said,
        List<Said> erased,
        List<Call> calls,
        List<Voicemail> voicemails,
        List<Event> events,
        List<Todo> todos,
        List<Note> notes,
        List<Mark> marks,
        List<Visit> visits,
        List<Shot> shots,
        List<Album> albums,
        List<App> apps,
        List<Alarm> alarms) {
    /** The first day of the three years. */
    public static final LocalDate BEGIN = LocalDate.of(2023, 1, 21);

    /** When the stories end, and the demo begins. */
    public static final LocalDateTime NOW = LocalDateTime.of(2026, 1, 18, 20, 0);

    public enum Outcome {
        MADE,
        TAKEN,
        MISSED,
        DECLINED
    }

    /** @param app through which it went; empty for the phone's own */
    public record Call(String address, Outcome outcome, boolean video, String app, LocalDateTime at, int seconds) {}

    /** @param sound the clip that was spoken */
    public record Voicemail(String address, LocalDateTime at, int seconds, boolean heard, String sound) {}

    /**
     * @param rule by RFC 5545; empty when it happens once
     * @param except occurrences that fall out
     * @param alarm minutes before; 0 for none
     */
    public record Event(
            String calendar,
            String title,
            String place,
            LocalDateTime from,
            int minutes,
            boolean allDay,
            String rule,
            List<LocalDateTime> except,
            int alarm,
            List<Islander> attendees) {}

    public record Todo(String title, LocalDateTime due, boolean done) {}

    /**
     * @param at when it was last changed
     * @param drawing a picture that belongs to it
     */
    public record Note(
            String folder, String title, String text, LocalDateTime made, LocalDateTime at, Optional<Motif> drawing) {}

    /** @param later kept to be read later */
    public record Mark(String folder, String title, String address, LocalDate added, boolean later) {}

    public record Visit(String title, String address, LocalDateTime at) {}

    /**
     * A picture that the owner took.
     *
     * @param spot absent when the phone did not write it down
     * @param moving whether a short clip belongs to it
     * @param burst the number of the burst that it belongs to; 0 for none
     */
    public record Shot(Motif motif, long seed, LocalDateTime at, Optional<Spot> spot, boolean moving, int burst) {}

    /** What an album is for. */
    public enum Role {
        OWN,
        FAVOURITES,
        HIDDEN,
        BIN
    }

    /** @param shots places in the list of pictures */
    public record Album(String name, Role role, List<Integer> shots) {}

    /** @param data whether it keeps data of its own on the phone */
    public record App(String identifier, String name, String version, long bytes, LocalDate installed, boolean data) {}

    /** @param days the days of the week, 1 for Monday; empty for once */
    public record Alarm(String label, int hour, int minute, List<Integer> days, boolean on) {}
}
