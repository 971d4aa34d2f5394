package app.custodex.catalogue;

import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * Writes the words of a new catalogue into a database of their own, beside the thread that writes the catalogue, because the index takes
 * about as long as everything else together. At the end it is copied into the catalogue as it is.
 */
final class WordsBeside implements WordIndex {
    private static final int BATCH = 256;
    /** Batches that may wait to be written. */
    private static final int WAITING = 16;

    private final Connection catalogue;
    private final Connection own;
    private final String address;
    private final WordTable table;
    private final ExecutorService thread = Executors.newSingleThreadExecutor();
    private final Queue<Future<?>> waiting = new ArrayDeque<>();
    private List<Added> added = new ArrayList<>();

    private record Added(int thing, Filed.Words words) {}

    /**
     * @param catalogue has no index of words yet
     * @param own an empty database, which is closed with this
     * @param address of that database, for SQLite
     */
    WordsBeside(Connection catalogue, Connection own, String address) throws SQLException {
        this.catalogue = catalogue;
        this.own = own;
        this.address = address;
        Schema.createWords(own);
        own.setAutoCommit(false);
        table = new WordTable(own, new Beginnings(catalogue, false));
    }

    @Override
    public Connection connection() {
        return own;
    }

    @Override
    public void add(int thing, Filed.Words words) {
        added.add(new Added(thing, words));
    }

    @Override
    public void remove(int thing, Filed.Words words) throws SQLException, IOException {
        submitAdded();
        submit(() -> table.remove(thing, words));
    }

    @Override
    public void endBatch() throws SQLException, IOException {
        if (added.size() >= BATCH) {
            submitAdded();
        }
    }

    private void submitAdded() throws SQLException, IOException {
        var batch = added;
        added = new ArrayList<>();
        submit(() -> {
            for (var one : batch) {
                table.add(one.thing(), one.words());
            }
            table.endBatch();
        });
    }

    private interface Work {
        void run() throws SQLException, IOException;
    }

    private void submit(Work work) throws SQLException, IOException {
        waiting.add(thread.submit(() -> {
            work.run();
            return true;
        }));
        while (waiting.size() > WAITING) {
            await(waiting.remove());
        }
    }

    private static void await(Future<?> work) throws SQLException, IOException {
        try {
            work.get();
        } catch (ExecutionException e) {
            throw new IOException("the index of words can't be written", e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }

    @Override
    public void catchUp() throws SQLException, IOException {
        submitAdded();
        while (!waiting.isEmpty()) {
            await(waiting.remove());
        }
    }

    @Override
    public void finish() throws SQLException, IOException {
        catchUp();
        own.commit();
        table.finish();
        // A database can't be attached or let go of within a transaction.
        catalogue.commit();
        catalogue.setAutoCommit(true);
        try (var attach = catalogue.prepareStatement("ATTACH ? AS beside")) {
            attach.setString(1, address);
            attach.execute();
        }
        Schema.copyWords(catalogue, "beside");
        try (var detach = catalogue.createStatement()) {
            detach.execute("DETACH beside");
        }
        catalogue.setAutoCommit(false);
    }

    @Override
    public void close() throws IOException {
        thread.shutdownNow();
        thread.close();
        try (own) {
            table.close();
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }
}
