package app.custodex.app;

import app.custodex.base.CancelToken;
import app.custodex.base.Disk;
import app.custodex.base.Problem;
import app.custodex.base.WriteRefused;
import app.custodex.strongroom.Strongroom;
import app.custodex.strongroom.StrongroomFinder;
import app.custodex.strongroom.StrongroomIdentity;
import app.custodex.strongroom.StrongroomMove;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.LongConsumer;

/** Which strongroom the shop uses: remembers it, finds it again, changes and moves it. */
final class ShopStrongroom {
    private final Home home;
    private final SettingsFile settings;
    private final StrongroomMemory memory;
    private final Disk disk;
    private Strongroom current;

    private ShopStrongroom(Home home, SettingsFile settings, StrongroomMemory memory, Disk disk, Strongroom current) {
        this.home = home;
        this.settings = settings;
        this.memory = memory;
        this.disk = disk;
        this.current = current;
    }

    /**
     * Opens the strongroom that was used last; makes one only when there never was any.
     *
     * @throws app.custodex.base.ProblemException when it is not where it was
     */
    static ShopStrongroom open(Home home, SettingsFile settings, Disk disk) throws IOException {
        var memory = new StrongroomMemory(home.remembered(), disk);
        arrivedBeforeACut(settings);
        var settled = settings.now();
        var place = settled.strongroom().orElse(home.strongroom());
        boolean first = settled.strongroomId().isEmpty()
                && settled.strongroom().isEmpty()
                && !StrongroomFinder.isStrongroom(place);
        var strongroom = first ? Strongroom.make(place, disk) : open(place, settled.strongroomId(), memory, disk);
        var shop = new ShopStrongroom(home, settings, memory, disk, strongroom);
        shop.keep(strongroom);
        return shop;
    }

    private static Strongroom open(Path place, Optional<String> id, StrongroomMemory memory, Disk disk)
            throws IOException {
        var remembered =
                new Strongroom.Remembered(id, id.map(memory::stacks).orElse(Strongroom.Remembered.NOTHING.stacks()));
        return Strongroom.open(place, disk, remembered);
    }

    /** A move that arrived but was cut before that was written down. */
    private static void arrivedBeforeACut(SettingsFile settings) throws IOException {
        var settled = settings.now();
        var arrived = settled.movingTo()
                .filter(target -> StrongroomIdentity.in(target)
                        .map(StrongroomIdentity::id)
                        .filter(id -> settled.strongroomId().equals(Optional.of(id)))
                        .isPresent());
        if (arrived.isPresent()) {
            settings.change(s -> s.using(arrived.get(), settled.strongroomId().orElseThrow()));
        }
    }

    /** Writes down which strongroom is used and what it holds; a home that can't be written is read all the same. */
    private void keep(Strongroom strongroom) throws IOException {
        try {
            var id = strongroom.identity().id();
            settings.change(s -> s.strongroomId().equals(Optional.of(id))
                            && s.strongroom().orElse(home.strongroom()).equals(strongroom.root())
                    ? s
                    : s.using(strongroom.root(), id));
            memory.remember(strongroom);
        } catch (FileSystemException e) {
            if (!WriteRefused.is(e)) {
                throw e;
            }
        }
    }

    /** The strongroom that is in use, also when another program has changed that meanwhile. */
    synchronized Strongroom current() throws IOException {
        var settled = settings.now();
        var place = settled.strongroom().orElse(home.strongroom());
        if (!place.equals(current.root())) {
            current = open(place, settled.strongroomId(), memory, disk);
        }
        return current;
    }

    /** The strongroom as it was known last, be it there or not. */
    synchronized Strongroom known() {
        return current;
    }

    /** Remembers what the strongroom holds now. */
    void remember() throws IOException {
        memory.remember(current());
    }

    List<Problem> problems() {
        return memory.problem().stream().toList();
    }

    /** Uses another strongroom from now on, one that is there or a new one in an empty folder. */
    synchronized void use(Path folder) throws IOException {
        current = use(folder, home, settings, disk);
    }

    /** The same, whether or not the one that was used last is there. */
    static Strongroom use(Path folder, Home home, SettingsFile settings, Disk disk) throws IOException {
        var opened = Strongroom.make(folder.toAbsolutePath().normalize(), disk);
        settings.putAsideIfDamaged();
        settings.change(s -> s.using(opened.root(), opened.identity().id()));
        new StrongroomMemory(home.remembered(), disk).remember(opened);
        return opened;
    }

    /** @param progress is told bytes as they are copied, if it is another disk */
    void move(Path wanted, LongConsumer progress, CancelToken cancel) throws IOException {
        var target = wanted.toAbsolutePath().normalize();
        var moving = current();
        var before = settings.now().movingTo();
        if (before.filter(place -> !place.equals(target)).isPresent()) {
            StrongroomMove.clearLeftOver(before.get(), disk);
        }
        settings.change(s -> s.movingTo(target));
        new StrongroomMove(moving, target, disk)
                .run(
                        progress,
                        cancel,
                        place -> settings.change(
                                s -> s.using(place, moving.identity().id())));
        current(); // opens it where it is now
    }
}
