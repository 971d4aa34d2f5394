package app.custodex.bench;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.desktop.App.Prepared;
import app.custodex.desktop.App.Workplace;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.LongList;
import app.custodex.docket.Docket;
import app.custodex.link.PhoneIdentity;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.IntConsumer;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.ScrollEvent;
import javafx.stage.Stage;

/**
 * The reading room in a real window, with a layer of the load size: opening, a conversation of two fifths of all messages, counts for
 * dates, kind, person and words together, and the work of the interface thread a pulse while lists move. Needs a display. Argument: messages.
 */
public final class RoomBench {
    private RoomBench() {}

    public static void main(String[] args) throws Exception {
        int messages = Side.number(args, 0, 500_000);
        Side.inFolder(folder -> {
            Bench.home = new Home(folder.resolve("home"));
            Files.createDirectories(folder.resolve("phone"));
            long things = Load.write(folder.resolve("phone/load.jsonl"), messages);
            Bench.phone = backUp(folder.resolve("phone"));
            System.out.printf(Locale.ROOT, "%d things%n", things);
            Application.launch(Bench.class);
            if (Bench.failure.isPresent()) {
                throw new IOException("the window", Bench.failure.get());
            }
        });
    }

    /** A docket, a layer, and its catalogue, as the window makes it behind the backup. */
    private static PhoneIdentity backUp(Path source) throws Exception {
        try (var custodex = Custodex.open(Bench.home, Clock.systemUTC())) {
            var bay = custodex.bays().add(source.toString(), "Bench");
            Side.backUp(custodex, bay, false);
            var phone = custodex.strongroom().holdings().phones().getFirst().identity();
            var consent = Optional.of(new Docket.Consent(Instant.now(), "Look into it"));
            var form = new Docket.Form("Bench", "", "Bench", consent, Optional.empty());
            int number = custodex.dockets().open(form, bay.address()).number();
            custodex.dockets().change(number, docket -> docket.withPhone(phone));
            try (var first = custodex.reading().open(Mandate.ofShop(), phone.identifier(), 1, Locale.getDefault())) {
                var longest = first.catalogue().find(Filter.EVERYTHING.of(ThingKind.MESSAGE), Order.OLDEST_FIRST);
                // One in the middle of the longest conversation.
                var entries = first.catalogue()
                        .read(Arrays.copyOfRange(longest, longest.length / 2, longest.length / 2 + 200));
                Bench.middle = entries.stream()
                        .map(entry -> entry.thing())
                        .filter(thing -> thing.within()
                                .filter(talk -> talk.key().endsWith("t0"))
                                .isPresent())
                        .findFirst()
                        .orElseThrow()
                        .id();
            }
            return phone;
        }
    }

    /** The window and the hand that moves in it. */
    @SuppressWarnings("NullAway.Init")
    public static final class Bench extends Application {
        static Home home;
        static PhoneIdentity phone;
        static ThingId middle;
        static volatile Optional<Exception> failure = Optional.empty();

        private Workplace workplace;
        private long interfaceThread;

        @Override
        public void start(Stage stage) throws IOException {
            workplace = Workplace.show(stage, Prepared.open(home, Optional.empty()));
            interfaceThread = Thread.currentThread().threadId();
            Thread.ofPlatform().name("bench").start(() -> {
                try {
                    run();
                } catch (Exception e) {
                    failure = Optional.of(e);
                } finally {
                    Platform.runLater(() -> {
                        workplace.close();
                        Platform.exit();
                    });
                }
            });
        }

        private static <T> T onInterface(Callable<T> task) throws Exception {
            var future = new FutureTask<>(task);
            Platform.runLater(future);
            return future.get(120, TimeUnit.SECONDS);
        }

        private static void act(Runnable action) throws Exception {
            onInterface(() -> {
                action.run();
                return true;
            });
        }

        /** Milliseconds from an action to what it brings about, looked at every pulse. */
        private static double until(Runnable action, BooleanSupplier there) throws Exception {
            var latch = new CountDownLatch(1);
            long start = System.nanoTime();
            Platform.runLater(() -> {
                action.run();
                new AnimationTimer() {
                    @Override
                    public void handle(long now) {
                        if (there.getAsBoolean()) {
                            stop();
                            latch.countDown();
                        }
                    }
                }.start();
            });
            if (!latch.await(120, TimeUnit.SECONDS)) {
                throw new IOException("waited in vain");
            }
            return (System.nanoTime() - start) / 1e6;
        }

