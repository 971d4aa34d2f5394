package app.custodex.practice.content;

import java.util.List;

/** An islander in somebody's phone. Empty text means that the owner left the field out. */
record Person(
        String uid,
        String prefix,
        String given,
        String middle,
        String family,
        String suffix,
        String phoneticGiven,
        String phoneticFamily,
        String nickname,
        String organisation,
        String department,
        String title,
        String birthday,
        String note,
        List<Reach> reach,
        List<Post> posts,
        List<String> circles,
        byte[] portrait,
        long changedMillis) {
    /** @param way "phone", "mail", "web" or "chat" */
    record Reach(String way, String label, String value) {}

    /** The first number or mail address; empty when there is neither. */
    String address() {
        return reach.stream()
                .filter(way -> way.way().equals("phone") || way.way().equals("mail"))
                .map(Reach::value)
                .findFirst()
                .orElse("");
    }

    String name() {
        return (given + " " + family).strip();
    }

    record Post(String label, String street, String town, String region, String code, String country) {}
}
