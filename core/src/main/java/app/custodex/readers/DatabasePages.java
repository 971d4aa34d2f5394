package app.custodex.readers;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/** The pages of a database file with its log, one by one, by SQLite's "Database File Format", §1. */
final class DatabasePages implements Closeable {
    private final FileChannel file;
    private final Optional<FileChannel> logFile;
    private final WriteAheadLog log;
    private final int size;
    private final ByteBuffer first;

    DatabasePages(Path file, Path logFile, WriteAheadLog log) throws IOException {
        this.file = FileChannel.open(file, StandardOpenOption.READ);
        this.log = log;
        this.logFile = log.pages().isEmpty()
                ? Optional.empty()
                : Optional.of(FileChannel.open(logFile, StandardOpenOption.READ));
        var header = ByteBuffer.allocate(100);
        this.file.read(header, 0);
        int written = Short.toUnsignedInt(header.getShort(16));
        this.size = written == 1 ? 65_536 : Math.max(512, written);
        this.first = page(1);
    }

    int count() throws IOException {
        int inLog =
                log.pages().keySet().stream().mapToInt(Integer::intValue).max().orElse(0);
        return Math.max(inLog, (int) Math.min(Integer.MAX_VALUE - 1, file.size() / size));
    }

    /** Bytes of a page that hold data. */
    int usable() {
        return size - Byte.toUnsignedInt(first.get(20));
    }

    Charset charset() {
        return switch (first.getInt(56)) {
            case 2 -> StandardCharsets.UTF_16LE;
            case 3 -> StandardCharsets.UTF_16BE;
            default -> StandardCharsets.UTF_8;
        };
    }

    /** Zeros where the file has ended. */
    ByteBuffer page(int number) throws IOException {
        var bytes = ByteBuffer.allocate(size);
        var inLog = log.pages().get(number);
        if (inLog != null && logFile.isPresent()) {
            logFile.get().read(bytes, inLog);
        } else {
            file.read(bytes, (long) (number - 1) * size);
        }
        return bytes.clear();
    }

    /** Pages that hold nothing any more; what still stands in them was deleted. */
    Set<Integer> free() throws IOException {
        var free = new HashSet<Integer>();
        int count = count();
        for (int trunk = first.getInt(32); trunk > 1 && trunk <= count && free.add(trunk); ) {
            var page = page(trunk);
            int leaves = Math.min(page.getInt(4), size / 4 - 2);
            for (int i = 0; i < leaves; i++) {
                free.add(page.getInt(8 + 4 * i));
            }
            trunk = page.getInt(0);
        }
        return free;
    }

    @Override
    public void close() throws IOException {
        try (file) {
            if (logFile.isPresent()) {
                logFile.get().close();
            }
        }
    }
}
