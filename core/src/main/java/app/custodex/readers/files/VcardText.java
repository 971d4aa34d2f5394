package app.custodex.readers.files;

import app.custodex.base.Problem;
import ezvcard.VCard;
import ezvcard.io.text.VCardReader;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Turns the bytes of a vCard file into cards (RFC 6350, and RFC 2426 and vCard 2.1 as far as phones still write them). */
final class VcardText {
    /** A card with a large photo stays far below; more is no card but an attack or a mix-up. */
    private static final int MAX_BYTES = 64 << 20;

    private VcardText() {}

    /** @param problems is told what is broken; the cards that can be read are given all the same */
    static List<VCard> parse(String subject, InputStream in, List<Problem> problems) throws IOException {
        var bytes = in.readNBytes(MAX_BYTES + 1);
        if (bytes.length > MAX_BYTES) {
            problems.add(Problem.loss(
                    subject, "This vCard file is larger than 64 MB", "Take it out as a file and look into it"));
            return List.of();
        }
        var text = decode(subject, bytes, problems);
        var cards = new ArrayList<VCard>();
        try (var reader = new VCardReader(text)) {
            for (var card = reader.readNext(); card != null; card = reader.readNext()) {
                cards.add(card);
            }
        }
        int begun = count(text, "BEGIN:VCARD");
        int ended = count(text, "END:VCARD");
        if (begun > ended) {
            problems.add(
                    Problem.loss(subject, "The last card in this file is cut off", "Compare it with an older layer"));
        }
        if (cards.isEmpty() && bytes.length > 0) {
            problems.add(Problem.failure(
                    subject, "There is no vCard in this file", "Take it out as a file and look into it"));
        }
        return cards;
    }

    private static String decode(String subject, byte[] bytes, List<Problem> problems) {
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
        } catch (CharacterCodingException e) {
            problems.add(Problem.loss(
                    subject,
                    "Its text is not in UTF-8, as vCard asks for; it was read as Western European",
                    "Check the names and notes in it"));
            return new String(bytes, Charset.forName("windows-1252"));
        }
    }

    private static int count(String text, String line) {
        int count = 0;
        for (int at = 0; at + line.length() <= text.length(); ) {
            if (text.regionMatches(true, at, line, 0, line.length())) {
                count++;
            }
            int next = text.indexOf('\n', at);
            if (next < 0) {
                break;
            }
            at = next + 1;
        }
        return count;
    }
}
