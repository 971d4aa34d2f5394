package app.custodex.link;

import app.custodex.base.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Supplier;

/** Files and folders of this computer that somebody picked: each lies at the top under its own name, wherever it lies on the disk. */
public final class PickedLink extends PlainLink {
    private final Map<String, Picked> picked = new TreeMap<>();

    /**
     * One of them.
     *
     * @param beside the folder in which it lies on the disk
     * @param there its path in that
     */
    private record Picked(Path path, FolderLink beside, PhonePath there) {}

    /**
     * @param paths two of one name get numbers
     * @param leaveOut a folder that is not looked into
     * @throws IOException when one of them is not there
     */
    public PickedLink(String identifier, String name, List<Path> paths, Supplier<Path> leaveOut) throws IOException {
        super(Family.FOLDER, new SourceName(identifier, name));
        for (var path : paths) {
            var real = path.toRealPath(); // a link that somebody picked is meant as what it leads to
            var parent = Optional.ofNullable(real.getParent()).orElse(real);
            var own = RawPaths.name(real);
            picked.put(
                    free(own),
                    new Picked(real, new FolderLink(identifier, name, parent, leaveOut), PhonePath.ROOT.child(own)));
        }
    }

    private String free(String own) {
        int dot = own.lastIndexOf('.');
        var stem = dot > 0 ? own.substring(0, dot) : own;
        var ending = dot > 0 ? own.substring(dot) : "";
        var name = own;
        for (int n = 2; picked.containsKey(name); n++) {
            name = stem + " (" + n + ")" + ending;
        }
        return name;
    }

    @Override
    public PhoneStatus status() {
        boolean any = picked.values().stream().anyMatch(each -> Files.isReadable(each.path()));
        return status(any ? EnumSet.of(ReadinessStep.REACH) : none(), "", 0, 0);
    }

    @Override
    public List<Listed> list(PhonePath folder) throws LinkException {
        var listed = new ArrayList<Listed>();
        if (folder.equals(PhonePath.ROOT)) {
            for (var each : picked.entrySet()) {
                listed.add(top(each.getValue(), PhonePath.ROOT.child(each.getKey())));
            }
        } else {
            var one = of(folder);
            for (var member :
                    one.beside().list(moved(folder, first(folder), one.there().text()))) {
                listed.add(at(member, moved(member.path(), one.there().text(), first(folder))));
            }
        }
        listed.sort(Comparator.comparing(Listed::path));
        return listed;
    }

    private static Listed top(Picked one, PhonePath path) {
        try {
            return at(one.beside().listed(PhonePath.ROOT, one.path()), path);
        } catch (IOException e) {
            return new Listed.Refused(
                    path, Problem.failure(path.text(), "It can't be looked at", "Pick it again where it is now"));
        }
    }

    private static Listed at(Listed listed, PhonePath path) {
        return switch (listed) {
            case Listed.File file -> new Listed.File(path, file.size(), file.modified(), file.etag());
            case Listed.Folder folder -> new Listed.Folder(path, folder.modified());
            case Listed.Link link -> new Listed.Link(path, link.target(), link.modified());
            case Listed.Closed closed -> new Listed.Closed(path, closed.problem());
            case Listed.Refused refused -> new Listed.Refused(path, refused.problem());
        };
    }

    private static String first(PhonePath path) {
        int slash = path.text().indexOf('/');
        return slash < 0 ? path.text() : path.text().substring(0, slash);
    }

    /** The same path below another beginning. */
    private static PhonePath moved(PhonePath path, String from, String to) {
        return new PhonePath(to + path.text().substring(from.length()));
    }

    private Picked of(PhonePath path) throws LinkException {
        var found = picked.get(first(path));
        if (found == null) {
            throw new LinkException.Item(path, "It was not picked", "Pick it", null);
        }
        return found;
    }

    @Override
    public PhoneContent open(PhonePath file, long offset) throws LinkException {
        var one = of(file);
        return one.beside().open(moved(file, first(file), one.there().text()), offset);
    }

    @Override
    public void close() {
        // Nothing is held open between calls.
    }
}
