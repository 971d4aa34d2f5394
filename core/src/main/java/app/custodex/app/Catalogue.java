package app.custodex.app;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.model.Contact;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredLayer;
import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What was read out of each layer, kept so that it opens at once the next time: gzip'd JSON lines, a head and then the
 * contacts in the order of a locale. It can be thrown away at any time; it is made anew when it is missing or torn. Of a sealed
 * layer it is sealed with the same key.
 */
final class Catalogue {
    private static final Logger LOG = LoggerFactory.getLogger(Catalogue.class);
    /** Raised whenever the model or what the readers make of the data changes. */
    private static final int FORM = 1;

    private final Path folder;
    private final Disk disk;

    Catalogue(Path folder, Disk disk) {
        this.folder = folder;
        this.disk = disk;
    }

    private record Head(int form, String phone, int layer, String locale, int contacts, List<Problem> problems) {}

    /**
     * @param contacts sorted by the locale that was asked for
     * @param problems of reading them
     */
    record Entry(List<Contact> contacts, List<Problem> problems) {}

    private Path file(StoredLayer stored) {
        var layer = stored.record();
        // Named by a digest: an identifier comes from the phone and may be no file name.
        var phone = Digests.of(layer.phone().identifier().getBytes(StandardCharsets.UTF_8))
                .substring(0, 24);
        return folder.resolve(phone + "-" + layer.number() + ".jsonl.gz" + (layer.sealed() ? ".age" : ""));
    }

    private static Head head(LayerRecord layer, Locale locale, Entry entry) {
        return new Head(
                FORM,
                layer.phone().identifier(),
                layer.number(),
                locale.toLanguageTag(),
                entry.contacts().size(),
                entry.problems());
    }

    /** Empty when there is none for this layer and locale, or it is not whole. */
    Optional<Entry> find(StoredLayer stored, Locale locale) {
        var file = file(stored);
        var layer = stored.record();
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        try (var in = new BufferedInputStream(new GZIPInputStream(content(stored, file), 1 << 16), 1 << 16);
                var parser = Json.LINE.createParser(in)) {
            var head = Json.LINE.readValue(parser, Head.class);
            var contacts = new ArrayList<Contact>(head.contacts());
            var values = Json.LINE.readerFor(Contact.class).<Contact>readValues(parser);
            while (values.hasNextValue()) {
                contacts.add(values.nextValue());
            }
            var entry = new Entry(contacts, head.problems());
            return head.equals(head(layer, locale, entry)) ? Optional.of(entry) : Optional.empty();
        } catch (IOException | RuntimeException torn) {
            LOG.info("a torn catalogue is made anew", torn);
            return Optional.empty();
        }
    }

    private static InputStream content(StoredLayer stored, Path file) throws IOException {
        return stored.key().isPresent() ? stored.key().get().decrypting(file) : Files.newInputStream(file);
    }

    /** Keeps what was read; a failure to do so only costs time later. */
    void keep(StoredLayer stored, Locale locale, Entry entry) {
        var file = file(stored);
        try {
            var bytes = new ByteArrayOutputStream();
            try (var gzip = new GZIPOutputStream(bytes, 1 << 16)) {
                gzip.write(Json.LINE.writeValueAsBytes(head(stored.record(), locale, entry)));
                for (var contact : entry.contacts()) {
                    gzip.write('\n');
                    gzip.write(Json.LINE.writeValueAsBytes(contact));
                }
            }
            disk.createFolders(folder);
            disk.replace(
                    file,
                    stored.key().isPresent() ? stored.key().get().encrypt(bytes.toByteArray()) : bytes.toByteArray());
        } catch (IOException e) {
            LOG.warn("the catalogue of a layer was not kept", e);
        }
    }
}
