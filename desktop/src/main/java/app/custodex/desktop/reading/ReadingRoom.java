package app.custodex.desktop.reading;

import app.custodex.app.LooseFiles;
import app.custodex.app.OpenPhone;
import app.custodex.app.ReadingProgress;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Rest;
import app.custodex.model.Conversation;
import app.custodex.model.KindGroup;
import app.custodex.model.ThingId;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Where a layer is looked into, without the phone: by time, by kind, by people, by words, all of them together. */
public final class ReadingRoom extends BorderPane {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    /** A layer that is read for the first time is shown anew from so many things on, each time when there are twice as many. */
    private static final int FIRST_SHOWN = 1_000;

    private final Desk desk;
    private final ReadingModel model;
    private final RoomModel room;
    private final Label where = Parts.text("", "lesser");
    private final RangeFields range;
    private final TimeRiver river;
    private final KindStrip kinds;
    private final PeopleList people;
    private final TextField find = new TextField();
    private final AskedChips chips;
    private final Button attached =
            Parts.button("room-attached", "Attachments", "", this::toggleAttached, "row-button", "scope");
    private final Printing printing;
    private final OnlyMenu only;
    /** What the detail shows when the selection rests. */
    private final Rest<Optional<Entry>> chosen;

    private final DayBook book;
    private final ConversationPage page;
    private final StackPane list = new StackPane();
    private final ThingDetail detail;
    private final FullView full;
    private final FilesView files;
    private final PlacesView places;
    private final TwinsView twins;
    private final OnlyHereView onlyHere;
    private final ExtractView extract;
    private final ToneView tone;
    private final List<Beside> beside;
    private final HBox everything;
    private final ContactsPane contacts;
    private final StackPane middle = new StackPane();
    private final TrayBar tray;
    private final WaysIn waysIn = new WaysIn(
            new WaysIn.Way("places-open", "Places", "Ctrl+M", this::openPlaces),
            new WaysIn.Way("files-open", "Files", "Ctrl+L", this::openFiles),
            new WaysIn.Way("gone-since-open", "Gone since", "Ctrl+G", this::openGoneSince),
            new WaysIn.Way("twins-open", "Twins", "Ctrl+D", this::openTwins),
            new WaysIn.Way("only-here-open", "Only on this phone", "Ctrl+O", this::openOnlyHere));
    private boolean atPlaces;
    private boolean extractWhenShown;
    /** How many things were read when it was shown last. */
    private long shownAt;
    /** The message at which one was before there was more of its conversation. */
    private Optional<Long> stayAt = Optional.empty();

    /** What is looked at in the place of the list, its page of the guide, and how it forgets a layer. */
    private record Beside(Node view, String page, Runnable leave) {}

