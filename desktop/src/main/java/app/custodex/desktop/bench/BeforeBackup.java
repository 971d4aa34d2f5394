package app.custodex.desktop.bench;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.backup.Survey;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.link.Kind;
import app.custodex.link.Limits;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** What a backup will take, where to, and how: looked at before anything is copied. */
final class BeforeBackup extends VBox {
    private final Desk desk;
    private final BayModel bay;
    private final VBox notes = new VBox(8);
    private final VBox what = new VBox();
    private final KindChoice kinds;
    private final Label need = Parts.sentence("");
    private final Label room = Parts.sentence("");
    private final Label root = Parts.sentence("", "mono");
    private final Button lookAgain = Parts.button("look-again", "Look the phone over again", "", () -> {});
    private final SealPane seal;
    private final CheckBox limits = new CheckBox("Go beyond the limits next time");
    private List<Object> shown = List.of();
    private Optional<Long> roomBytes = Optional.empty();

    BeforeBackup(Desk desk, BayModel bay) {
        super(12);
        this.desk = desk;
        this.bay = bay;
        kinds = new KindChoice(desk, bay, this::chooseItems);
        seal = new SealPane(desk, bay);
        what.setMinWidth(0);
        what.getChildren().setAll(kinds);
        HBox.setHgrow(what, Priority.ALWAYS);
        var how = new VBox(14, where(), how(), seal);
        how.setMinWidth(278);
        how.setMaxWidth(278);
        var all = new HBox(22, what, how);
        getChildren().addAll(notes, all);
        need.setId("backup-need");
        limits.setId("beyond-limits");
        limits.selectedProperty().bindBidirectional(bay.beyondLimits());
    }

    private Node where() {
        var facts = Parts.facts(64);
        Parts.fact(facts, "Needs", need);
        Parts.fact(facts, "Room for", room);
        lookAgain.setOnAction(event -> desk.backups().lookOver(bay));
        return new VBox(6, Parts.text("Where", "heading"), root, facts, lookAgain);
    }

    private Node how() {
        var everything = new CheckBox("Read everything");
        everything.setId("read-everything");
        everything.selectedProperty().bindBidirectional(bay.readEverything());
        return new VBox(
                6,
                Parts.text("How", "heading"),
                everything,
                Parts.sentence(
                        "Reads what looks unchanged too and compares it: finds a change that kept size and time. Takes as"
                                + " long as a first backup.",
                        "lesser"),
                Parts.sentence("At the end every stored byte is read back from the disk and compared.", "lesser"));
    }

    private void chooseItems(Kind kind) {
        bay.survey()
                .get()
                .ifPresent(survey -> what.getChildren().setAll(new ItemChoice(desk, bay, survey, kind, () -> {
                    what.getChildren().setAll(kinds);
                    kinds.refresh();
                })));
    }

    void refresh() {
        var backups = desk.backups();
        // Looked over as soon as somebody looks here; the phone is not bothered otherwise.
        if (bay.survey().get().isEmpty() && bay.ready() && !backups.lookedInVain(bay) && getScene() != null) {
            backups.lookOver(bay);
        }
        if (bay.survey().get().isEmpty() && !what.getChildren().contains(kinds)) {
            what.getChildren().setAll(kinds); // the phone went away while single items were looked at
        }
        List<Object> now = List.of(
                bay.outcome().get(),
                bay.docket().get(),
                bay.status().get(),
                bay.survey().get().map(System::identityHashCode),
                bay.selection().get(),
                bay.seal().get(),
                bay.layers().get().isEmpty(),
                backups.lookingOver(bay),
                backups.lookedInVain(bay),
                desk.custodex().strongroomPlace(),
                roomBytes);
        if (now.equals(shown)) {
            return;
        }
        if (shown.isEmpty() || !shown.get(9).equals(now.get(9)) || !shown.get(3).equals(now.get(3))) {
            askRoom();
        }
        shown = now;
        notes();
        kinds.refresh();
        seal.refresh();
        root.setText(desk.custodex().strongroomPlace().toString());
        figures();
    }

