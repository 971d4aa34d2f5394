package app.custodex.model;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * What a caller left on the phone.
 *
 * @param length zero when the phone does not say
 * @param sound the recording; its item is empty when the phone no longer has it
 */
public record Voicemail(
        ThingId id,
        String account,
        Optional<Moment> moment,
        Optional<Party> caller,
        Duration length,
        boolean heard,
        Attachment sound)
        implements Thing {
    @Override
    public ThingKind kind() {
        return ThingKind.VOICEMAIL;
    }

    @Override
    public List<Party> people() {
        return caller.stream().toList();
    }

    @Override
    public String title() {
        return caller.map(Party::title).orElse(sound.title());
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(sound.item());
    }

    @Override
    public List<Attachment> attachments() {
        return List.of(sound);
    }

    @Override
    public Optional<Boolean> outgoing() {
        return Optional.of(false);
    }
}
