package app.custodex.desktop.bench;

import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.desk.KeptLayer;
import app.custodex.desktop.ui.Opener;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.UserText;
import app.custodex.docket.Docket;
import app.custodex.docket.HandOut;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The docket at the left of the bench: the customer, the phone, and what is kept of it. */
final class DocketCard extends VBox {
    private static final double LABEL = 84;

    private final Desk desk;
    private final BayModel bay;
    private final VBox body = new VBox(10);
    private final HBox tab = new HBox();
    private List<Object> shown = List.of();

    DocketCard(Desk desk, BayModel bay) {
        this.desk = desk;
        this.bay = bay;
        setId("docket-card");
        setMinWidth(292);
        setMaxWidth(292);
        body.getStyleClass().add("card");
        var scroll = new ScrollPane(body);
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        scroll.setFocusTraversable(false);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(tab, scroll);
        desk.changes().addListener((o, was, is) -> refresh());
        bay.docket().addListener((o, was, is) -> refresh());
        refresh();
    }

    private void refresh() {
        // Rebuilt only when something in it is different, so that it keeps still while a copy runs.
        List<Object> now = List.of(
                bay.docket().get(),
                bay.phone(),
                bay.layers().get(),
                bay.status().get().map(PhoneStatus::model));
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        var docket = bay.docket().get();
        tab.getChildren()
                .setAll(Parts.text(docket.map(d -> "Docket " + d.label()).orElse("No docket"), "docket-tab"));
        body.getChildren().clear();
        docket.ifPresentOrElse(
                this::customer,
                () -> body.getChildren()
                        .add(Parts.sentence(
                                "There is no docket for what is in this bay yet. Write one at the right.", "lesser")));
        phone();
        layers();
        docket.ifPresent(this::handedOut);
    }

    private void customer(Docket docket) {
        body.getChildren().add(UserText.paragraph(docket.customer(), "title"));
        body.getChildren()
                .add(Parts.sentence("taken in " + desk.words().moment(docket.opened(), desk.now()), "lesser"));
        var facts = Parts.facts(LABEL);
        Parts.fact(facts, "Reason", UserText.paragraph(docket.reason()));
        docket.promised()
                .ifPresent(
                        at -> Parts.fact(facts, "Promised", "by " + desk.words().local(at)));
        if (!docket.reach().isEmpty()) {
            Parts.fact(facts, "Reach", UserText.paragraph(docket.reach()));
        }
        Parts.fact(
                facts,
                "Consent",
                docket.consent()
                        .<Node>map(consent -> UserText.paragraph(
                                consent.extent() + ", given " + desk.words().moment(consent.given(), desk.now())))
                        .orElseGet(() -> docket.own()
                                ? Parts.sentence("the shop's own; none is needed")
                                : Parts.state(Mark.HAND, "not given yet")));
        docket.automatic()
                .ifPresent(when -> Parts.fact(
                        facts,
                        "Backups",
                        when.daily().isPresent()
                                ? "each day from " + when.daily().get()
                                : "whenever it is plugged in"));
        body.getChildren().add(facts);
    }

    private void phone() {
        var phone = bay.phone();
        var model = phone.map(PhoneIdentity::model).or(() -> bay.status().get().map(PhoneStatus::model));
        if (model.isEmpty()) {
            return;
        }
        body.getChildren().addAll(Parts.rule(), Parts.text(model.get(), "heading"));
        var facts = Parts.facts(LABEL);
        phone.ifPresentOrElse(
                p -> {
                    Parts.fact(facts, "Name", UserText.paragraph(p.name()));
                    told(facts, "System", p.system());
                    told(facts, "Serial", p.serial(), "mono");
                    told(facts, "IMEI", p.imei(), "mono");
                    told(facts, "Identifier", p.identifier(), "mono");
                    if (p.capacity() > 0) {
                        Parts.fact(
                                facts,
                                "Capacity",
                                desk.words().bytes(p.capacity()) + ", "
                                        + desk.words().bytes(p.used()) + " used");
                    }
                    if (!p.serial().isEmpty()) {
                        Parts.fact(facts, "Time zone", offset(p, desk.now()));
                    }
                },
                () -> Parts.fact(
                        facts,
                        "Identity",
                        bay.isPhone() ? "told once the phone trusts this bench" : "told once it is ready",
                        "lesser"));
        body.getChildren().add(facts);
    }

    /** A folder or an account does not have all that a phone has. */
    private static void told(GridPane facts, String name, String value, String... styleClasses) {
        if (!value.isBlank()) {
            Parts.fact(facts, name, value, styleClasses);
        }
    }

    private static String offset(PhoneIdentity phone, Instant now) {
        var offset = phone.timeZone().getRules().getOffset(now).getId();
        return offset.equals("Z") ? "UTC" : "UTC" + offset.replaceFirst(":00$", "");
    }

    private void layers() {
        var layers = bay.layers().get();
        if (layers.isEmpty()) {
            return;
        }
        body.getChildren().addAll(Parts.rule(), Parts.text("Layers", "heading"));
        var list = new VBox(4);
        for (var layer : layers.reversed().stream().limit(5).toList()) {
            list.getChildren().add(line(layer));
        }
        if (layers.size() > 5) {
            list.getChildren().add(Parts.text((layers.size() - 5) + " more in the strongroom", "lesser"));
        }
        body.getChildren().add(list);
    }

    /** What was written outside of the strongroom; read from the disk aside. */
    private void handedOut(Docket docket) {
        var section = new VBox(4);
        section.setId("docket-handed-out");
        body.getChildren().add(section);
        var mine = shown;
        desk.work().start("Handed out", () -> handOuts(docket), found -> {
            if (mine == shown && !found.isEmpty()) {
                section.getChildren().setAll(Parts.rule(), Parts.text("Handed out", "heading"));
                for (var each : found.reversed().stream().limit(5).toList()) {
                    section.getChildren().add(line(each));
                }
                if (found.size() > 5) {
                    section.getChildren().add(Parts.text((found.size() - 5) + " more before", "lesser"));
                }
            }
        });
    }

    /** But for those of which nothing came. */
    private List<HandOut> handOuts(Docket docket) throws IOException {
        return desk.custodex().handOuts().of(docket.number()).stream()
                .filter(each -> !each.complete() || !each.files().isEmpty())
                .toList();
    }

    private HBox line(HandOut each) {
        var words = desk.words().moment(each.at(), desk.now()) + " · "
                + desk.words().count(each.files().size(), "file", "files")
                + (each.complete() ? "" : " · did not end");
        var folder = Path.of(each.folder());
        var open = Parts.button(
                "",
                "Open",
                "",
                () -> desk.work().start("Open the folder", () -> Opener.openFolder(folder), opened -> {}),
                "row-button");
        open.setAccessibleText("Open " + folder);
        var line = new HBox(
                6, Parts.mark(each.complete() ? Mark.DONE : Mark.TROUBLE), Parts.text(words), Parts.gap(), open);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private HBox line(KeptLayer layer) {
        var mark = layer.damaged() ? Mark.TROUBLE : layer.sound() ? Mark.DONE : Mark.NEVER;
        var words = "%d · %s · +%s"
                .formatted(
                        layer.record().number(),
                        desk.words().moment(layer.record().begun(), desk.now()),
                        desk.words().bytes(layer.record().freshBytes()));
        var line = new HBox(6, Parts.mark(mark), Parts.text(words));
        line.setAccessibleText(words + ", " + mark.name().toLowerCase(Locale.ROOT));
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }
}
