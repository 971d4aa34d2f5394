package app.custodex.base;

import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.util.Optional;

/** Whether a failure means that a place can only be read: its disk is read-only, or this user may not write there. */
public final class WriteRefused {
    private WriteRefused() {}

    public static boolean is(FileSystemException e) {
        return e instanceof AccessDeniedException
                || Optional.ofNullable(e.getReason()).orElse("").contains("Read-only");
    }
}
