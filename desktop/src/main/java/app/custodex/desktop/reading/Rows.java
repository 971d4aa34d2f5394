package app.custodex.desktop.reading;

import java.util.AbstractList;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** The rows of a long list by their numbers, none of which is kept. */
final class Rows {
    private Rows() {}

    static ObservableList<Integer> of(int size) {
        return FXCollections.observableList(new AbstractList<>() {
            @Override
            public Integer get(int row) {
                return row;
            }

            @Override
            public int size() {
                return size;
            }
        });
    }
}
