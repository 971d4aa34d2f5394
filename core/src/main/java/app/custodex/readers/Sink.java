package app.custodex.readers;

import app.custodex.base.Problem;
import app.custodex.model.Thing;
import java.io.IOException;

/** Takes what is read, as it is read. */
public interface Sink {
    /** @throws IOException when it can't be taken; the reading ends then */
    void thing(Thing thing) throws IOException;

    /** Something could not be read, or not in full. */
    void problem(Problem problem);
}
