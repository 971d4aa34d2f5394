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
    /** A file at which the connection breaks this often, while the phone itself stays, is the file's own trouble. */
    private static final int TRIES = 6;

    private final PhoneLink link;
    private final Gate gate;
    private final StallWatch watch;
    private final CancelToken cancel;

    ItemReader(PhoneLink link, Gate gate, StallWatch watch, CancelToken cancel) {
        this.link = link;
        this.gate = gate;
        this.watch = watch;
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
        for (int tries = 1; ; tries++) {
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
            } catch (IOException e) {
                progress.accept(-read);
                goOn(file, tries, e);
            }
        }
    }

    /** Waits until the phone is back; gives the file up when it was there all the time. */
    private void goOn(Listed.File file, int tries, IOException trouble) throws LinkException {
        if (tries >= TRIES) {
            throw new LinkException.Item(
                    file.path(),
                    "The connection broke each time that it was read",
                    "Open it on the phone; restart the phone and back up again",
                    trouble);
        }
        gate.awaitPhone(
                trouble instanceof LinkException e
                        ? e
                        : new LinkException.Lost(file.path().text(), trouble));
    }

    private PhoneContent open(Listed.File file, long offset) throws LinkException {
        return watch.watched(watch.watched(() -> link.open(file.path(), offset)));
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
        long before = 0;
        Optional<String> etag = Optional.empty();
        for (int tries = 1; ; tries++) {
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
                tries = position > before ? 1 : tries;
                before = position;
                goOn(file, tries, e);
            }
        }
    }
}
