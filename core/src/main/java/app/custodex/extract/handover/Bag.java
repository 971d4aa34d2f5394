package app.custodex.extract.handover;

import app.custodex.extract.Extraction.Order;
import app.custodex.extract.Material;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Target;
import app.custodex.extract.WrittenFile;
import app.custodex.extract.WrittenFiles;
import java.io.Closeable;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;

/**
 * A bag by BagIt 1.0 (RFC 8493): what is handed out lies in the folder "data", and beside it the digests by which anybody can check that
 * all of it is there as it was written.
 */
final class Bag implements Target {
    private final OutFolder root;
    private final OutFolder data;
    private final IndexedFiles files;
    private final Container container;

    /** In what it lies. */
    interface Container extends Closeable {
        OutFolder root();

        /** All is written. */
        void finish() throws IOException;

        /** The files that lie on the disk now because of it. */
        List<WrittenFile> onDisk();
    }

    Bag(Container container, IndexedFiles files) throws IOException {
        this.container = container;
        this.files = files;
        root = container.root();
        data = root.folder("data");
    }

    @Override
    public OutFolder folder() {
        return data;
    }

    @Override
    public WrittenFiles files() {
        return files;
    }

    @Override
    public void finish(Material material, List<Order> orders, List<String> leftOut) throws IOException {
        StartPage.write(material, orders, leftOut, files, data);
        var payload = files.all();
        root.text("bagit", ".txt", text -> text.write("BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n"));
        root.text("bag-info", ".txt", text -> {
            long bytes = payload.stream().mapToLong(WrittenFile::bytes).sum();
            var day = LocalDate.ofInstant(material.origin().written(), material.zone());
            text.write("Bagging-Date: " + day + "\n");
            text.write("Payload-Oxum: " + bytes + "." + payload.size() + "\n");
            text.write("Bag-Software-Agent: " + material.origin().tool() + "\n");
            if (!material.origin().docket().isEmpty()) {
                text.write("External-Identifier: docket " + material.origin().docket() + "\n");
            }
        });
        root.text("manifest-sha512", ".txt", text -> {
            for (var each : payload) {
                text.write(line(each));
            }
        });
        var tags = files.all().subList(payload.size(), files.all().size());
        root.text("tagmanifest-sha512", ".txt", text -> {
            for (var each : tags) {
                text.write(line(each));
            }
        });
        container.finish();
    }

    /** Of the signs in a path only these are written by their numbers (RFC 8493, 2.1.3). */
    private String line(WrittenFile file) {
        var path = root.relative(file.file())
                .replace("%", "%25")
                .replace("\r", "%0D")
                .replace("\n", "%0A");
        return file.sha512() + "  " + path + "\n";
    }

    @Override
    public List<WrittenFile> onDisk() {
        return container.onDisk();
    }

    @Override
    public void close() throws IOException {
        files.close();
        container.close();
    }
}
