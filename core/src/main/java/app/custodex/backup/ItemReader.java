package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhoneLink;
import java.io.IOException;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
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

    /** @param file the item as it was read, which may be newer than the listing */
    record Whole(Listed.File file, byte[] bytes, String digest) {}

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
            // On a thread of the readers', which is interrupted when it is to stop.
            try (var content = watch.watched(watch.watched(() -> link.open(file.path(), 0)))) {
                var is = asListed(file, content, 0);
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
                return new Whole(is, bytes, Digests.of(bytes));
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

    /**
     * Compares what is sent with what the list of its folder says of it. Where they differ, the item may have changed since it was
     * listed, so the list is asked again; when it still says something else, what is sent is not that item.
     *
     * @return the item as it is now
     */
    private Listed.File asListed(Listed.File file, PhoneContent content, long offset) throws LinkException {
        long size = content.size() + offset;
        if (size == file.size() && same(file.etag(), content.etag())) {
            return with(file, content.etag());
        }
        for (var listed : asked(file, () -> link.list(file.path().parent()))) {
            if (listed instanceof Listed.File now && now.path().equals(file.path())) {
                if (size == now.size() && same(now.etag(), content.etag())) {
                    return with(now, content.etag());
                }
                throw new LinkException.Item(
                        file.path(),
                        now.size() == file.size()
                                ? "What is sent is not the file that is listed"
                                : "It changes while it is copied",
                        "Look at it at its source: does a sign-in page or an error message come in its place?",
                        null);
            }
        }
        throw new LinkException.Item(file.path(), "It is no longer there", "It was deleted while the copy ran", null);
    }

    private static Listed.File with(Listed.File file, String etag) {
        return etag.isEmpty() || etag.equals(file.etag())
                ? file
                : new Listed.File(file.path(), file.size(), file.modified(), etag);
    }

    /** Compared weakly (RFC 9110 §8.8.3.2); one that is not given differs from none. */
    private static boolean same(String etag, String other) {
        return etag.isEmpty() || other.isEmpty() || opaque(etag).equals(opaque(other));
    }

    private static String opaque(String etag) {
        return (etag.startsWith("W/") ? etag.substring(2) : etag).replace("\"", "");
    }

    /** Asks on a thread that may be left behind: the one that writes must not be held up, nor be interrupted. */
    private <T> T asked(Listed.File file, StallWatch.Question<T> question) throws LinkException {
        try {
            return cancel.await("asking", () -> watch.watched(question));
        } catch (ExecutionException e) {
            if (Waiting.trouble(e, file.path()) instanceof LinkException trouble) {
                throw trouble;
            }
            throw new IllegalStateException(e);
        }
    }

    private PhoneContent open(Listed.File file, long offset) throws LinkException {
        return watch.watched(asked(file, () -> link.open(file.path(), offset)));
    }

    /**
     * Reads an item in chunks and gives it as it was read, which may be newer than the listing.
     *
     * @param from bytes of it that are there already
     * @throws LinkException.Item also when the item changed while the phone was away: half of each is worth nothing
     * @throws IOException of the sink, as it is
     */
    Listed.File stream(Listed.File file, long from, Sink sink, LongConsumer progress) throws IOException {
        var buffer = new byte[CHUNK];
        long position = from;
        long before = from;
        Optional<Listed.File> being = from > 0 ? Optional.of(file) : Optional.empty();
        progress.accept(from);
        for (int tries = 1; ; tries++) {
            cancel.check();
            try (var content = open(file, position)) {
                var is = asListed(file, content, position);
                if (being.isPresent() && !isSame(being.get(), is)) {
                    throw new LinkException.Item(
                            file.path(),
                            "It changed on the phone while it was copied",
                            "Back up again to take it",
                            null);
                }
                being = Optional.of(is);
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
                return is;
            } catch (LinkException.Item e) {
                throw e;
            } catch (LinkException e) {
                tries = position > before ? 1 : tries;
                before = position;
                goOn(file, tries, e);
            }
        }
    }

    private static boolean isSame(Listed.File one, Listed.File other) {
        return one.size() == other.size() && one.modified().equals(other.modified()) && same(one.etag(), other.etag());
    }
}
