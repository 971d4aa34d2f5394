package app.custodex.desktop.bench;

import app.custodex.backup.BackupResult;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.UserText;
import app.custodex.strongroom.LayerRecord.Change;
import app.custodex.strongroom.LayerRecord.KindTotal;
import app.custodex.strongroom.LeftOut.Why;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** What a backup saved, what it did not, and what is different from the layer below. */
final class BackupOutcome extends VBox {
    private final Desk desk;
    private final BackupResult result;

    BackupOutcome(Desk desk, BackupResult result) {
        super(12);
        this.desk = desk;
        this.result = result;
        verdict();
        if (result.layer().number() > 1) {
            changes();
        }
        kinds();
        if (!result.problems().isEmpty()) {
            getChildren()
                    .addAll(
                            Parts.text("What was not saved, or in another form", "heading"),
                            problems(result.problems()));
        }
    }

    private boolean sound() {
        return result.check().filter(report -> report.sound()).isPresent();
    }

    String title() {
        return "Layer " + result.layer().number() + (sound() ? " is saved and checked" : " is saved");
    }

    private void verdict() {
        var words = desk.words();
        var layer = result.layer();
        var verdict = new VBox(3);
        if (result.check().isEmpty()) {
            verdict.getChildren().add(Parts.state(Mark.NEVER, "Not read back yet; check it in the strongroom"));
        } else if (sound()) {
            verdict.getChildren()
                    .add(Parts.state(
                            Mark.DONE,
                            layer.sealed()
                                    ? "Sealed. Every stored byte was read back, decrypted and is as it was written"
                                    : "Every stored byte was read back and is as it was written"));
        } else {
            verdict.getChildren().add(Parts.state(Mark.TROUBLE, "Reading back found damage"));
            result.check().get().damage().forEach(d -> verdict.getChildren().add(Parts.sentence(d.sentence())));
        }
        verdict.getChildren()
                .add(Parts.sentence(
                        words.count(layer.items(), "item", "items") + ", " + words.bytes(layer.bytes()) + ", of which "
                                + words.bytes(layer.freshBytes()) + " are new in this layer. "
                                + (layer.missed() == 0
                                        ? "Everything that was asked for was saved."
                                        : words.count(layer.missed(), "item was", "items were")
                                                + " not saved in full."),
                        "lesser"));
        verdict.getStyleClass().add(sound() ? "sealed-card" : "needs-hand-card");
        getChildren().add(verdict);
    }

    private void changes() {
        var change = result.layer().change();
        var row = new HBox(12, Parts.text("Since the layer below: " + said(change) + "."), Parts.gap());
        row.setId("backup-changes");
        row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        if (change.equals(Change.NONE)) {
            getChildren().add(row);
            return;
        }
        var place = new VBox();
        var show = Parts.button("changes-show", "Show each item", "", () -> {
            if (place.getChildren().isEmpty()) {
                var list = new ChangeList(
                        desk, result.layer().phone(), result.layer().number());
                list.setPrefHeight(190);
                place.getChildren().setAll(list);
            } else {
                place.getChildren().clear();
            }
        });
        row.getChildren().add(show);
        getChildren().addAll(row, place);
    }

    private String said(Change change) {
        if (change.equals(Change.NONE)) {
            return "nothing came, changed or went";
        }
        var words = desk.words();
        return words.count(change.added()) + " added, " + words.count(change.changed()) + " changed, "
                + words.count(change.gone()) + " gone";
    }

    private void kinds() {
        var words = desk.words();
        var layer = result.layer();
        boolean further = layer.number() > 1;
        var table = further
                ? new KindTable("Kind", "Files", "Size", "Added", "Changed", "Gone").withState("Saved")
                : new KindTable("Kind", "Files", "Size").withState("Saved");
        for (var kind : layer.kinds()) {
            var values = new ArrayList<>(List.of(words.count(kind.items()), words.bytes(kind.bytes())));
            if (further) {
                values.add(figure(kind.change().added()));
                values.add(figure(kind.change().changed()));
                values.add(figure(kind.change().gone()));
            }
            table.row(kind.kind().label(), saved(kind), values.toArray(String[]::new));
        }
        getChildren().add(table);
        leftOut();
    }

    /** Kinds that are not in the layer, by the reason. */
    private void leftOut() {
        var byWhy = new EnumMap<Why, List<String>>(Why.class);
        for (var left : result.layer().left()) {
            byWhy.computeIfAbsent(left.why(), why -> new ArrayList<>())
                    .add(
                            left.items() == 0
                                    ? left.kind().label()
                                    : left.kind().label() + " ("
                                            + desk.words().count(left.items(), "file", "files") + ", "
                                            + desk.words().bytes(left.bytes()) + ")");
        }
        if (byWhy.isEmpty()) {
            return;
        }
        var facts = Parts.facts(300);
        byWhy.forEach((why, kinds) -> Parts.fact(facts, why.words(), String.join(", ", kinds)));
        facts.setId("backup-left-out");
        var heading = byWhy.containsKey(Why.SHARED) ? "Not in this layer, or not by itself" : "Not in this layer";
        getChildren().addAll(Parts.text(heading, "heading"), facts);
    }

    private String figure(long count) {
        return count == 0 ? "–" : desk.words().count(count);
    }

    private Node saved(KindTotal kind) {
        return kind.missed() == 0
                ? Parts.state(Mark.DONE, "all")
                : Parts.state(Mark.TROUBLE, desk.words().count(kind.missed()) + " missing");
    }

    private Node problems(List<Problem> problems) {
        var list = new ListView<>(FXCollections.observableList(problems));
        list.setId("backup-problems");
        list.setFixedCellSize(30);
        list.setPrefHeight(Math.min(8, problems.size()) * 30 + 2);
        list.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(@Nullable Problem problem, boolean empty) {
                super.updateItem(problem, empty);
                setGraphic(empty || problem == null ? null : row(problem));
            }
        });
        return list;
    }

    /** The names of items are private; what happened to them is not. */
    private Node row(Problem problem) {
        var subject = desk.veil().line(problem.subject());
        subject.setMinWidth(80);
        return Parts.row(subject, UserText.line(problem.told()));
    }
}
