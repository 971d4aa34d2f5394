package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.desktop.ui.Words;
import app.custodex.model.Attachment;
import app.custodex.model.Contact;
import app.custodex.model.Note;
import app.custodex.model.Thing;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Things as lines on paper. Reads the catalogue, so it is used off the interface thread. */
final class PrintLines {
    private final OpenPhone phone;
    private final ThingWords words;
    private final Words of;

    PrintLines(OpenPhone phone, Words of) {
        this.phone = phone;
        this.of = of;
        this.words = new ThingWords(phone.names());
    }

    /** @param numbers in the catalogue, in the order in which they are printed */
    List<Printout.Line> of(int[] numbers) throws IOException {
        var lines = new ArrayList<Printout.Line>();
        phone.catalogue()
                .forEach(Arrays.stream(numbers).asLongStream().toArray(), entry -> lines.add(line(entry.thing())));
        return lines;
    }

    private Printout.Line line(Thing thing) {
        var when = thing.moment()
                .map(moment -> of.when(moment, phone.phone().timeZone()))
                .orElse("");
        return new Printout.Line(when, words.who(thing), what(thing));
    }

    private String what(Thing thing) {
        var attachments = thing.attachments().stream().map(Attachment::title).filter(title -> !title.isBlank());
        var texts = switch (thing) {
            case Contact contact ->
                Stream.concat(
                        Stream.of(contact.title()),
                        Stream.concat(
                                contact.phones().stream().map(number -> number.written()),
                                contact.mails().stream().map(mail -> mail.value())));
            case Note note -> Stream.of(note.title(), note.text());
            default -> Stream.of(words.what(thing));
        };
        return Stream.concat(texts, attachments)
                .filter(text -> !text.isBlank())
                .distinct()
                .collect(Collectors.joining(thing instanceof Note ? "\n" : " · "));
    }
}
