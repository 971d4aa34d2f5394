package app.custodex.model;

import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import java.util.List;
import java.util.Optional;

/** Things with what a test is about and nothing else. */
public final class Samples {
    private Samples() {}

    public static Contact contact(
            ThingId id, String name, List<PhoneNumber> phones, List<Labelled> mails, List<String> notes) {
        return contact(id, "", name, phones, mails, notes);
    }

    public static Contact contact(
            ThingId id,
            String account,
            String name,
            List<PhoneNumber> phones,
            List<Labelled> mails,
            List<String> notes) {
        return new Contact(
                id,
                account,
                "",
                new PersonName(name, "", "", "", "", "", "", ""),
                List.of(),
                Organisation.NONE,
                phones,
                mails,
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty(),
                List.of(),
                notes,
                List.of(),
                false,
                Optional.empty(),
                List.of());
    }

    /** @param sender absent for what the owner of the phone sent */
    public static Message message(
            ThingId id, ThingId conversation, Moment at, Optional<Party> sender, String text, Message.State state) {
        return message(id, conversation, at, sender, text, state, List.of());
    }

    public static Message message(
            ThingId id,
            ThingId conversation,
            Moment at,
            Optional<Party> sender,
            String text,
            Message.State state,
            List<Attachment> attachments) {
        return new Message(
                id,
                "",
                conversation,
                Optional.of(at),
                sender.isEmpty(),
                sender,
                text,
                "SMS",
                state,
                attachments,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                false);
    }
}
