package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.link.Limits;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.IntConsumer;

/** Lists a phone folder by folder, those of one depth at once; in the phone's order within each. */
final class PhoneLister {
    private static final int AT_ONCE = 4;

    private final PhoneLink link;
    private final Gate gate;
    private final StallWatch watch;
    private final CancelToken cancel;
    private final Limits limits;
    private final AtomicLong listed = new AtomicLong();

    PhoneLister(PhoneLink link, Gate gate, StallWatch watch, CancelToken cancel, Limits limits) {
        this.link = link;
        this.gate = gate;
        this.watch = watch;
        this.cancel = cancel;
        this.limits = limits;
    }

    /** @param found is told how many members each folder has, by several threads */
    List<Listed> list(IntConsumer found) throws IOException {
        link.limit(limits);
        var all = new ArrayList<Listed>();
        List<PhonePath> folders = List.of(PhonePath.ROOT);
        // Not waited for when listing is given up: a folder that never answers would be waited for as long.
        var threads = Executors.newFixedThreadPool(
                AT_ONCE, Thread.ofVirtual().name("lister-", 0).factory());
        try {
            for (int depth = 0; !folders.isEmpty(); depth++) {
                folders = depth > limits.depth() ? closed(folders, all) : below(folders, all, threads, found);
            }
        } finally {
            threads.shutdownNow();
        }
        return all;
    }

    /** Lists folders of one depth, and gives those in them. */
    private List<PhonePath> below(List<PhonePath> folders, List<Listed> all, ExecutorService threads, IntConsumer found)
            throws IOException {
        var answers = folders.stream()
                .map(folder -> threads.submit(() -> members(folder, found)))
                .toList();
        var below = new ArrayList<PhonePath>();
        for (int i = 0; i < answers.size(); i++) {
            for (var member : Waiting.on(answers.get(i), folders.get(i), cancel)) {
                all.add(member);
                if (member instanceof Listed.Folder folder) {
                    below.add(folder.path());
                }
            }
        }
        return below;
    }

    private List<PhonePath> closed(List<PhonePath> folders, List<Listed> all) {
        for (var folder : folders) {
            all.add(new Listed.Closed(
                    folder,
                    Problem.failure(
                            folder.text(),
                            "It lies more than " + limits.depth() + " folders deep; what is in it was not looked at",
                            Limits.ADVICE)));
        }
        return List.of();
    }

    private List<Listed> members(PhonePath folder, IntConsumer found) throws IOException {
        while (true) {
            cancel.check();
            try {
                var members = cancel.await("list", () -> watch.watched(() -> link.list(folder)));
                requireWithinLimits(folder, members.size());
                found.accept(members.size());
                return distinct(members);
            } catch (LinkException.Item tooMany) {
                return closed(folder, tooMany);
            } catch (ExecutionException e) {
                switch (Waiting.trouble(e, folder)) {
                    case LinkException.Item item -> {
                        return closed(folder, item);
                    }
                    case LinkException trouble -> gate.awaitPhone(trouble);
                    case IOException other -> throw other;
                }
            }
        }
    }

    private static List<Listed> closed(PhonePath folder, LinkException.Item trouble) throws LinkException {
        if (folder.equals(PhonePath.ROOT)) {
            throw trouble; // nothing at all can be seen: that is no empty phone
        }
        return List.of(new Listed.Closed(folder, trouble.problem()));
    }

    private void requireWithinLimits(PhonePath folder, int members) throws LinkException {
        if (listed.addAndGet(members) > limits.items()) {
            throw new LinkException.Item(
                    folder, "The phone lists more than " + limits.items() + " items", Limits.ADVICE, null);
        }
    }

    /** One path is one item: of what is listed twice, the first counts, and the others are told. */
    private List<Listed> distinct(List<Listed> members) {
        var paths = new HashSet<PhonePath>();
        var distinct = new ArrayList<Listed>(members.size());
        for (var member : members) {
            if (member instanceof Listed.Refused || paths.add(member.path())) {
                distinct.add(member);
            } else {
                distinct.add(new Listed.Refused(
                        member.path(),
                        Problem.failure(
                                member.path().text(),
                                "It is listed more than once; the first one was taken",
                                "Look at the folder at its source")));
            }
        }
        return distinct;
    }
}