        private Node node(String id) {
            var found = workplace.scene().lookup(id);
            if (found == null) {
                throw new IllegalStateException("there is no " + id);
            }
            return found;
        }

        private boolean rows(String id, int atLeast) {
            return switch (workplace.scene().lookup(id)) {
                case LongList list -> list.rows() >= atLeast;
                case ListView<?> list -> list.getItems().size() >= atLeast;
                case null, default -> false;
            };
        }

        private void run() throws Exception {
            Thread.sleep(2_000);
            var desk = workplace.desk();
            System.out.printf(
                    Locale.ROOT, "opened: frame %.0f ms, lists %.0f ms%n", opened(desk, "#reading-room"), opened(desk));
            var again = new double[5];
            for (int i = 0; i < again.length; i++) {
                again[i] = opened(desk);
            }
            Arrays.sort(again);
            System.out.printf(Locale.ROOT, "opened again, five times: lists %.0f to %.0f ms%n", again[0], again[4]);
            act(() -> desk.curtain().toggle());
            Thread.sleep(1_000);
            counts();
            moving("day book", "#day-book");
            double sheet = until(
                    () -> ((Button) node("#see-pictures")).fire(),
                    () -> workplace.scene().lookup("#contact-sheet") != null);
            System.out.printf(Locale.ROOT, "contact sheet: %.0f ms%n", sheet);
            Thread.sleep(1_500);
            moving("contact sheet", "#contact-sheet");
            conversation(desk);
            act(() -> ((Button) node("#see-contacts")).fire());
            Thread.sleep(1_500);
            moving("contacts", "#contacts");
            System.gc();
            System.out.printf(
                    Locale.ROOT,
                    "heap %d MB in use, %d MB at most%n",
                    (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) >> 20,
                    Runtime.getRuntime().totalMemory() >> 20);
        }

        private double opened(Desk desk, String... ids) throws Exception {
            act(() -> desk.reading().set(Optional.empty()));
            Thread.sleep(500);
            return until(
                    () -> desk.read(phone, 1, false),
                    () -> ids.length > 0
                            ? workplace.scene().lookup(ids[0]) != null
                            : rows("#day-book", 1_000) && rows("#people", 100));
        }

        /**
         * Dates, kind, person and words together, one of them changed at a time, from the first question on. Each is not asked for now and
         * then, so that there are answers of every size.
         */
        private void counts() throws Exception {
            var random = new Random(3);
            var found = new ArrayList<List<Double>>();
            for (int i = 0; i < 4; i++) {
                found.add(new ArrayList<>());
            }
            for (int i = 0; i < 200; i++) {
                int what = random.nextInt(4);
                boolean any = random.nextInt(3) == 0;
                var count = (Label) onInterface(() -> node("#day-book-count"));
                act(() -> count.setText(""));
                found.get(what)
                        .add(until(
                                () -> ask(what, any, random),
                                () -> !count.getText().isEmpty()));
            }
            act(() -> ((TextField) node("#room-find")).clear());
            act(() -> ((ListView<?>) node("#people")).getSelectionModel().clearSelection());
            for (var kind : List.of("#see-calls", "#see-messages", "#see-messages")) { // whatever was chosen, now none is
                act(() -> ((Button) node(kind)).fire());
            }
            act(() -> ((Button) node("#range-whole")).fire());
            Thread.sleep(500);
            var names = List.of("dates", "kind", "person", "words");
            for (int i = 0; i < 4; i++) {
                counts(names.get(i), found.get(i));
            }
            counts("all", found.stream().flatMap(List::stream).toList());
        }

        private void ask(int what, boolean any, Random random) {
            var find = (TextField) node("#room-find");
            var people = ((ListView<?>) node("#people")).getSelectionModel();
            switch (what) {
                case 0 -> {
                    if (any) {
                        ((Button) node("#range-whole")).fire();
                        return;
                    }
                    var from = LocalDate.of(2022, 9, 1).plusDays(random.nextInt(900));
                    ((TextField) node("#range-from")).setText(from.toString());
                    ((TextField) node("#range-until"))
                            .setText(from.plusDays(30 + random.nextInt(300)).toString());
                    node("#range-until").fireEvent(new ActionEvent());
                }
                case 1 -> ((Button) node(random.nextBoolean() ? "#see-messages" : "#see-calls")).fire();
                case 2 -> {
                    if (any && !people.isEmpty()) {
                        people.clearSelection();
                    } else {
                        people.select((people.getSelectedIndex() + 1 + random.nextInt(90)) % 100);
                    }
                }
                default -> {
                    var typed = any ? "" : letters(random);
                    find.setText(typed.equals(find.getText()) ? letters(random) + "a" : typed);
                }
            }
        }

