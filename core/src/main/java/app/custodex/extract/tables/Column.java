package app.custodex.extract.tables;

import app.custodex.model.Thing;
import java.util.function.Function;

/** A column: its heading, and what stands in it for a thing. */
record Column(String title, Function<Thing, Cell> cell) {
    static Column text(String title, Function<Thing, String> value) {
        return new Column(title, thing -> new Cell.Text(value.apply(thing)));
    }
}
