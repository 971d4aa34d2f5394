package app.custodex.base;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FileLeaseTest {
    @TempDir
    Path folder;

    private Path file() {
        return folder.resolve("lease.lock");
    }

    @Test
    void manyShareItAndOneHasItAlone() throws IOException {
        var one = FileLease.shared(file()).orElseThrow();
        var two = FileLease.shared(file()).orElseThrow();
        assertTrue(FileLease.alone(file()).isEmpty());
        one.close();
        one.close(); // a second time changes nothing
        assertTrue(FileLease.alone(file()).isEmpty());
        two.close();
        try (var alone = FileLease.alone(file()).orElseThrow()) {
            assertTrue(FileLease.shared(file()).isEmpty());
            assertTrue(FileLease.alone(file()).isEmpty());
        }
        FileLease.shared(file()).orElseThrow().close();
    }

    @Test
    void aLinkToItIsTheSame() throws IOException {
        Files.createDirectory(folder.resolve("real"));
        Files.createSymbolicLink(folder.resolve("link"), folder.resolve("real"));
        try (var alone = FileLease.alone(folder.resolve("real/lease")).orElseThrow()) {
            assertTrue(FileLease.shared(folder.resolve("link/lease")).isEmpty());
        }
    }

    /** Holds a lease until it is killed. */
    public static final class Holder {
        public static void main(String[] args) throws Exception {
            var file = Path.of(args[1]);
            var lease = args[0].equals("alone") ? FileLease.alone(file) : FileLease.shared(file);
            System.out.println(lease.isPresent() ? "held" : "refused");
            System.in.read();
        }
    }

    private Process holder(String how) throws IOException {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        Holder.class.getName(),
                        how,
                        file().toString())
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
    }

    @Test
    @Fault(Of.TWO_PROGRAMS)
    void itHoldsAgainstOtherProgramsAndEndsWhenTheyAreKilled() throws Exception {
        for (var how : new String[] {"shared", "alone"}) {
            var other = holder(how);
            assertEquals("held", other.inputReader().readLine());
            assertTrue(FileLease.alone(file()).isEmpty(), how);
            var shared = FileLease.shared(file());
            assertEquals(how.equals("shared"), shared.isPresent());
            if (shared.isPresent()) {
                shared.get().close();
            }
            other.destroyForcibly().waitFor();
            FileLease.alone(file()).orElseThrow().close();
        }
        try (var alone = FileLease.alone(file()).orElseThrow()) {
            var other = holder("shared");
            assertEquals("refused", other.inputReader().readLine());
            other.destroyForcibly().waitFor();
        }
    }

    @Test
    void whatSomebodyElsePreparedInSharedMemoryIsNotUsed() throws IOException {
        var shared = folder.resolve("shm");
        Files.createDirectories(shared);
        var own = PrivatePlace.ownFolder(shared, "custodex-me");
        assertEquals(shared.resolve("custodex-me"), own);
        assertEquals(own, PrivatePlace.ownFolder(shared, "custodex-me"), "it is found again");
        Files.setPosixFilePermissions(own, PosixFilePermissions.fromString("rwxrwxrwx"));
        assertIsAnother(shared, own);
        Files.delete(own);
        var trap = Files.createDirectory(
                folder.resolve("trap"),
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
        Files.createSymbolicLink(own, trap);
        assertIsAnother(shared, own);
    }

    private static void assertIsAnother(Path shared, Path own) throws IOException {
        var other = PrivatePlace.ownFolder(shared, "custodex-me");
        assertFalse(other.equals(own));
        assertEquals("rwx------", PosixFilePermissions.toString(Files.getPosixFilePermissions(other)));
    }
}
