package app.custodex.extract;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.SentIn;
import app.custodex.extract.Extraction.Order;
import app.custodex.extract.formats.Formats;
import app.custodex.extract.handover.Targets;
import app.custodex.media.Picture;
import app.custodex.media.SoundCoding;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;

/** Writes things into files for tests, whatever phone they come from. */
public final class Written {
    private Written() {}

    /** Gives photos of contacts. */
    public interface Photos {
        Optional<byte[]> of(Contact contact) throws IOException;
    }

    /** A phone that is called "a phone" and whose files hold their own paths. */
    public record FromCatalogue(Catalogue catalogue, Photos photos, ZoneId zone) implements Material {
        @Override
        public String phone() {
            return "a phone";
        }

        @Override
        public Origin origin() {
            return new Origin(
                    "0012",
                    List.of(new Origin.Fact("Docket", "0012"), new Origin.Fact("Phone", "a phone")),
                    "Custodex under test",
                    Instant.parse("2025-11-20T09:00:00Z"));
        }

        @Override
        public Optional<String> digest(String item) {
            return Optional.of(
                    Digests.of((item.contains("swapped") ? "before" : item).getBytes(StandardCharsets.UTF_8)));
        }

        /** A red one of every JPEG file. */
        @Override
        public Optional<Picture> picture(String item, int side) throws IOException {
            if (!item.endsWith(".jpg")) {
                return Optional.empty();
            }
            open(item).close();
            var red = ByteBuffer.allocate(4 * 40 * 30);
            while (red.hasRemaining()) {
                red.putInt(0x0000ffff);
            }
            return Optional.of(new Picture(40, 30, false, false, 40, 30, red.flip()));
        }

        /** Names the coding, of what is no text. */
        @Override
        public boolean convert(String item, SoundCoding coding, int kilobits, OutputStream out) throws IOException {
            out.write((coding + " at " + kilobits).getBytes(StandardCharsets.UTF_8));
            return !item.endsWith(".amr");
        }

        @Override
        public Catalogue.Names names() {
            return (party, in) -> party.title();
        }

        @Override
        public SentIn sentIn() {
            try {
                return catalogue.sentIn();
            } catch (IOException e) {
                throw new AssertionError(e);
            }
        }

        @Override
        public Optional<byte[]> photo(Contact contact) throws IOException {
            return photos.of(contact);
        }

        @Override
        public List<String> items(String folder) {
            return List.of(folder + "/cache/b.db", folder + "/state.db");
        }

        @Override
        public InputStream open(String item) throws IOException {
            return UnreadableException.tell(() -> {
                if (item.contains("unreadable")) {
                    throw new IOException("torn");
                }
                return new ByteArrayInputStream(item.getBytes(StandardCharsets.UTF_8));
            });
        }

        @Override
        public Instant modified(String item) {
            return Instant.parse("2025-11-14T20:04:00Z");
        }
    }

    /** One of the formats with its choices, as "vcard4:file-each". */
    public static Order order(KindGroup group, long[] numbers, String how) throws IOException {
        var parts = List.of(how.split(":"));
        var format = Formats.of(group, parts.getFirst()).orElseThrow();
        return Order.of(group, numbers, format, Chosen.of(format, group, parts.subList(1, parts.size())));
    }

    /** Writes what was ordered. */
    public static ExtractResult write(Material material, List<Order> orders, Delivery delivery, Path folder)
            throws IOException {
        return write(material, orders, delivery, folder, done -> {}, new CancelToken());
    }

    static ExtractResult write(
            Material material,
            List<Order> orders,
            Delivery delivery,
            Path folder,
            IntConsumer progress,
            CancelToken cancel)
            throws IOException {
        return new Extraction(material)
                .write(
                        orders,
                        () -> Targets.open(delivery, folder, material.phone(), material),
                        onDisk -> {},
                        folder,
                        progress,
                        cancel);
    }

    /** Writes contacts that are in no catalogue. */
    public static ExtractResult contacts(
            String how, List<Contact> contacts, Photos photos, Path folder, IntConsumer progress, CancelToken cancel)
            throws IOException {
        var material = new NoCatalogue(photos);
        return write(
                material,
                List.of(order(KindGroup.CONTACTS, new long[0], how).with(contacts)),
                Delivery.FILES,
                folder,
                progress,
                cancel);
    }

    /** Writes contacts that are in no catalogue and have no photos. */
    public static ExtractResult contacts(String how, List<Contact> contacts, Path folder) throws IOException {
        return contacts(how, contacts, contact -> Optional.empty(), folder, done -> {}, new CancelToken());
    }

    /** Writes all things of a group. */
    public static ExtractResult all(KindGroup group, String how, Catalogue catalogue, Path folder) throws IOException {
        return all(group, how, catalogue, Delivery.FILES, folder);
    }

    static ExtractResult all(KindGroup group, String how, Catalogue catalogue, Delivery delivery, Path folder)
            throws IOException {
        var picked = new BitSet();
        picked.set(1, 1_000_000);
        var numbers = Extraction.groups(catalogue, picked).getOrDefault(group, new long[0]);
        return write(
                new FromCatalogue(catalogue, contact -> Optional.empty(), ZoneId.of("Europe/Oslo")),
                List.of(order(group, numbers, how)),
                delivery,
                folder);
    }

    private record NoCatalogue(Photos photos) implements Material {
        @Override
        public String phone() {
            return "a phone";
        }

        @Override
        public ZoneId zone() {
            return ZoneId.of("UTC");
        }

        @Override
        public Catalogue catalogue() {
            throw new AssertionError("contacts need none");
        }

        @Override
        public Catalogue.Names names() {
            return (party, in) -> party.title();
        }

        @Override
        public SentIn sentIn() {
            throw new AssertionError("contacts were sent nowhere");
        }

        @Override
        public Optional<byte[]> photo(Contact contact) throws IOException {
            return photos.of(contact);
        }

        @Override
        public Origin origin() {
            throw new AssertionError("contacts do not tell");
        }

        @Override
        public Optional<String> digest(String item) {
            throw new AssertionError("contacts are no files");
        }

        @Override
        public Optional<Picture> picture(String item, int side) {
            throw new AssertionError("contacts are no files");
        }

        @Override
        public boolean convert(String item, SoundCoding coding, int kilobits, OutputStream out) {
            throw new AssertionError("contacts are no files");
        }

        @Override
        public List<String> items(String folder) {
            throw new AssertionError("contacts are no files");
        }

        @Override
        public InputStream open(String item) {
            throw new AssertionError("contacts are no files");
        }

        @Override
        public Instant modified(String item) {
            throw new AssertionError("contacts are no files");
        }
    }
}
