package app.custodex.practice.island;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;

/**
 * A conversation as one phone has it.
 *
 * @param name of a group; empty for one of two
 * @param members everybody but the owner of the phone, also those who left
 * @param service by which it goes
 */
public record Talk(String name, boolean group, List<Member> members, String service) {
    /**
     * @param address by which they are reached
     * @param name as it was given with the address; may be empty
     * @param joined by the island's clock
     * @param left absent while they are in it
     */
    public record Member(String address, String name, LocalDateTime joined, Optional<LocalDateTime> left) {}

    /** What hangs on a message. */
    public sealed interface Clip {}

    /** @param seed the same seed draws the same picture */
    public record Picture(Motif motif, long seed) implements Clip {}

    /** @param number of the recording */
    public record Voice(int number) implements Clip {}

    /** How somebody reacted; the owner's address is empty. */
    public record Sign(String by, String sign) {}

    /**
     * A message.
     *
     * @param talk its place in the list of conversations
     * @param by who wrote it; empty for the owner of the phone
     * @param at by the island's clock
     * @param replyTo a place in the list of messages
     * @param former what it said before it was changed
     * @param removed whether it was taken back by who wrote it
     */
    public record Said(
            int talk,
            String by,
            LocalDateTime at,
            String text,
            Optional<Integer> replyTo,
            Optional<Clip> clip,
            Optional<String> former,
            boolean removed,
            List<Sign> signs) {
        public boolean sent() {
            return by.isEmpty();
        }
    }
}
