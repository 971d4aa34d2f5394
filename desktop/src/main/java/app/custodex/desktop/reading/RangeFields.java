package app.custodex.desktop.reading;

import app.custodex.base.Problem;
import app.custodex.catalogue.Spine.Span;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;

/** The two days between which one looks, to read and to type. */
final class RangeFields extends HBox {
    private final Desk desk;
    private final RoomModel room;
    private final TextField from = Parts.day("range-from", "From day");
    private final TextField until = Parts.day("range-until", "To day");

    RangeFields(Desk desk, RoomModel room) {
        super(6);
        this.desk = desk;
        this.room = room;
        from.setOnAction(event -> take());
        until.setOnAction(event -> take());
        setAlignment(Pos.CENTER_LEFT);
        setMinWidth(USE_PREF_SIZE);
        getChildren()
                .addAll(
                        Parts.text("From", "lesser"),
                        from,
                        Parts.text("to", "lesser"),
                        until,
                        Parts.button(
                                "range-whole",
                                "Whole layer",
                                "",
                                () -> room.ask(room.asked().within(Optional.empty()))));
    }

    private ZoneId zone() {
        return room.room()
                .get()
                .map(in -> in.phone().phone().timeZone())
                .orElse(desk.words().zone());
    }

    /** @param within empty for the whole layer */
    void show(Optional<Span> within) {
        var span = within.or(() -> room.room().get().flatMap(in -> in.spine().span()));
        from.setText(span.map(any -> date(any.from())).orElse(""));
        until.setText(span.map(any -> date(any.until() - 1)).orElse(""));
    }

    private String date(long at) {
        return Instant.ofEpochMilli(at).atZone(zone()).toLocalDate().toString();
    }

    /** Takes the two days as they are typed. */
    private void take() {
        try {
            var first = LocalDate.parse(from.getText().strip());
            var last = LocalDate.parse(until.getText().strip());
            var begin = first.isAfter(last) ? last : first;
            var end = first.isAfter(last) ? first : last;
            room.ask(room.asked()
                    .within(Optional.of(new Span(
                            begin.atStartOfDay(zone()).toInstant().toEpochMilli(),
                            end.plusDays(1).atStartOfDay(zone()).toInstant().toEpochMilli()))));
        } catch (DateTimeException | ArithmeticException noDay) {
            desk.work()
                    .tell(Problem.note(
                            from.getText().strip() + " to " + until.getText().strip(),
                            "These are not two dates",
                            "Write each date as year, month and day, such as 2026-01-31"));
            show(room.asked().within());
        }
    }
}
