package app.custodex.extract.handover;

import app.custodex.base.SafeNames;
import app.custodex.extract.Delivery;
import app.custodex.extract.DiskFolder;
import app.custodex.extract.Extraction.Order;
import app.custodex.extract.Material;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Target;
import app.custodex.extract.WrittenFile;
import app.custodex.extract.WrittenFiles;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** Makes what a delivery is written to. */
public final class Targets {
    private Targets() {}

    /**
     * Opens one.
     *
     * @param title of a package, and so of its file or folder
     * @throws IOException when the folder can't be written
     */
    public static Target open(Delivery delivery, Path folder, String title, Material material) throws IOException {
        return switch (delivery.form()) {
            case FILES -> new InFolder(folder, false);
            case CHECKSUMS -> new InFolder(folder, true);
            case BAG -> {
                Files.createDirectories(folder);
                var bag = SafeNames.free(folder, SafeNames.of(title, "Package"), "");
                var files = new IndexedFiles(material);
                yield new Bag(new OnDisk(new DiskFolder(Files.createDirectory(bag), files), files), files);
            }
            case ZIP, SEALED -> {
                Files.createDirectories(folder);
                var files = new IndexedFiles(material);
                yield new Bag(ZipPackage.open(folder, title, delivery.passphrase(), files), files);
            }
        };
    }

    /** A folder, in which every file is complete by itself. */
    private record OnDisk(OutFolder root, WrittenFiles files) implements Bag.Container {
        @Override
        public List<WrittenFile> onDisk() {
            return files.all();
        }

        @Override
        public void finish() {
            // nothing is left to do
        }

        @Override
        public void close() {
            // what is complete stays
        }
    }

    /** Files that lie in a folder by themselves. */
    private record InFolder(OutFolder folder, WrittenFiles files, boolean checksums) implements Target {
        InFolder(Path path, boolean checksums) throws IOException {
            var files = new WrittenFiles();
            this(new DiskFolder(path, files), files, checksums);
        }

        @Override
        public void finish(Material material, List<Order> orders, List<String> leftOut) throws IOException {
            if (checksums) {
                var written = files.all();
                folder.text("Checksums of " + material.phone(), ".sha512", text -> {
                    for (var each : written) {
                        text.write(each.sha512() + "  " + folder.relative(each.file()) + "\n");
                    }
                });
            }
        }

        @Override
        public List<WrittenFile> onDisk() {
            return files.all();
        }

        @Override
        public void close() {
            // every file is complete by itself
        }
    }
}
