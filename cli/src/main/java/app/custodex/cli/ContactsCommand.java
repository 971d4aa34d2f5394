package app.custodex.cli;

import app.custodex.app.OpenPhone;
import app.custodex.app.ReadingProgress;
import app.custodex.model.Contact;
import app.custodex.model.ThingKind;
import app.custodex.search.ContactIndex;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lists the contacts of a layer. */
@Command(name = "contacts", description = "Lists the contacts of a layer.", mixinStandardHelpOptions = true)
final class ContactsCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Option(
            names = "--find",
            paramLabel = "WORDS",
            defaultValue = "",
            description = "Only contacts that contain every word")
    private String find;

    @Option(names = "--descending", description = "From Z to A")
    private boolean descending;

    @Option(names = "--json", description = "Print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var early = new Early();
        try (var custodex = home.open();
                var open = layer.open(custodex, early)) {
            if (!early.printed) {
                LayerOption.requireContacts(custodex, open);
                print(open.contacts());
            }
            return FilterOption.losses(
                    open, Set.of(ThingKind.CONTACT), spec.commandLine().getErr());
        }
    }

    /** A layer that is opened for the first time has its contacts long before all of it is read. */
    private final class Early implements ReadingProgress {
        private boolean printed;

        @Override
        public void read(long things) {}

        @Override
        public void contacts(Supplier<ContactIndex> contacts) {
            if (!printed) {
                show(contacts.get());
            }
        }

        @Override
        public void usable(OpenPhone growing) {
            if (!printed) {
                show(growing.contacts());
            }
        }

        private void show(ContactIndex contacts) {
            if (contacts.ascending().isEmpty()) {
                return; // that there are none is told of the whole layer
            }
            try {
                print(contacts);
                printed = true;
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private void print(ContactIndex contacts) throws IOException {
        var out = spec.commandLine().getOut();
        var found = contacts.find(find);
        var ordered = descending ? found.reversed() : found;
        if (json) {
            Output.json(out, ordered);
        } else {
            ordered.forEach(contact -> Output.line(out, line(contact)));
        }
        out.flush();
    }

    private static String line(Contact contact) {
        var reach = contact.phones().stream()
                .map(phone -> phone.e164().isEmpty() ? phone.written() : phone.e164())
                .collect(Collectors.joining(", "));
        return Output.oneLine(contact.title()) + "\t" + Output.oneLine(reach);
    }
}
