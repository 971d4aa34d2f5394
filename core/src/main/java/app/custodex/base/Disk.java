package app.custodex.base;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Path;

/**
 * Every change that Custodex makes to a strongroom goes through here, so that a test can cut it at any step or run out
 * of room. Reading goes straight to the file system.
 */
public interface Disk {
    /** A file being written from its start. Closing does not make it durable; {@link #sync} does. */
    interface Out extends Closeable {
        /** Writes all that remains in the buffer. */
        void write(ByteBuffer bytes) throws IOException;

        /** Returns once everything written so far is on the medium. */
        void sync() throws IOException;

        /** Bytes written so far. */
        long size();
    }

    /** Creates a file that must not exist yet. */
    Out create(Path file) throws IOException;

    /** Opens a file for appending, creating it when it is not there. */
    Out append(Path file) throws IOException;

    /** Creates a folder and its parents; the names of those that are new are durable afterwards. */
    void createFolders(Path folder) throws IOException;

    /** Moves a file or folder within one file system in one step, replacing a file that is there. */
    void move(Path from, Path to) throws IOException;

    /** Makes the names in a folder durable. */
    void syncFolder(Path folder) throws IOException;

    /** Deletes a file or a whole folder; does nothing when it is not there. Links are deleted, never followed. */
    void delete(Path path) throws IOException;

    /** Bytes that can still be written where this folder lies. */
    long room(Path folder) throws IOException;

    /** Creates the file, writes the bytes and syncs. Its name is not durable before its folder is synced. */
    default void write(Path file, byte[] bytes) throws IOException {
        try (var out = create(file)) {
            out.write(ByteBuffer.wrap(bytes));
            out.sync();
        }
    }

    /** Puts a whole file in the place of what is there, in one durable step: a cut leaves the old one or the new one. */
    default void replace(Path file, byte[] bytes) throws IOException {
        replace(file, bytes, file.resolveSibling(file.getFileName() + ".part"));
    }

    /**
     * The same, for a folder in which nothing else may lie meanwhile.
     *
     * @param waiting where it is written before it takes its place; on the same file system
     */
    default void replace(Path file, byte[] bytes, Path waiting) throws IOException {
        delete(waiting);
        write(waiting, bytes);
        move(waiting, file);
        syncFolder(parent(file));
    }

    /** Opens a file that is there, cut to this length, for writing behind it. */
    Out reopen(Path file, long size) throws IOException;

    /** The folder that something lies in. */
    static Path parent(Path path) {
        var parent = path.toAbsolutePath().getParent();
        if (parent == null) {
            throw new IllegalArgumentException(path + " has no parent");
        }
        return parent;
    }
}
