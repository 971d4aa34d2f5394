package app.custodex.bench;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import app.custodex.app.Mandate;
import app.custodex.backup.BackupRequest;
import app.custodex.backup.BackupResult;
import app.custodex.base.RealDisk;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Random;

/** What every benchmark does: trees to copy, the other side's commands, a backup, and the clock. */
final class Side {
    private static final Path CACHES = Path.of("/proc/sys/vm/drop_caches");

    private Side() {}

    interface Task {
        void run() throws Exception;
    }

    static double seconds(Task task) throws Exception {
        long start = System.nanoTime();
        task.run();
        return (System.nanoTime() - start) / 1e9;
    }

    /** Runs a command and waits for it; what it prints is thrown away. */
    static void run(List<String> command) throws IOException, InterruptedException {
        var process = new ProcessBuilder(command)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        if (process.waitFor() != 0) {
            throw new IOException(command + " failed");
        }
    }

    /** Only root may, and only on Linux. */
    static boolean mayEmptyCaches() {
        return Files.isWritable(CACHES);
    }

    /** What is on the disk is read from the disk again. */
    static void emptyCaches() throws IOException, InterruptedException {
        run(List.of("sync"));
        Files.writeString(CACHES, "3");
    }

    /** Files of random bytes, a hundred in a folder. */
    static Path tree(Path root, int files, long bytes) throws IOException {
        var random = new Random(1);
        var content = new byte[(int) (bytes / files)];
        for (int i = 0; i < files; i++) {
            var folder = root.resolve("folder-%04d".formatted(i / 100));
            if (i % 100 == 0) {
                Files.createDirectories(folder);
            }
            random.nextBytes(content);
            Files.write(folder.resolve("file-%06d.dat".formatted(i)), content);
        }
        return root;
    }

    static BackupResult backUp(Custodex custodex, Bay bay, boolean check) throws Exception {
        bay.ask();
        var request = BackupRequest.everything(Duration.ZERO, Custodex.TOOL).checking(check);
        var outcome =
                custodex.backUp(bay, Mandate.ofShop(), request, false).outcome().get();
        if (outcome instanceof Outcome.Done done) {
            return done.result();
        }
        throw new IOException(outcome.toString());
    }

    /** Runs with a folder that is removed at the end; beside the system's one, when CUSTODEX_BENCH names another disk. */
    static void inFolder(FolderTask task) throws Exception {
        var place = System.getenv().getOrDefault("CUSTODEX_BENCH", System.getProperty("java.io.tmpdir"));
        var folder = Files.createTempDirectory(Path.of(place), "custodex-bench");
        try {
            task.run(folder);
        } finally {
            new RealDisk().delete(folder);
        }
    }

    interface FolderTask {
        void run(Path folder) throws Exception;
    }

    static int number(String[] args, int at, int otherwise) {
        return args.length > at ? Integer.parseInt(args[at]) : otherwise;
    }
}
