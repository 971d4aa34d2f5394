package app.custodex.desktop.reading;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.model.Contact;
import app.custodex.twins.MergeProposal;
import app.custodex.twins.MergeProposal.Value;
import java.util.ArrayDeque;
import java.util.BitSet;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** How contacts would be one, value by value; the contacts themselves stay as they are. */
final class MergePane extends VBox {
    private final Desk desk;
    private final TrayModel tray;
    private final GridPane values = new GridPane(10, 6);
    private final VBox people = new VBox(2);
    private final Button put = Parts.button("merge-put", "Put in the tray as one", "", this::put, "main");
    private final Button undo = Parts.button("merge-undo", "Undo", "Ctrl+Z", this::undo);
    private final Button apart = Parts.button("merge-apart", "Leave them apart", "", this::leaveApart);
    private final Label state = Parts.sentence("", "lesser");
    private final Deque<MergeProposal> before = new ArrayDeque<>();
    private Optional<MergeProposal> proposal = Optional.empty();
    private List<Integer> numbers = List.of();

    MergePane(Desk desk, TrayModel tray) {
        super(12);
        this.desk = desk;
        this.tray = tray;
        setId("merge");
        state.setId("merge-state");
        var actions = new FlowPane(10, 8, put, undo, apart);
        actions.setAlignment(Pos.CENTER_LEFT);
        getChildren()
                .addAll(
                        people,
                        Parts.text("As one contact", "heading"),
                        actions,
                        state,
                        values,
                        Parts.sentence(
                                "The layer is never changed. What is put in the tray as one is written as one when it is extracted.",
                                "lesser"));
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.Z && event.isShortcutDown()) {
                undo();
                event.consume();
            }
        });
        tray.merges().addListener((o, was, is) -> showState());
    }

    /** @param newNumbers of the contacts in the catalogue */
    void show(List<Contact> contacts, List<Integer> newNumbers) {
        numbers = List.copyOf(newNumbers);
        before.clear();
        var settled = tray.mergeOf(contacts);
        proposal = Optional.of(
                settled.map(merge -> MergeProposal.of(contacts, merge)).orElseGet(() -> MergeProposal.of(contacts)));
        people.getChildren().clear();
        for (int i = 0; i < contacts.size(); i++) {
            var contact = contacts.get(i);
            var from = contact.account().isBlank() ? "" : " · " + contact.account();
            people.getChildren().add(desk.veil().line((i + 1) + "  " + contact.title() + from));
        }
        fill();
    }

    private void fill() {
        var boxes =
                values.getChildren().stream().filter(CheckBox.class::isInstance).toList();
        var focused = boxes.stream().filter(Node::isFocused).findFirst().map(boxes::indexOf);
        values.getChildren().clear();
        proposal.ifPresent(now -> {
            int row = 0;
            for (var value : now.values()) {
                var keep = new CheckBox(value.part().label());
                keep.setId("merge-value-" + row);
                keep.setSelected(value.kept());
                keep.setMinWidth(120);
                keep.setOnAction(event -> choose(value, keep.isSelected()));
                var text = desk.veil().paragraph(value.text());
                var from =
                        value.from().stream().map(i -> Integer.toString(i + 1)).collect(Collectors.joining(", "));
                values.addRow(
                        row++,
                        keep,
                        text,
                        desk.veil().line(value.label(), "lesser"),
                        Parts.text("in " + from, "lesser"));
            }
        });
        // The keyboard stays where it was.
        focused.flatMap(row -> values.getChildren().stream()
                        .filter(CheckBox.class::isInstance)
                        .skip(row)
                        .findFirst())
                .ifPresent(Node::requestFocus);
        undo.setDisable(before.isEmpty());
        showState();
    }

    private void choose(Value value, boolean kept) {
        proposal.ifPresent(now -> {
            before.push(now);
            proposal = Optional.of(now.with(value, kept));
            fill();
        });
    }

    private void undo() {
        if (!before.isEmpty()) {
            proposal = Optional.of(before.pop());
            fill();
        }
    }

    private void put() {
        proposal.ifPresent(now -> {
            var picked = new BitSet();
            numbers.forEach(picked::set);
            tray.put(picked);
            tray.merge(now.settled());
        });
    }

    private void leaveApart() {
        proposal.ifPresent(now -> tray.unmerge(now.contacts()));
    }

    private void showState() {
        var settled = proposal.flatMap(now -> tray.mergeOf(now.contacts()));
        apart.setDisable(settled.isEmpty());
        boolean same = settled.isPresent() && settled.equals(proposal.map(MergeProposal::settled));
        state.setText(
                settled.isEmpty()
                        ? "Nothing is settled yet."
                        : same
                                ? "Settled: they are written as one contact."
                                : "Settled, but with other values than these.");
    }
}
