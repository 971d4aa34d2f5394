package app.custodex.desktop.bench;

import app.custodex.base.ProblemException;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.docket.Country;
import app.custodex.docket.Docket;
import app.custodex.docket.Docket.Automatic;
import app.custodex.docket.Docket.Consent;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** What is written down when a phone is taken in. Without consent the phone's data may not be touched. */
final class DocketForm extends VBox {
    private static final String BY_HAND = "started by hand";
    private static final String EACH_TIME = "whenever it is plugged in";
    private static final String EACH_DAY = "each day from";

    private final Desk desk;
    private final BayModel bay;
    private final Label title = Parts.text("", "heading");
    private final TextField customer = field("docket-customer", "Name");
    private final TextField reach = field("docket-reach", "Telephone or mail while the phone is here");
    private final TextArea reason = new TextArea();
    private final TextField promisedDay = field("docket-promised-day", "YYYY-MM-DD");
    private final TextField promisedTime = field("docket-promised-time", "HH:MM");
    private final CheckBox consent = new CheckBox("The customer has given consent");
    private final CheckBox own = new CheckBox("It is the shop's own: there is no customer");
    private final TextField extent = field("docket-extent", "What may be done with the data");
    private final TextField country = field("docket-country", "GB");
    private final ComboBox<String> automatic = new ComboBox<>();
    private final TextField automaticTime = field("docket-automatic-time", "HH:MM");
    private final Label missing = Parts.sentence("", "mark-hand-words");
    private final Button save = Parts.button("docket-save", "Open the docket", "Ctrl+S", this::save, "main");
    private final Button next = Parts.button("docket-next", "New docket for this bay", "", this::startNew);

    DocketForm(Desk desk, BayModel bay) {
        this.desk = desk;
        this.bay = bay;
        getStyleClass().add("card");
        setSpacing(10);
        reason.setId("docket-reason");
        reason.setPromptText("What the customer wants, in a sentence");
        reason.setPrefRowCount(2);
        reason.setWrapText(true);
        consent.setId("docket-consent");
        missing.setId("docket-missing");
        own.setId("docket-own");
        consent.disableProperty().bind(own.selectedProperty());
        extent.disableProperty().bind(consent.selectedProperty().not().or(own.selectedProperty()));
        promisedDay.setPrefColumnCount(8);
        promisedTime.setPrefColumnCount(5);
        GridPane grid = Parts.facts(70);
        Parts.fact(grid, "Customer", customer);
        Parts.fact(grid, "Reach", reach);
        Parts.fact(grid, "Reason", reason);
        Parts.fact(grid, "Promised", new VBox(6, new HBox(8, promisedDay, promisedTime), promises()));
        Parts.fact(grid, "Consent", new VBox(6, consent, extent, own));
        if (!bay.isPhone()) { // a phone says itself where it is at home
            country.setPrefColumnCount(4);
            var numbers = new HBox(8, country, Parts.text("country in which they are dialled", "lesser"));
            numbers.setAlignment(Pos.CENTER_LEFT);
            Parts.fact(grid, "Numbers", numbers);
        }
        automatic.setId("docket-automatic");
        automatic.getItems().setAll(BY_HAND, EACH_TIME, EACH_DAY);
        automaticTime.setPrefColumnCount(5);
        automaticTime.visibleProperty().bind(automatic.valueProperty().isEqualTo(EACH_DAY));
        Parts.fact(grid, "Backups", new HBox(8, automatic, automaticTime));
        var buttons = new HBox(10, save, next);
        buttons.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(title, grid, missing, buttons);
        setOnKeyPressed(event -> {
            if (javafx.scene.input.KeyCombination.valueOf("Ctrl+S").match(event)) {
                save();
                event.consume();
            }
        });
        bay.docket().addListener((o, was, is) -> {
            if (!was.map(Docket::number).equals(is.map(Docket::number)) || is.isPresent()) {
                fill();
            }
        });
        fill();
    }

    /** What is promised most often, at a click. */
    private HBox promises() {
        return new HBox(
                6,
                promise("promise-noon", "Noon", LocalTime.NOON, 0),
                promise("promise-four", "At four", LocalTime.of(16, 0), 0),
                promise("promise-six", "At six", LocalTime.of(18, 0), 0),
                promise("promise-tomorrow", "Tomorrow at ten", LocalTime.of(10, 0), 1));
    }

    /** @param days from today; a time that is over today is tomorrow's */
    private Button promise(String id, String words, LocalTime time, int days) {
        return Parts.button(
                id,
                words,
                "",
                () -> {
                    var now = LocalDateTime.ofInstant(desk.now(), desk.words().zone());
                    var at = now.toLocalDate().plusDays(days).atTime(time);
                    var promise = at.isBefore(now) ? at.plusDays(1) : at;
                    promisedDay.setText(promise.toLocalDate().toString());
                    promisedTime.setText(promise.toLocalTime().toString());
                },
                "row-button");
    }

