package app.custodex.link;

import app.custodex.base.Problem;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;

/** What an archive holds, sorted into folders. Its entries come in any order and under any name; none is merged with another. */
final class ArchiveIndex implements Closeable {
    /** Gives an entry's content from its start. */
    interface Opener {
        InputStream open() throws IOException;
    }

    /** @param crc CRC-32 that the archive promises, where it promises one */
    record Entry(Listed.File file, Opener content, OptionalLong crc) {
        private Entry at(PhonePath path) {
            return new Entry(new Listed.File(path, file.size(), file.modified(), file.etag()), content, crc);
        }
    }

    private final Map<PhonePath, List<Listed>> folders;
    private final Map<PhonePath, Entry> entries;
    private final Closeable archive;

    private ArchiveIndex(Map<PhonePath, List<Listed>> folders, Map<PhonePath, Entry> entries, Closeable archive) {
        this.folders = folders;
        this.entries = entries;
        this.archive = archive;
    }

    List<Listed> in(PhonePath folder) {
        return folders.getOrDefault(folder, List.of());
    }

    Optional<Entry> find(PhonePath path) {
        return Optional.ofNullable(entries.get(path));
    }

    /**
     * Opens a file from an offset on; what comes is compared with what is promised of it.
     *
     * @param trouble says what a failure to read means
     */
    PhoneContent open(PhonePath path, long offset, PromisedContent.Trouble trouble) throws LinkException {
        var entry = find(path)
                .orElseThrow(() -> new LinkException.Item(path, "It is not in there any more", "List it again", null));
        try {
            var content = new PromisedContent(entry, entry.content().open(), trouble);
            content.skipNBytes(offset);
            return new PhoneContent(
                    Math.max(0, entry.file().size() - offset), entry.file().etag(), content);
        } catch (IOException | RuntimeException e) {
            throw trouble.of(e);
        }
    }

    @Override
    public void close() throws IOException {
        archive.close();
    }

    /** Takes what an archive lists, one after the other. */
    static final class Builder {
        private final Limits limits;
        private final Map<PhonePath, Entry> entries = new LinkedHashMap<>();
        private final Map<PhonePath, Listed.Folder> folders = new LinkedHashMap<>();
        private final Map<PhonePath, Listed.Link> links = new LinkedHashMap<>();
        private final List<Listed.Refused> refused = new ArrayList<>();
        private long unpacked;
        private long listed;

        Builder(Limits limits) {
            this.limits = limits;
        }

        /** The path that a name means; empty for the root itself. Leading slashes and "." are only ways of writing. */
        Optional<PhonePath> path(String name) throws LinkException {
            if (++listed > limits.items()) {
                throw new LinkException.Item(
                        PhonePath.ROOT, "The archive lists more items than any phone holds", Limits.ADVICE, null);
            }
            if (name.length() > limits.pathLength()) {
                refuse(
                        name.substring(0, 60),
                        "The archive lists a name of " + name.length() + " characters that begins so",
                        "It was left out. " + Limits.ADVICE);
                return Optional.empty();
            }
            var path = new StringBuilder();
            for (var segment : name.split("/")) {
                if (segment.isEmpty() || segment.equals(".")) {
                    continue;
                }
                if (!PhonePath.isName(segment)) {
                    refused.add(new Listed.Refused(
                            PhonePath.nearest(name),
                            Problem.failure(
                                    "/",
                                    "The archive lists \"" + name + "\", which would lie outside of it",
                                    "It was left out; ask where the archive comes from")));
                    return Optional.empty();
                }
                path.append(path.isEmpty() ? "" : "/").append(segment);
            }
            return path.isEmpty() ? Optional.empty() : Optional.of(new PhonePath(path.toString()));
        }

        void file(PhonePath path, long size, Instant modified, String etag, OptionalLong crc, Opener content) {
            unpacked += Math.max(0, size);
            add(path, new Entry(new Listed.File(path, Math.max(0, size), modified, etag), content, crc));
        }

