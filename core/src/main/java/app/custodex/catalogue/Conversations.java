package app.custodex.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.Map;

/** The messages of every conversation. They are found in one pass, because finding those of a single conversation takes just as long. */
final class Conversations {
    private static final class Messages {
        private int count;
        private long[] numbers = {};
    }

    private final Map<Integer, Messages> all = new HashMap<>();

    private Conversations() {}

    static Conversations load(Connection db, Spine spine) throws SQLException {
        var conversations = new Conversations();
        int[] byTime = spine.numbers();
        int last = 0;
        for (int number : byTime) {
            last = Math.max(last, number);
        }
        var within = new int[last + 1];
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, within FROM thing WHERE within IS NOT NULL")) {
            while (rows.next()) {
                within[rows.getInt(1)] = rows.getInt(2);
                conversations.of(rows.getInt(2)).count++;
            }
        }
        conversations.all.values().forEach(messages -> {
            messages.numbers = new long[messages.count];
            messages.count = 0;
        });
        for (int number : byTime) {
            if (within[number] != 0) {
                var messages = conversations.of(within[number]);
                messages.numbers[messages.count++] = number;
            }
        }
        return conversations;
    }

    private Messages of(int conversation) {
        return all.computeIfAbsent(conversation, any -> new Messages());
    }

    /** The numbers of a conversation's messages, the oldest first. */
    long[] messages(long conversation) {
        var messages = all.get((int) conversation);
        return messages == null ? new long[0] : messages.numbers.clone();
    }
}