    private static TextField field(String id, String prompt) {
        var field = new TextField();
        field.setId(id);
        field.setPromptText(prompt);
        return field;
    }

    private void fill() {
        var docket = bay.docket().get();
        title.setText(
                docket.map(d -> "Docket " + d.label()).orElse(bay.isPhone() ? "Take the phone in" : "Take it in"));
        save.setText(docket.isPresent() ? "Keep changes" : "Open the docket");
        next.setVisible(docket.isPresent());
        customer.setText(docket.map(Docket::customer).orElse(""));
        reach.setText(docket.map(Docket::reach).orElse(""));
        reason.setText(docket.map(Docket::reason).orElse(""));
        var promised = docket.flatMap(Docket::promised);
        promisedDay.setText(
                promised.map(at -> at.toLocalDate().toString()).orElse(docket.isPresent() ? "" : today().toString()));
        promisedTime.setText(promised.map(at -> at.toLocalTime().toString()).orElse(""));
        own.setSelected(docket.filter(Docket::own).isPresent());
        consent.setSelected(docket.flatMap(Docket::consent).isPresent());
        extent.setText(
                docket.flatMap(Docket::consent).map(Consent::extent).orElse("Copy and read what the reason asks for"));
        var when = docket.flatMap(Docket::automatic);
        automatic.setValue(when.isEmpty() ? BY_HAND : when.get().daily().isPresent() ? EACH_DAY : EACH_TIME);
        automaticTime.setText(
                when.flatMap(Automatic::daily).map(LocalTime::toString).orElse("19:00"));
        country.setText(docket.map(Docket::country).orElse(""));
        missing.setText("");
    }

    private LocalDate today() {
        return LocalDate.ofInstant(desk.now(), desk.words().zone());
    }

    private void startNew() {
        desk.newDocket(bay);
        fill();
        customer.requestFocus();
    }

    private void save() {
        if (customer.getText().isBlank()) {
            missing.setText("Write the customer's name.");
            customer.requestFocus();
            return;
        }
        if (reason.getText().isBlank()) {
            missing.setText("Write what the customer wants.");
            reason.requestFocus();
            return;
        }
        Optional<LocalDateTime> promised;
        Optional<Automatic> byItself;
        try {
            promised = promised();
        } catch (DateTimeException e) {
            missing.setText("Write the promised time as year-month-day and hour:minute, or leave both empty.");
            promisedDay.requestFocus();
            return;
        }
        try {
            byItself = automatic();
        } catch (DateTimeException e) {
            missing.setText("Write from what time on the phone is backed up each day, as hour:minute.");
            automaticTime.requestFocus();
            return;
        }
        String dialled;
        try {
            dialled = Country.of(country.getText());
        } catch (ProblemException e) {
            missing.setText("Write the country as two letters, such as GB, or leave it empty.");
            country.requestFocus();
            return;
        }
        missing.setText(
                own.isSelected() || consent.isSelected()
                        ? ""
                        : "Kept. Nothing may be copied before the customer gives consent.");
        var before = bay.docket().get().flatMap(Docket::consent);
        var given = consent.isSelected() && !own.isSelected()
                ? Optional.of(new Consent(
                        before.map(Consent::given).orElse(desk.now()),
                        extent.getText().strip()))
                : Optional.<Consent>empty();
        desk.writeDocket(
                bay,
                new Docket.Form(
                        customer.getText().strip(),
                        reach.getText().strip(),
                        reason.getText().strip(),
                        given,
                        promised,
                        own.isSelected(),
                        dialled),
                byItself);
    }

    /** Counts from now on when it is new or different. */
    private Optional<Automatic> automatic() {
        if (BY_HAND.equals(automatic.getValue())) {
            return Optional.empty();
        }
        var daily = EACH_DAY.equals(automatic.getValue())
                ? Optional.of(time(automaticTime.getText().strip()))
                : Optional.<LocalTime>empty();
        return bay.docket()
                .get()
                .flatMap(Docket::automatic)
                .filter(before -> before.daily().equals(daily))
                .or(() -> Optional.of(new Automatic(daily, desk.now())));
    }

    private static LocalTime time(String written) {
        return LocalTime.parse(written.length() == 4 ? "0" + written : written);
    }

    private Optional<LocalDateTime> promised() {
        var day = promisedDay.getText().strip();
        var time = promisedTime.getText().strip();
        if (time.isEmpty()) {
            if (day.isEmpty() || day.equals(today().toString())) { // today stands there before anything is promised
                return Optional.empty();
            }
            throw new DateTimeException("a day without a time");
        }
        return Optional.of(LocalDate.parse(day).atTime(time(time)));
    }
}
