package app.custodex.practice.content;

import java.util.List;

/** The songs of the choir, as far as they are on phones; two of them an owner left in the cloud. */
final class Songs {
    static final List<Song> ALL = List.of(
            new Song(1, "The gannet", "Midsummer"),
            new Song(2, "Kettle song", "Midsummer"),
            new Song(3, "Lamp stair", "Midsummer"),
            new Song(4, "Channel six", "Storm watch"),
            new Song(5, "Third step", "Storm watch"),
            new Song(6, "Eleven slates", "Storm watch"));
    static final List<Song> HERE = ALL.subList(0, 4);

    private Songs() {}

    record Song(int number, String title, String album) {
        String clip() {
            return "song-" + number + ".m4a";
        }
    }
}