    public ReadingRoom(Desk desk) {
        this.desk = desk;
        model = new ReadingModel(desk);
        room = new RoomModel(desk, model.tray());
        printing = new Printing(desk);
        chips = new AskedChips(desk, room);
        tray = new TrayBar(desk, model.tray(), room, this::pickAllShown, this::openExtract);
        setId("reading-room");
        river = new TimeRiver(
                desk.words().locale(), span -> room.ask(room.asked().within(span)));
        range = new RangeFields(desk, room);
        kinds = new KindStrip(desk.words(), groups -> room.ask(room.asked().groups(groups)));
        only = new OnlyMenu(
                desk, room::traits, room::asked, traits -> room.ask(room.asked().only(traits)));
        people = new PeopleList(desk, who -> room.ask(room.asked().person(who)));
        detail = new ThingDetail(
                desk,
                Optional.of(model.tray()),
                conversation -> room.ask(
                        room.asked().within(Optional.empty()).groups(Set.of()).conversation(Optional.of(conversation))),
                Optional.of(this::openLarge),
                Optional.of(this::openTone));
        full = new FullView(desk, model.tray(), this::closeLarge);
        files = new FilesView(desk, this::closeBeside);
        twins = new TwinsView(desk, model.tray(), this::closeBeside);
        onlyHere = new OnlyHereView(desk, model.tray(), this::closeBeside);
        extract = new ExtractView(desk, model.tray(), this::closeBeside);
        tone = new ToneView(desk, this::closeBeside);
        places = new PlacesView(desk, model.tray(), this::openLarge, this::closePlaces);
        beside = List.of(
                new Beside(files, "files", files::leave),
                new Beside(places, "places", places::leave),
                new Beside(twins, "twins", twins::leave),
                new Beside(onlyHere, "only-here", onlyHere::leave),
                new Beside(extract, "extract", extract::leave),
                new Beside(tone, "tones", tone::leave));
        chosen = new Rest<>(detail::show);
        book = new DayBook(desk, model.tray(), chosen::take, this::openLarge);
        book.addEventFilter(KeyEvent.KEY_PRESSED, this::useWithKeys);
        detail.media().whenEnded(this::playNext);
        page = new ConversationPage(desk, model.tray(), chosen::take);
        contacts = new ContactsPane(desk, model);
        everything = everything();
        setTop(head());
        middle.getChildren().setAll(everything);
        BorderPane.setMargin(middle, new Insets(0, 18, 12, 18));
        setCenter(middle);
        setBottom(tray);
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE && middle.getChildren().contains(places)) {
                closePlaces();
                event.consume();
            }
        });
        desk.reading().addListener((o, was, is) -> is.ifPresentOrElse(this::open, this::close));
        room.room().addListener((o, was, is) -> showRoom(is, was.isPresent() && is.isPresent()));
        room.answer().addListener((o, was, is) -> is.ifPresent(this::show));
        // What is closed can't be asked any more, whatever is opened after it.
        model.layer().addListener((o, was, is) -> {
            if (is.isEmpty()) {
                room.leave();
            }
        });
    }

    private VBox head() {
        where.setId("room-where");
        where.setMinWidth(0);
        var title = new HBox(12, Parts.text("Reading room", "title"), where, Parts.gap(), range);
        title.getChildren().getFirst().setStyle("-fx-min-width: 130;");
        title.setAlignment(Pos.CENTER_LEFT);
        var head = new VBox(8, title, new OpenLayers(desk), river, kinds);
        head.setStyle("-fx-padding: 10 18 10 18;");
        return head;
    }

    private HBox everything() {
        people.getStyleClass().add("pane-border");
        VBox.setVgrow(people, Priority.ALWAYS);
        var left = new VBox(8, waysIn, people);
        left.setMinWidth(248);
        left.setMaxWidth(248);
        find.setId("room-find");
        find.setPromptText("Find in what is shown…");
        find.textProperty().addListener((o, was, is) -> room.ask(room.asked().typed(is)));
        find.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.DOWN) {
                if (list.getChildren().contains(page)) {
                    page.requestFocus();
                } else {
                    book.focusList();
                }
            } else if (event.getCode() == KeyCode.ESCAPE) {
                find.clear();
            }
        });
        HBox.setHgrow(find, Priority.ALWAYS);
        var search = new HBox(8, chips, find, Parts.key("Ctrl+F"), only, attached);
        search.setAlignment(Pos.CENTER_LEFT);
        search.setStyle("-fx-padding: 8 10 8 10;");
        list.getChildren().setAll(book);
        VBox.setVgrow(list, Priority.ALWAYS);
        var found = new VBox(search, Parts.rule(), list);
        found.setMinWidth(0);
        found.getStyleClass().add("split-left");
        HBox.setHgrow(found, Priority.ALWAYS);
        detail.setMinWidth(340);
        detail.setMaxWidth(340);
        var read = new HBox(found, detail);
        read.getStyleClass().add("pane-border");
        read.setMinWidth(0);
        HBox.setHgrow(read, Priority.ALWAYS);
        return new HBox(12, left, read);
    }

    private void open(Desk.Reading target) {
        var opening = target.phone().name()
                + (target.straight().isPresent() ? " · as it is now · " : " · layer " + target.layer() + " · ");
        where.setText(opening + "opening…");
        shownAt = 0;
        ReadingProgress progress = read -> {
            where.setText(
                    opening + "reading it for the first time: " + desk.words().count(read));
            if (model.isGrowing() && read >= Math.max(FIRST_SHOWN, 2 * shownAt)) {
                shownAt = read;
                model.layer().get().ifPresent(growing -> room.enter(growing, () -> {}));
            }
        };
        book.say("Opening it…");
        Runnable refused = () -> {
            where.setText(opening + "could not be opened; the line below says why");
            book.say("It could not be opened.");
        };
        model.open(target, progress, refused, () -> model.layer().get().ifPresent(layer -> enter(layer, target)));
    }

    private void enter(OpenPhone layer, Desk.Reading target) {
        boolean grown = room.room().get().isPresent();
        Runnable then = () -> {
            model.readContacts();
            if (!grown) {
                book.focusList();
            }
            if (!model.isGrowing()) {
                showWhere(layer);
                target.at().ifPresent(this::goTo);
                if (LooseFiles.are(target.phone())) { // they were dropped on the tray
                    room.room()
                            .get()
                            .ifPresent(in -> model.tray().put(in.spine().all()));
                }
                if (target.extracting()) {
                    openExtract();
                }
            }
        };
        if (room.room().get().filter(in -> in.phone() == layer).isPresent()) {
            then.run();
        } else {
            room.enter(layer, then);
        }
    }

    /** Shows a thing where it stands: a message in its conversation, anything else in the day book. */
    private void goTo(ThingId id) {
        var in = room.room().get();
        if (in.isEmpty()) {
            return;
        }
        var catalogue = in.get().phone().catalogue();
        desk.work()
                .start(
                        "Find",
                        () -> {
                            var thing = catalogue.find(id);
                            var talk = thing.flatMap(entry -> entry.thing().within());
                            var conversation = talk.isPresent() ? catalogue.find(talk.get()) : Optional.<Entry>empty();
                            return new Found(thing, conversation);
                        },
                        found -> {
                            if (room.room().get().equals(in)) {
                                show(found);
                            }
                        });
    }

    /** @param conversation that it is in */
    private record Found(Optional<Entry> thing, Optional<Entry> conversation) {}

    private void show(Found found) {
        if (found.thing().isEmpty()) {
            return;
        }
        long number = found.thing().get().number();
        var talk = found.conversation()
                .map(Entry::thing)
                .filter(Conversation.class::isInstance)
                .map(of -> new RoomModel.Talk((Conversation) of, Optional.of(number)));
        book.seek(number);
        room.ask(RoomModel.Asked.EVERYTHING.conversation(talk));
        if (talk.isPresent()) {
            page.requestFocus();
        }
    }

    private void close() {
        model.closeLayer();
        where.setText("nothing is open");
        book.say("Nothing is open. Choose a layer in the strongroom: Ctrl+2.");
    }

    private void showWhere(OpenPhone open) {
        var phone = open.phone();
        where.setText(String.join(
                " · ",
                phone.name(),
                phone.model(),
                open.layer()
                        .map(layer ->
                                "layer " + layer.number() + ", " + desk.words().moment(layer.begun(), desk.now()))
                        .orElse("as it is now, nothing of it is kept"),
                "times in " + desk.words().zone(phone.timeZone(), desk.now())));
    }

    /** @param grown whether it is the same layer, of which there is more now */
    private void showRoom(Optional<RoomModel.Room> in, boolean grown) {
        if (grown) {
            stayAt = list.getChildren().contains(page) ? page.present() : Optional.empty();
        } else {
            find.clear();
        }
        boolean whole = in.isPresent() && !model.isGrowing();
        tray.allow(whole);
        waysIn.allow(whole);
        if (!grown) {
            beside.forEach(each -> each.leave().run());
            atPlaces = false;
            full.end();
            middle.getChildren().setAll(everything);
        }
        river.show(in);
        book.enter(in);
        if (grown) {
            in.ifPresent(of -> detail.goOnWith(of.phone()));
        } else {
            chosen.drop();
            detail.enter(in.map(RoomModel.Room::phone));
        }
        kinds.show(in);
        people.enter(in);
    }

    private void show(RoomModel.Answer answer) {
        river.show(answer);
        kinds.show(answer);
        people.show(answer.asked().person());
        if (answer.asked().conversation().isPresent()) {
            page.show(
                    room.room().get().orElseThrow(),
                    answer.seen().places(),
                    stayAt.or(() -> answer.asked().conversation().get().at()));
            list.getChildren().setAll(page);
        } else {
            book.show(answer);
            list.getChildren().setAll(book);
        }
        stayAt = Optional.empty();
        attached.pseudoClassStateChanged(PRESENT, answer.asked().attached());
        range.show(answer.asked().within());
        full.end();
        if (atPlaces) {
            places.show(answer);
        }
        showBase();
        if (extractWhenShown) {
            openExtract();
        }
    }

    /** What stands below a picture that is shown large. */
    private void showBase() {
        boolean onlyContacts = room.asked().groups().equals(Set.of(KindGroup.CONTACTS));
        middle.getChildren().setAll(atPlaces ? places : onlyContacts ? contacts : everything);
    }

    private void openLarge(OpenPhone phone, int[] numbers, int row) {
        detail.media().clear(); // what plays there is not heard beside it
        full.show(phone, numbers, row);
        middle.getChildren().setAll(full);
        full.requestFocus();
    }

    /** In the list in which it stands; alone when the list is another one by now. */
    private void openLarge(Entry entry) {
        int number = (int) entry.number();
        var rows = book.arranged().filter(all -> all.rowOf(number).isPresent());
        rows.ifPresentOrElse(
                all -> openLarge(
                        all.room().phone(), all.numbers(), all.rowOf(number).orElseThrow()),
                () -> room.room().get().ifPresent(in -> openLarge(in.phone(), new int[] {number}, 0)));
    }

    private void closeBeside() {
        showBase();
        book.focusList();
    }

    private void closePlaces() {
        atPlaces = false;
        closeBeside();
    }

    private void closeLarge() {
        showBase();
        if (atPlaces) {
            places.choose(full.shown());
        } else {
            full.shown().ifPresent(entry -> book.chooseThing(entry.number()));
            book.focusList();
        }
    }

    /** Space plays what is chosen in the list, Enter shows it large. */
    private void useWithKeys(KeyEvent event) {
        boolean inList = !(event.getTarget() instanceof ButtonBase || event.getTarget() instanceof ComboBox<?>);
        if (inList && event.getCode() == KeyCode.SPACE && detail.media().togglePlaying()) {
            event.consume();
        } else if (inList && event.getCode() == KeyCode.ENTER && detail.media().openLarge()) {
            event.consume();
        }
    }

    /** Goes on with the next recording of the list, if the next thing is one. */
    private void playNext() {
        if (book.chooseNext()) {
            detail.media().playWhatComesNext();
        }
    }

    /** Only what a picture, a voice note or a file hangs on; or all again. */
    private void toggleAttached() {
        room.ask(room.asked().attached(!room.asked().attached()));
    }

    /** Compares the layer that is open with the one below it; the phone itself with its newest layer. */
    public void openGoneSince() {
        var in = room.room().get();
        if (getScene() != null && in.isPresent() && !model.isGrowing()) {
            GoneView.compareWithBelow(desk, in.get().phone());
        }
    }

    /** Shows on a map where pictures and tracks were taken. */
    public void openPlaces() {
        if (getScene() != null && waysIn.areAllowed() && room.answer().get().isPresent()) {
            full.end();
            detail.media().clear(); // what plays there is not heard beside it
            atPlaces = true;
            places.open(room.room().get().orElseThrow(), room.answer().get().get());
            showBase();
            places.focusMap();
        }
    }

    /** Shows the files as they lie on the phone. */
    public void openFiles() {
        openBeside(files, files::open);
    }

    /** Shows what is in the layer more than once. */
    public void openTwins() {
        openBeside(twins, twins::open);
    }

    private void openTone(Entry recording) {
        openBeside(tone, phone -> tone.open(phone, recording));
    }

    /** Shows what would be lost with the phone. */
    public void openOnlyHere() {
        openBeside(onlyHere, onlyHere::open);
    }

    private void openBeside(Node view, Consumer<OpenPhone> open) {
        if (getScene() != null) {
            showBeside(view, open);
        }
    }

    private void showBeside(Node view, Consumer<OpenPhone> open) {
        room.room().get().filter(in -> waysIn.areAllowed()).ifPresent(in -> {
            full.end();
            detail.media().clear(); // what plays there is not heard beside it
            middle.getChildren().setAll(view);
            open.accept(in.phone());
        });
    }

    /** Prints what one looks at, as it is sorted and narrowed. */
    public void print() {
        var in = room.room().get();
        if (in.isEmpty() || model.isGrowing()) {
            desk.work()
                    .tell(
                            in.isPresent()
                                    ? TrayModel.STILL_READING
                                    : Printing.note("No layer is open", "Open one in the strongroom: Ctrl+2"));
        } else if (!atList()) {
            desk.work().tell(Printing.note("There is no list to print here", "Go back to it: Esc"));
        } else if (desk.veil().isDown()) {
            desk.work().tell(Printing.note("The curtain is down, and nothing behind it is printed", "Lift it with F6"));
        } else {
            var phone = in.get().phone();
            var title = room.asked()
                    .conversation()
                    .map(talk -> phone.names().title(talk.conversation()))
                    .orElse(phone.phone().name());
            var rows = list.getChildren().contains(page) ? page.rows() : book.rows();
            var numbers = atContacts() ? model.numbersShown() : rows;
            printing.print(phone, numbers, title, where.getText(), getScene().getWindow());
        }
    }

    /** The page of the guide for what one looks at. */
    public String guidePage() {
        for (var each : beside) {
            if (middle.getChildren().contains(each.view())) {
                return each.page();
            }
        }
        boolean large = middle.getChildren().contains(full);
        return large || room.asked().groups().equals(Set.of(KindGroup.PICTURES)) ? "pictures" : "reading-room";
    }

    /** Whether one looks at a list, and not at one picture or the files. */
    private boolean atList() {
        return atContacts() || middle.getChildren().contains(everything);
    }

    private boolean atContacts() {
        return middle.getChildren().contains(contacts);
    }

    /** Shows how what is in the tray can be taken out; when nothing is, what is shown. */
    public void openExtract() {
        extractWhenShown = !room.isAnswered(); // an answer that comes later would close it again
        var picked = model.tray().picked().get();
        var wanted = picked.isEmpty() ? numbersShown() : picked;
        if (!extractWhenShown) {
            showBeside(extract, phone -> extract.open(phone, wanted, !picked.isEmpty()));
        }
    }

    private BitSet numbersShown() {
        var numbers = new BitSet();
        if (atContacts()) {
            Arrays.stream(model.numbersShown()).forEach(numbers::set);
            return numbers;
        }
        var in = room.room().get();
        room.answer()
                .get()
                .ifPresent(answer ->
                        in.ifPresent(room -> Arrays.stream(answer.seen().places())
                                .forEach(place -> numbers.set(room.spine().number(place)))));
        return numbers;
    }

    public void focusFind() {
        if (atContacts()) {
            contacts.focusFind();
        } else if (middle.getChildren().contains(files)) {
            files.focusFind();
        } else {
            find.requestFocus();
            find.selectAll();
        }
    }

    /** Puts everything that is shown into the tray. */
    public void pickAllShown() {
        if (getScene() == null) {
            return;
        }
        var own = Map.<Node, Runnable>of(
                places, places::pickAllShown, twins, twins::pickAllShown, onlyHere, onlyHere::pickAllShown);
        for (var view : own.entrySet()) {
            if (middle.getChildren().contains(view.getKey())) {
                view.getValue().run();
                return;
            }
        }
        if (!atList()) {
            desk.work()
                    .tell(Problem.note(
                            "Tray", "There is no list here of which all could be put in", "Go back to it: Esc"));
            return;
        }
        if (atContacts()) {
            model.pickAllShown();
            return;
        }
        var numbers = numbersShown();
        if (!numbers.isEmpty()) {
            model.tray().put(numbers);
        }
    }
}
