package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhoneLink;
import java.io.IOException;
import java.util.Optional;
import java.util.function.LongConsumer;

/** Reads items off a phone, again from where it stopped when the phone went away meanwhile. */
final class ItemReader {
    private static final int CHUNK = 1 << 18;

    private final PhoneLink link;
    private final Gate gate;
    private final CancelToken cancel;

    ItemReader(PhoneLink link, Gate gate, CancelToken cancel) {
        this.link = link;
        this.gate = gate;
        this.cancel = cancel;
    }

    /** @param etag of what was read, which may be newer than the listing */
    record Whole(byte[] bytes, String digest, String etag) {}

    /** Takes the content of a large item in order. */
    interface Sink {
        void write(byte[] bytes, int length) throws IOException;
    }

    /**
     * Reads an item into memory.
     *
     * @param atMost more than this is refused
     */
    Whole whole(Listed.File file, int atMost, LongConsumer progress) throws LinkException {
        while (true) {
            cancel.check();
            long read = 0;
            try (var content = open(file, 0)) {
                if (content.size() > atMost) {
                    throw new LinkException.Item(
                            file.path(), "It grew while the copy ran", "Back up again to take it", null);
                }
                var bytes = content.stream().readNBytes((int) content.size());
                read = bytes.length;
                progress.accept(read);
                if (bytes.length < content.size()) {
                    throw new LinkException.Lost(file.path().text(), null);
                }
                return new Whole(bytes, Digests.of(bytes), content.etag());
            } catch (LinkException.Item e) {
                throw e;
            } catch (LinkException e) {
                progress.accept(-read);
                gate.awaitPhone(e);
            } catch (IOException e) {
                throw new LinkException.Lost(file.path().text(), e);
            }
        }
    }

    private PhoneContent open(Listed.File file, long offset) throws LinkException {
        return link.open(file.path(), offset);
    }

    /**
     * Reads an item in chunks and gives the etag of what was read.
     *
     * @throws LinkException.Item also when the item changed while the phone was away: half of each is worth nothing
     * @throws IOException of the sink, as it is
     */
    String stream(Listed.File file, Sink sink, LongConsumer progress) throws IOException {
        var buffer = new byte[CHUNK];
        long position = 0;
        Optional<String> etag = Optional.empty();
        while (true) {
            cancel.check();
            try (var content = open(file, position)) {
                if (etag.isPresent() && !etag.get().equals(content.etag())) {
                    throw new LinkException.Item(
                            file.path(),
                            "It changed on the phone while it was copied",
                            "Back up again to take it",
                            null);
                }
                etag = Optional.of(content.etag());
                long end = position + content.size();
                while (position < end) {
                    cancel.check();
                    int n = content.stream().read(buffer, 0, (int) Math.min(buffer.length, end - position));
                    if (n < 0) {
                        throw new LinkException.Lost(file.path().text(), null);
                    }
                    sink.write(buffer, n);
                    position += n;
                    progress.accept(n);
                }
                return content.etag();
            } catch (LinkException.Item e) {
                throw e;
            } catch (LinkException e) {
                gate.awaitPhone(e);
            }
        }
    }
}
