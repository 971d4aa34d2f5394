package app.custodex.facts;

import app.custodex.base.PrivatePlace;
import app.custodex.base.WarmPool;
import app.custodex.facts.FileFacts.Sort;
import app.custodex.facts.FileFacts.Unread;
import app.custodex.facts.FileFacts.Unreadable;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** This end of a process that parses files. One thread uses it at a time. */
final class Worker implements WarmPool.Worker {
    private static final Logger LOG = LoggerFactory.getLogger(Worker.class);
    private static final int PIECE = 1 << 16;
    private static final Duration PATIENCE = Duration.ofSeconds(5);
    private static final long NOT_WAITING = Long.MIN_VALUE;
    /** The file in which Java may keep loaded classes for the next process; without it each loads them anew. */
    private static final Optional<Path> KEPT_CLASSES = Optional.ofNullable(System.getProperty("custodex.classes"))
            .map(Path::of)
            .filter(Files::isWritable)
            .map(folder -> folder.resolve("facts-" + Runtime.version() + ".jsa"));

    private final Process process;
    private final PrivatePlace place;
    private final DataInputStream in;
    private final DataOutputStream out;
    private volatile boolean killed;
    private volatile boolean reading;
    private volatile long waitingSince = NOT_WAITING;

    private Worker(Process process, PrivatePlace place) {
        this.process = process;
        this.place = place;
        this.in = new DataInputStream(new BufferedInputStream(process.getInputStream(), PIECE));
        this.out = new DataOutputStream(new BufferedOutputStream(process.getOutputStream(), PIECE));
    }

    static Worker start() throws IOException {
        // What a library puts aside is a customer's, so it stays in memory wherever there is such a place.
        var place = PrivatePlace.hasMemory()
                ? PrivatePlace.inMemory()
                : PrivatePlace.open(Files.createTempDirectory("custodex-")); // this user's alone
        try {
            var command = new ArrayList<>(List.of(
                    Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                    "-Xmx384m",
                    "-XX:+UseSerialGC",
                    "-XX:TieredStopAtLevel=1",
                    "-XX:+ExitOnOutOfMemoryError",
                    "-XX:-UsePerfData",
                    "-Xlog:disable", // standard output is the wire
                    "-Djava.awt.headless=true",
                    "-Djava.io.tmpdir=" + place.folder()));
            KEPT_CLASSES.ifPresent(
                    file -> command.addAll(List.of("-XX:SharedArchiveFile=" + file, "-XX:+AutoCreateSharedArchive")));
            command.addAll(List.of("-cp", System.getProperty("java.class.path"), WorkerMain.class.getName()));
            return new Worker(
                    new ProcessBuilder(command)
                            .redirectError(ProcessBuilder.Redirect.DISCARD)
                            .start(),
                    place);
        } catch (IOException e) {
            place.close();
            throw e;
        }
    }

    /** The worker has ended, or was ended. */
    static final class Ended extends IOException {
        private static final long serialVersionUID = 1L;

        Ended(IOException cause) {
            super(cause);
        }
    }

    /**
     * Reads one file.
     *
     * @throws Unreadable when the file is at fault; the worker can go on
     * @throws Ended when it was the worker's end
     * @throws IOException when the file can't be read; the worker can go on
     */
    FileFacts facts(Sort sort, String name, InputStream file) throws IOException {
        var source = new Source(file);
        reading = true;
        waitingSince = System.nanoTime();
        try {
            return talk(sort, name, source);
        } catch (Unreadable e) {
            throw source.failed.isPresent() ? source.failed.get() : e;
        } catch (IOException e) {
            kill();
            throw new Ended(e);
        } finally {
            waitingSince = NOT_WAITING;
            reading = false;
        }
    }

    /** Ends it when it has thought for too long about what it was given last. */
    void killIfLate(Duration patience) {
        long since = waitingSince;
        if (since != NOT_WAITING && System.nanoTime() - since > patience.toNanos()) {
            kill();
        }
    }

    /** The file, which may fail without anybody else's fault. */
    private static final class Source {
        private final InputStream file;
        private Optional<IOException> failed = Optional.empty();

        Source(InputStream file) {
            this.file = file;
        }

        int read(byte[] piece) {
            try {
                return file.readNBytes(piece, 0, piece.length);
            } catch (IOException e) {
                failed = Optional.of(e);
                return WorkerMain.FAILED;
            }
        }
    }

    private FileFacts talk(Sort sort, String name, Source source) throws IOException {
        out.write(sort.ordinal());
        out.writeUTF(name.length() > 200 ? name.substring(name.length() - 200) : name);
        out.flush();
        var piece = new byte[PIECE];
        while (true) {
            switch (in.readUnsignedByte()) {
                case WorkerMain.MORE -> {
                    waitingSince = NOT_WAITING; // the file may be slow to come, which is not its fault
                    int n = source.read(piece);
                    waitingSince = System.nanoTime();
                    out.writeInt(n);
                    out.write(piece, 0, Math.max(0, n));
                    out.flush();
                }
                case WorkerMain.FACTS -> {
                    var json = new byte[in.readInt()];
                    in.readFully(json);
                    return FactsJson.MAPPER.readValue(json, FileFacts.class);
                }
                case WorkerMain.UNREAD -> throw Unread.values()[in.readUnsignedByte()].exception();
                default -> throw new IOException("the worker says what nobody understands");
            }
        }
    }

    /** Ends it at once, whatever it does. */
    void kill() {
        killed = true;
        process.destroyForcibly();
    }

    @Override
    public boolean goesOn() {
        return !killed && process.isAlive();
    }

    @Override
    public void close() throws IOException {
        try {
            if (!reading && !killed && KEPT_CLASSES.filter(Files::notExists).isPresent()) {
                endByItself(); // its classes are kept only then
            }
            kill();
            process.waitFor(PATIENCE.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        place.close();
    }

    private void endByItself() throws InterruptedException {
        try {
            out.close();
            process.waitFor(PATIENCE.toMillis(), TimeUnit.MILLISECONDS);
        } catch (IOException ended) {
            LOG.debug("a worker has ended already", ended);
        }
    }
}
