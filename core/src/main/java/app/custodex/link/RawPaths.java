package app.custodex.link;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;

/** Names in a folder of this computer, whatever bytes they are made of. Java keeps the bytes in its paths, but shows them lossily. */
final class RawPaths {
    private static final char UNREADABLE = '\ufffd';
    // The types of files in "mode" (POSIX.1-2017, sys/stat.h; the values are those of Linux, inode(7)).
    private static final int TYPE = 0xf000;
    private static final int FIFO = 0x1000;
    private static final int CHARACTER_DEVICE = 0x2000;
    private static final int BLOCK_DEVICE = 0x6000;
    private static final int SOCKET = 0xc000;

    private RawPaths() {}

    /** The last name of a path as text. */
    static String name(Path path) {
        var name = String.valueOf(path.getFileName());
        if (name.indexOf(UNREADABLE) < 0) {
            return RawName.shown(name);
        }
        var address = path.toAbsolutePath().toUri().getRawPath();
        var bare = address.endsWith("/") ? address.substring(0, address.length() - 1) : address;
        return RawName.shown(RawName.percentDecoded(bare.substring(bare.lastIndexOf('/') + 1)));
    }

    /** A whole path as text, such as what a link says. */
    static String text(Path path) {
        if (path.toString().indexOf(UNREADABLE) < 0) {
            return RawName.shown(path.toString());
        }
        var text = new StringBuilder(path.isAbsolute() ? "/" : "");
        for (var segment : path) {
            text.append(text.isEmpty() || text.charAt(text.length() - 1) == '/' ? "" : "/")
                    .append(name(Path.of("/").resolve(segment)));
        }
        return text.toString();
    }

    /** The member of a folder that a text stands for. */
    static Path child(Path folder, String name) {
        var address = folder.toAbsolutePath().toUri().toString();
        return Path.of(URI.create(address + (address.endsWith("/") ? "" : "/") + RawName.encoded(name)));
    }

    /** What something is that is no file, folder or link. */
    static String special(Path path) throws IOException {
        if (!path.getFileSystem().supportedFileAttributeViews().contains("unix")) {
            return "a device, a pipe or a socket";
        }
        int mode = (int) Files.getAttribute(path, "unix:mode", LinkOption.NOFOLLOW_LINKS);
        return switch (mode & TYPE) {
            case FIFO -> "a named pipe";
            case CHARACTER_DEVICE -> "a character device";
            case BLOCK_DEVICE -> "a block device";
            case SOCKET -> "a socket";
            default -> "a special file";
        };
    }
}
