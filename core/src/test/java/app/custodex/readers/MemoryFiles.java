package app.custodex.readers;

import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import java.io.ByteArrayInputStream;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.TreeMap;

/** A phone's files in memory. */
final class MemoryFiles implements FileSource {
    private final TreeMap<PhonePath, byte[]> files = new TreeMap<>();

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
