package app.custodex.practice;

import app.custodex.base.Digests;
import app.custodex.link.Family;
import app.custodex.link.FileSource;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** A phone's files as they lie in a folder of this computer. */
record TreeFiles(Path root, Family family) implements FileSource {
    @Override
    public boolean has(PhonePath path) {
        return Files.isRegularFile(root.resolve(path.text()));
    }

    private List<PhonePath> all() throws IOException {
        try (var files = Files.walk(root)) {
            return files.filter(Files::isRegularFile)
                    .map(file -> new PhonePath(root.relativize(file).toString()))
                    .sorted()
                    .toList();
        }
    }

    @Override
    public List<PhonePath> in(PhonePath folder) throws IOException {
        return all().stream().filter(path -> path.in(folder)).toList();
    }

    @Override
    public List<PhonePath> of(Kind kind) throws IOException {
        return all().stream()
                .filter(path -> Layout.kindOf(family, path) == kind)
                .toList();
    }

    @Override
    public Facts facts(PhonePath path) throws IOException {
        var file = root.resolve(path.text());
        try (var in = Files.newInputStream(file)) {
            return new Facts(Files.size(file), Files.getLastModifiedTime(file).toInstant(), Digests.of(in));
        }
    }

    @Override
    public InputStream open(PhonePath path) throws IOException {
        return Files.newInputStream(root.resolve(path.text()));
    }

    @Override
    public void close() {
        // Nothing is held open.
    }
}