        private static void counts(String name, List<Double> found) {
            var times = found.stream().mapToDouble(ms -> ms).sorted().toArray();
            System.out.printf(
                    Locale.ROOT,
                    "%d counts, another %s: median %.0f ms, 95th percentile %.0f ms%n",
                    times.length,
                    name,
                    times[times.length / 2],
                    times[times.length * 95 / 100]);
        }

        private static String letters(Random random) {
            var letters = new StringBuilder();
            for (int i = 0; i <= random.nextInt(3); i++) {
                letters.append((char) ('a' + random.nextInt(26)));
            }
            return letters.toString();
        }

        private void conversation(Desk desk) throws Exception {
            double opened = until(
                    () -> desk.read(phone, 1, middle),
                    () -> workplace.scene().lookup(".message-row:present .user-text") != null);
            var bar = onInterface(() -> (ScrollBar) node("#conversation .scroll-bar"));
            var filled = new double[20];
            var random = new Random(9);
            for (int i = 0; i < filled.length; i++) {
                double to = bar.getMin() + random.nextDouble() * (bar.getMax() - bar.getMin());
                filled[i] = until(
                        () -> bar.setValue(to), () -> workplace.scene().lookup(".message-row .user-text") != null);
            }
            Arrays.sort(filled);
            System.out.printf(
                    Locale.ROOT,
                    "conversation: open at a message in its middle %.0f ms; jump median %.0f ms, at most %.0f ms%n",
                    opened,
                    filled[10],
                    filled[19]);
            moving("conversation", "#conversation");
        }

        /** Wheel, flick, keys and thumb, each for some hundred pulses. */
        private void moving(String name, String id) throws Exception {
            var list = onInterface(() -> node(id));
            act(list::requestFocus);
            measure(name + ", wheel", pulse -> scroll(list, -60));
            measure(name + ", flick", pulse -> scroll(list, -1_200));
            measure(
                    name + ", keys",
                    pulse -> list.fireEvent(new KeyEvent(
                            KeyEvent.KEY_PRESSED,
                            "",
                            "",
                            pulse % 10 == 9 ? KeyCode.PAGE_DOWN : KeyCode.DOWN,
                            false,
                            false,
                            false,
                            false)));
            var bar = onInterface(() -> (ScrollBar) node(id + " .scroll-bar:vertical"));
            measure(
                    name + ", thumb",
                    pulse -> bar.setValue(bar.getMin() + (bar.getMax() - bar.getMin()) * (pulse % 200) / 200.0));
        }

        private static void scroll(Node list, double by) {
            // Where a mouse would be: in the middle of the list.
            var target = list instanceof ListView<?> ? list.lookup(".sheet") : list;
            target.fireEvent(new ScrollEvent(
                    ScrollEvent.SCROLL,
                    50,
                    50,
                    50,
                    50,
                    false,
                    false,
                    false,
                    false,
                    false,
                    false,
                    0,
                    by,
                    0,
                    by,
                    ScrollEvent.HorizontalTextScrollUnits.NONE,
                    0,
                    ScrollEvent.VerticalTextScrollUnits.NONE,
                    0,
                    0,
                    null));
        }

        /** Processor time of the interface thread a pulse, while something moves at each of 300 pulses. */
        private void measure(String name, IntConsumer move) throws Exception {
            var threads = ManagementFactory.getThreadMXBean();
            var work = new double[300];
            var done = new CountDownLatch(1);
            Platform.runLater(() -> new AnimationTimer() {
                private int pulse = -20;
                private long before;

                @Override
                public void handle(long now) {
                    long cpu = threads.getThreadCpuTime(interfaceThread);
                    if (pulse > 0) {
                        work[pulse - 1] = (cpu - before) / 1e6;
                    }
                    if (pulse == work.length) {
                        stop();
                        done.countDown();
                        return;
                    }
                    before = cpu;
                    move.accept(Math.max(0, pulse++));
                }
            }.start());
            if (!done.await(120, TimeUnit.SECONDS)) {
                throw new IOException("waited in vain");
            }
            Arrays.sort(work);
            System.out.printf(
                    Locale.ROOT,
                    "%-22s work a pulse: median %.1f ms, 95th %.1f ms, 99th %.1f ms%n",
                    name,
                    work[150],
                    work[285],
                    work[297]);
        }
    }
}
