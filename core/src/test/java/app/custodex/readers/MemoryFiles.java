package app.custodex.readers;

import app.custodex.base.Digests;
import app.custodex.link.Family;
import app.custodex.link.FileSource;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.PhonePath;
import java.io.ByteArrayInputStream;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;

/** A phone's files in memory. */
class MemoryFiles implements FileSource {
    private final TreeMap<PhonePath, byte[]> files = new TreeMap<>();
    private final Function<PhonePath, Kind> kinds;

    /** Files that lie anywhere, whose kinds were told by their content. */
    MemoryFiles(Map<PhonePath, Kind> known) {
        kinds = path -> known.getOrDefault(path, Kind.OTHER);
    }

    MemoryFiles(Family family) {
        kinds = path -> Layout.kindOf(family, path);
    }

    MemoryFiles with(String path, byte[] bytes) {
        files.put(new PhonePath(path), bytes);
        return this;
    }

    @Override
    public boolean has(PhonePath path) {
        return files.containsKey(path);
    }

    @Override
    public List<PhonePath> in(PhonePath folder) {
        return files.keySet().stream().filter(path -> path.in(folder)).toList();
    }

    @Override
    public List<PhonePath> of(Kind kind) {
        return files.keySet().stream().filter(path -> kinds.apply(path) == kind).toList();
    }

    @Override
    public Facts facts(PhonePath path) {
        var bytes = files.getOrDefault(path, new byte[0]);
        return new Facts(bytes.length, Instant.parse("2026-01-02T03:04:05Z"), Digests.of(bytes));
    }

    @Override
    public InputStream open(PhonePath path) throws IOException {
        var bytes = files.get(path);
        if (bytes == null) {
            throw new FileNotFoundException(path.text());
        }
        return new ByteArrayInputStream(bytes);
    }

    @Override
    public void close() {}
}