        private void add(PhonePath path, Entry entry) {
            var earlier = entries.remove(path);
            if (earlier != null) {
                // What unpacks an archive writes the later one over the earlier one.
                setAside(earlier, "The archive holds this name more than once");
            }
            entries.put(path, entry);
        }

        private void setAside(Entry entry, String why) {
            var free = entry.file().path();
            for (int n = 2;
                    entries.containsKey(free)
                            || folders.containsKey(free)
                            || free.equals(entry.file().path());
                    n++) {
                free = new PhonePath(entry.file().path().text() + " (" + n + ")");
            }
            entries.put(free, entry.at(free));
            refused.add(new Listed.Refused(
                    entry.file().path(),
                    Problem.note(
                            entry.file().path().text(),
                            why,
                            "An earlier one was taken as \"" + free.name() + "\"; nothing needs doing")));
        }

        void folder(PhonePath path, Instant modified) {
            folders.put(path, new Listed.Folder(path, modified));
        }

        void link(PhonePath path, String target, Instant modified) {
            links.put(path, new Listed.Link(path, target, modified));
        }

        /** A second name of an entry that came before; the same content. */
        void sameAs(PhonePath path, Optional<PhonePath> target) {
            var entry = target.map(entries::get);
            if (entry.isPresent()) {
                add(path, entry.get().at(path));
            } else {
                refuse(
                        path.text(),
                        "It is a second name of a file that the archive does not hold before it",
                        "Ask for another copy of the archive");
            }
        }

        void refuse(String subject, String what, String advice) {
            refused.add(new Listed.Refused(Problem.failure(subject, what, advice)));
        }

        void note(PhonePath path, String what) {
            refused.add(new Listed.Refused(path, Problem.note(path.text(), what, "Nothing needs doing")));
        }

        /** @param last the entry behind which nothing can be read */
        void torn(String last) {
            refuse(
                    last,
                    "The archive is cut off or damaged here; everything before it was taken",
                    "Ask for another copy of the archive");
        }

        /** @param size of the archive itself, bytes */
        ArchiveIndex index(Closeable archive, long size) throws LinkException {
            if (unpacked > (1L << 30) && unpacked / limits.unpacked() > size) {
                throw new LinkException.Item(
                        PhonePath.ROOT,
                        "The archive would unpack to more than " + limits.unpacked() + " times its size",
                        "Don't take it if you don't know where it comes from. " + Limits.ADVICE,
                        null);
            }
            for (var path : entries.keySet()) {
                addParents(path);
            }
            for (var path : links.keySet()) {
                addParents(path);
            }
            for (var path : List.copyOf(folders.keySet())) {
                addParents(path);
            }
            for (var path : List.copyOf(entries.keySet())) {
                if (folders.containsKey(path) || links.containsKey(path)) {
                    var entry = entries.remove(path);
                    if (entry != null) {
                        setAside(entry, "The archive holds a file and something else of this name");
                    }
                }
            }
            links.keySet().removeIf(path -> {
                if (folders.containsKey(path)) {
                    refuse(path.text(), "The archive holds a link and a folder of this name", "The link was left out");
                    return true;
                }
                return false;
            });
            var members = new HashMap<PhonePath, List<Listed>>();
            members.put(PhonePath.ROOT, new ArrayList<>(refused));
            folders.values().forEach(folder -> place(members, folder));
            links.values().forEach(link -> place(members, link));
            entries.values().forEach(entry -> place(members, entry.file()));
            return new ArchiveIndex(members, entries, archive);
        }

        /** Archives need not name the folders that their files lie in. */
        private void addParents(PhonePath path) {
            for (var parent = path.parent(); !parent.text().isEmpty(); parent = parent.parent()) {
                if (folders.putIfAbsent(parent, new Listed.Folder(parent)) != null) {
                    return; // those above it are there, too
                }
            }
        }

        private static void place(Map<PhonePath, List<Listed>> members, Listed listed) {
            members.computeIfAbsent(listed.path().parent(), p -> new ArrayList<>())
                    .add(listed);
        }
    }
}