    private void notes() {
        notes.getChildren().clear();
        switch (bay.outcome().get().orElse(null)) {
            case Outcome.Failed failed -> notes.getChildren().add(trouble(failed.problem()));
            case Outcome.Stopped stopped ->
                notes.getChildren()
                        .add(Parts.sentence(
                                "Stopped. What was copied is kept; start it again, and it goes on from there."));
            case null, default -> {}
        }
        if (metALimit()) {
            notes.getChildren().add(limits);
        }
        whatIsMissing().ifPresent(words -> {
            var box = new VBox(Parts.state(Mark.HAND, words));
            box.getStyleClass().add("needs-hand-card");
            notes.getChildren().add(box);
        });
        notes.setVisible(!notes.getChildren().isEmpty());
        notes.setManaged(notes.isVisible());
    }

    /** Whether looking the phone over, or its last backup, met a limit that a person may go beyond. */
    private boolean metALimit() {
        return bay.beyondLimits().get()
                || desk.backups().lookedInVain(bay)
                || switch (bay.outcome().get().orElse(null)) {
                    case Outcome.Failed failed -> isLimit(failed.problem());
                    case Outcome.Done done -> done.result().problems().stream().anyMatch(BeforeBackup::isLimit);
                    case null, default -> false;
                };
    }

    private static boolean isLimit(Problem problem) {
        return problem.advice().contains(Limits.ADVICE);
    }

    private Optional<String> whatIsMissing() {
        if (bay.docket().get().isEmpty()) {
            return Optional.of("Open a docket first (Check in)");
        }
        if (!bay.docket().get().get().mayBeWorkedOn()) {
            return Optional.of("The customer's consent is not on the docket yet (Check in)");
        }
        if (bay.status().get().isEmpty()) {
            return Optional.of(bay.isPhone() ? "Plug the phone in" : "It can't be reached at the moment");
        }
        return bay.status().get().get().readiness().next().map(step -> step.instruction());
    }

    private void askRoom() {
        desk.work().start("Strongroom", () -> desk.custodex().strongroom().room(), bytes -> {
            roomBytes = Optional.of(bytes);
            refresh();
        });
    }

    private void figures() {
        var words = desk.words();
        var survey = bay.survey().get();
        boolean inVain = desk.backups().lookedInVain(bay);
        lookAgain.setVisible(inVain);
        lookAgain.setManaged(inVain);
        room.setText(roomBytes.map(words::bytes).orElse("…"));
        need.setText(
                survey.isPresent()
                        ? needed(survey.get())
                        : !bay.ready()
                                ? "told when the phone is ready"
                                : inVain ? "not known; the phone could not be looked over" : "looking the phone over…");
        boolean tooMuch = survey.isPresent()
                && roomBytes
                        .filter(free -> survey.get().need(bay.selection().get()) > free)
                        .isPresent();
        need.getStyleClass().removeAll("mark-trouble-words");
        if (tooMuch) {
            need.getStyleClass().add("mark-trouble-words");
            need.setText(need.getText() + ". There is no room for it; choose less, or another strongroom");
        }
    }

    private String needed(Survey survey) {
        var words = desk.words();
        var amounts = survey.amounts(bay.selection().get()).values();
        long newItems = amounts.stream().mapToLong(Survey.Amount::newItems).sum();
        return words.bytes(survey.need(bay.selection().get())) + " for "
                + words.count(newItems, "new item", "new items")
                + (survey.compared() ? "" : ", more than it will be: the stack below is sealed");
    }

    private static Node trouble(Problem problem) {
        var box = new VBox(3, Parts.state(Mark.TROUBLE, problem.what()), Parts.sentence(problem.advice() + "."));
        box.setId("backup-trouble");
        return box;
    }
}
