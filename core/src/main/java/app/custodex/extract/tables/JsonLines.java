package app.custodex.extract.tables;

import app.custodex.exchange.ThingLines;
import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Set;

/** Anything as JSON, a line a thing, in the form that docs/things.md describes and that Custodex reads again. */
public final class JsonLines implements Format {
    @Override
    public String code() {
        return "json-lines";
    }

    @Override
    public String label() {
        return "JSON, a line a thing";
    }

    @Override
    public String leavesOut() {
        return "Leaves out photos and attachments, which are only named";
    }

    @Override
    public Set<KindGroup> groups() {
        return ALL;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        out.text(batch.title(), ".jsonl", text -> {
            text.write(ThingLines.head(
                            batch.material().phone(), batch.material().zone().getId())
                    + "\n");
            long count = 0;
            for (var line : batch.each(thing -> {
                try {
                    thing.attachments().forEach(any -> batch.leftOut("attachments, which are named only"));
                    return ThingLines.line(thing);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            })) {
                text.write(line + "\n");
                count++;
            }
            text.write(ThingLines.end(count) + "\n");
        });
    }
}
