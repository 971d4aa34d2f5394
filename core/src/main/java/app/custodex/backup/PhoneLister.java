package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.function.IntConsumer;

/** Lists a phone folder by folder, those of one depth at once; in the phone's order within each. */
final class PhoneLister {
    private static final int AT_ONCE = 4;

    private final PhoneLink link;
    private final Gate gate;
    private final StallWatch watch;
    private final CancelToken cancel;

    PhoneLister(PhoneLink link, Gate gate, StallWatch watch, CancelToken cancel) {
        this.link = link;
        this.gate = gate;
        this.watch = watch;
        this.cancel = cancel;
    }

    /** @param found is told how many members each folder has, by several threads */
    List<Listed> list(IntConsumer found) throws IOException {
        var all = new ArrayList<Listed>();
        List<PhonePath> folders = List.of(PhonePath.ROOT);
        try (var threads =
                Executors.newFixedThreadPool(AT_ONCE, Thread.ofVirtual().factory())) {
            while (!folders.isEmpty()) {
                var answers = folders.stream()
                        .map(folder -> threads.submit(() -> members(folder, found)))
                        .toList();
                var below = new ArrayList<PhonePath>();
                for (var answer : answers) {
                    for (var member : Waiting.on(answer)) {
                        all.add(member);
                        if (member instanceof Listed.Folder folder) {
                            below.add(folder.path());
                        }
                    }
                }
                folders = below;
            }
        }
        return all;
    }

    private List<Listed> members(PhonePath folder, IntConsumer found) throws LinkException {
        while (true) {
            cancel.check();
            try {
                var members = watch.watched(() -> link.list(folder));
                found.accept(members.size());
                return members;
            } catch (LinkException.Item e) {
                if (folder.equals(PhonePath.ROOT)) {
                    throw e; // nothing at all can be seen: that is no empty phone
                }
                return List.of(new Listed.Closed(folder, e.problem()));
            } catch (LinkException e) {
                gate.awaitPhone(e);
            }
        }
    }
}
