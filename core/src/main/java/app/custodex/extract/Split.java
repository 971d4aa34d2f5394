package app.custodex.extract;

import app.custodex.extract.Choice.Value;
import app.custodex.model.KindGroup;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Into how many files things are written: one for all of them, or one an account or person. */
public final class Split {
    private static final Value ALL = new Value("one", "one for all");
    private static final Value ACCOUNT = new Value("account", "one an account");
    private static final Value PERSON = new Value("person", "one a person");
    private static final Choice CONTACTS = Choice.one("files", "Files", ALL, ACCOUNT);
    private static final Choice TALKS = Choice.one("files", "Files", ALL, PERSON, ACCOUNT);

    private Split() {}

    /** What can be chosen for a group, if anything. */
    public static List<Choice> choices(KindGroup group) {
        return choice(group).stream().toList();
    }

    /** The choices of a format behind it. */
    public static List<Choice> choices(KindGroup group, List<Choice> more) {
        var all = new ArrayList<>(choices(group));
        all.addAll(more);
        return List.copyOf(all);
    }

    private static Optional<Choice> choice(KindGroup group) {
        return switch (group) {
            case CONTACTS -> Optional.of(CONTACTS);
            case CALLS, VOICEMAIL -> Optional.of(TALKS);
            default -> Optional.empty();
        };
    }

    /** Writes things into one file. */
    public interface Writing {
        void write(Batch batch, OutFolder out) throws IOException;
    }

    /** Writes a batch as it was chosen; several files come into a folder of their own. */
    public static void write(Batch batch, Chosen chosen, OutFolder out, Writing writing) throws IOException {
        var by = choice(batch.group()).map(chosen::of).orElse(ALL.code());
        if (by.equals(ALL.code())) {
            writing.write(batch, out);
            return;
        }
        var folder = out.folder(batch.title());
        for (var part : batch.divided(thing -> by.equals(PERSON.code()) ? person(thing, batch) : account(thing))) {
            writing.write(part, folder);
        }
    }

    private static Batch.Share account(Thing thing) {
        return new Batch.Share(thing.account(), thing.account().isBlank() ? "No account" : thing.account());
    }

    /** A call with several people is filed under the first of them. */
    private static Batch.Share person(Thing thing, Batch batch) {
        var party = thing.people().stream().findFirst().orElse(Party.named(""));
        return new Batch.Share(party.key(), batch.material().names().of(party, thing));
    }
}
