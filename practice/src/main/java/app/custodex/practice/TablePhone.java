package app.custodex.practice;

import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.drawer.PracticePhone;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.practice.content.ChatCopies;
import app.custodex.practice.content.Photographer;
import app.custodex.practice.content.Roll;
import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Shot;
import app.custodex.practice.island.Motif;
import app.custodex.practice.island.Spot;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.BindException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/** A practice phone: its files, its screen, and the server that answers while it is plugged in. */
final class TablePhone implements PracticePhone {
    private final Path folder;
    private final Glass glass;
    private final Brake brake = new Brake();
    private Facts facts;
    private Optional<LinkServer> server = Optional.empty();

    TablePhone(Path folder) throws IOException {
        this.folder = folder;
        this.facts = Json.PAGE.readValue(folder.resolve(TableDrawer.FACTS).toFile(), Facts.class);
        this.glass = new Glass(family(), facts.passcode(), List.of(chat(Kind.KITEWIRE), chat(Kind.BURROW)));
    }

    private ChatGlass chat(Kind app) {
        return new ChatGlass(app, Files.exists(chatFolder(app)));
    }

    private Path chatFolder(Kind app) {
        return files().resolve(Layout.chatCopies(family(), app).text());
    }

    private Path files() {
        return folder.resolve("files");
    }

    @Override
    public String name() {
        return facts().phone().name();
    }

    @Override
    public Family family() {
        return facts().phone().family();
    }

    @Override
    public String model() {
        return facts().phone().model();
    }

    @Override
    public String burrowKey() {
        return facts().burrowKey();
    }

    private synchronized Facts facts() {
        return facts;
    }

    @Override
    public synchronized URI address() {
        return URI.create("http://127.0.0.1:" + facts.port() + "/");
    }

    @Override
    public synchronized boolean pluggedIn() {
        return server.isPresent();
    }

    @Override
    public synchronized void plugIn() throws IOException {
        if (server.isPresent()) {
            return;
        }
        LinkServer started;
        try {
            started = new LinkServer(facts.port(), files(), glass, brake, this::facts);
        } catch (BindException e) {
            // Another program took the port meanwhile; from now on the phone answers on another one.
            started = new LinkServer(0, files(), glass, brake, this::facts);
        }
        server = Optional.of(started);
        if (started.port() != facts.port()) {
            facts = facts.withPort(started.port());
            save();
        }
        glass.cable(true);
    }

    private void save() throws IOException {
        Json.PAGE.writeValue(folder.resolve(TableDrawer.FACTS).toFile(), facts);
    }

    @Override
    public synchronized void unplug() {
        server.ifPresent(LinkServer::close);
        server = Optional.empty();
        glass.cable(false);
    }

    @Override
    public List<String> screen() {
        return glass.screen();
    }

    @Override
    public List<Tap> taps() {
        return glass.taps();
    }

    @Override
    public void tap(Tap tap) {
        glass.tap(tap).ifPresent(this::writeCopy);
    }

    private void writeCopy(Kind app) {
        try {
            var owner = family() == Family.OSTREL ? "Fenna Rook" : "Jorun Tasch";
            ChatCopies.write(app, chatFolder(app), facts().burrowKey(), owner);
            if (app == Kind.KITEWIRE && family() == Family.PELLOW) {
                ChatCopies.writeWork(chatFolder(app).resolveSibling("Kitewire Work"), owner); // she has both
            }
            recount();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void slowDown(long bytesPerSecond) {
        brake.limit(bytesPerSecond);
    }

    @Override
    public void takePhotos(int count) throws IOException {
        var roll =
                files().resolve(family() == Family.OSTREL ? "roll" : "Pictures").resolve("New");
        Files.createDirectories(roll);
        int already;
        var photographer = new Photographer(Photographer.Quality.SKETCH);
        try (var names = Files.list(roll)) {
            already = (int) names.count();
        }
        for (int i = 0; i < count; i++) {
            int number = already + i;
            photographer.take(
                    roll.resolve("N%04d.jpg".formatted(number)),
                    new Shot(
                            Motif.values()[number % Motif.values().length],
                            7_000L + number,
                            Life.NOW.plusDays(number),
                            Optional.of(Spot.HARBOUR),
                            false,
                            0));
        }
        recount();
    }

    /** Draws the pictures that are not there yet, one after the other, while the phone can be used. */
    void develop(Life life, CancelToken cancel) throws IOException {
        var photographer = new Photographer(Photographer.Quality.FULL);
        int drawn = 0;
        for (var drawing : Roll.of(family(), files(), life)) {
            if (!cancel.isCancelled() && !Files.exists(drawing.file())) {
                drawing.draw(photographer);
                if (++drawn % 64 == 0) {
                    recount();
                }
            }
        }
        if (drawn > 0) {
            recount();
        }
    }

    /** Counts the files anew after they changed. */
    private synchronized void recount() throws IOException {
        facts = facts.withContents(Census.of(facts.phone().family(), files(), facts.contents()));
        save();
    }

    @Override
    public void makeReady() {
        glass.makeReady();
    }
}
