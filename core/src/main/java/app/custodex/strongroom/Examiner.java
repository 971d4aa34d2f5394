package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;

/** Looks at the strongroom's own files, those that belong to no phone and those of each stack, and mends what can be mended. */
final class Examiner {
    private static final Set<String> OWN = Set.of(
            StorageRoot.FOLDER,
            Seals.FOLDER,
            SecondCopies.FOLDER,
            "checks",
            "catalogue",
            Strongroom.WORK,
            StrongroomIdentity.FILE);

    private final Path root;
    private final Disk disk;
    private final StrongroomIdentity identity;
    private final Set<String> remembered;
    private final StorageRoot storage;
    private final Seals seals;
    private final CheckLog checks;

    /** @param remembered the names of stacks that somebody else remembers */
    Examiner(
            Path root,
            Disk disk,
            StrongroomIdentity identity,
            Set<String> remembered,
            StorageRoot storage,
            Seals seals,
            CheckLog checks) {
        this.root = root;
        this.disk = disk;
        this.identity = identity;
        this.remembered = Set.copyOf(remembered);
        this.storage = storage;
        this.seals = seals;
        this.checks = checks;
    }

    /** What is wrong with the files that belong to no phone. */
    List<Problem> ownProblems() throws IOException {
        var problems = new ArrayList<Problem>();
        ownFindings().forEach(finding -> problems.add(finding.problem()));
        problems.addAll(checks.problems());
        return problems;
    }

    List<Finding> ownFindings() throws IOException {
        var findings = new ArrayList<>(storage.look(root.resolve(Strongroom.WORK)));
        for (var file : List.of(StrongroomIdentity.FILE, SecondCopies.FOLDER + "/" + StrongroomIdentity.FILE)) {
            if (!StrongroomIdentity.readFile(root.resolve(file)).equals(Optional.of(identity))) {
                findings.add(Finding.mendable(
                        file, "What says which strongroom this is is damaged", () -> identity.write(root, disk)));
            }
        }
        lookForStrays(root, name -> OWN.contains(name), findings);
        lookForStrays(
                root.resolve(SecondCopies.FOLDER),
                name -> name.equals(StrongroomIdentity.FILE) || StorageRoot.isObjectName(name),
                findings);
        lookForStrays(root.resolve(Seals.FOLDER), StorageRoot::isObjectName, findings);
        return findings;
    }

    private void lookForStrays(Path folder, Predicate<String> belongs, List<Finding> findings) throws IOException {
        if (!Files.isDirectory(folder)) {
            return;
        }
        try (var members = Files.newDirectoryStream(folder)) {
            for (var member : members) {
                var name = String.valueOf(member.getFileName());
                if (!belongs.test(name) && !name.endsWith(".part")) {
                    findings.add(Finding.stray(root.relativize(member).toString()));
                }
            }
        }
    }

    List<Finding> findings(Stack stack) throws IOException {
        try {
            return new StackFrame(stack, disk).lookClosely();
        } catch (IOException | RuntimeException unreadable) {
            return List.of(Finding.lost(stack.shown(stack.object().root()), "This phone's folder can't be read"));
        }
    }

    /** Stacks of which there are only traces. */
    List<Problem> vanished(Set<String> there) throws IOException {
        var traces = new TreeSet<String>(remembered);
        var copies = root.resolve(SecondCopies.FOLDER);
        if (Files.isDirectory(copies)) {
            try (var folders = Files.list(copies)) {
                folders.filter(folder -> Files.exists(folder.resolve(Inventory.NAME))
                                || Files.exists(folder.resolve(Stack.copyName(1, Strongroom.RECORD))))
                        .forEach(folder -> traces.add(String.valueOf(folder.getFileName())));
            }
        }
        for (var name : seals.stacks()) {
            if (StorageRoot.isObjectName(name) && Files.exists(seals.labelFile(name, 1))) {
                traces.add(name);
            }
        }
        traces.removeAll(there);
        traces.removeIf(name -> !StorageRoot.isObjectName(name));
        return traces.stream()
                .map(name -> Problem.failure(
                        root.relativize(storage.folderNamed(name)).toString(),
                        "The layers of a phone are gone from the disk",
                        "Bring the folder back from the shop's second copy"))
                .toList();
    }

    static List<Problem> mend(List<Finding> findings) throws IOException {
        var told = new ArrayList<Problem>();
        for (var finding : findings) {
            if (finding.mend().isPresent()) {
                finding.mend().get().run();
                told.add(finding.mended());
            } else if (finding.costly()) {
                told.add(finding.problem());
            }
        }
        return told;
    }
}
