package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import javax.xml.stream.XMLStreamException;
import org.junit.jupiter.api.Test;

class DavListingTest {
    /** RFC 4918 §9.1.5, the answer to "Example - Using 'allprop'", shortened to the properties that are read. */
    private static final String ALLPROP = """
            <?xml version="1.0" encoding="utf-8" ?>
            <D:multistatus xmlns:D="DAV:">
              <D:response>
                <D:href>/container/</D:href>
                <D:propstat>
                  <D:prop xmlns:R="http://ns.example.com/boxschema/">
                    <D:creationdate>1997-12-01T17:42:21-08:00</D:creationdate>
                    <D:displayname>Example collection</D:displayname>
                    <D:resourcetype><D:collection/></D:resourcetype>
                  </D:prop>
                  <D:status>HTTP/1.1 200 OK</D:status>
                </D:propstat>
              </D:response>
              <D:response>
                <D:href>/container/front.html</D:href>
                <D:propstat>
                  <D:prop xmlns:R="http://ns.example.com/boxschema/">
                    <D:creationdate>1997-12-01T18:27:21-08:00</D:creationdate>
                    <D:displayname>Example HTML resource</D:displayname>
                    <D:getcontentlength>4525</D:getcontentlength>
                    <D:getcontenttype>text/html</D:getcontenttype>
                    <D:getetag>"zzyzx"</D:getetag>
                    <D:getlastmodified>Mon, 12 Jan 1998 09:25:56 GMT</D:getlastmodified>
                    <D:resourcetype/>
                  </D:prop>
                  <D:status>HTTP/1.1 200 OK</D:status>
                </D:propstat>
              </D:response>
            </D:multistatus>""";

    private static List<Listed> read(String xml, String base, PhonePath folder)
            throws XMLStreamException, LinkException {
        return DavListing.read(
                new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)), base, folder, Limits.USUAL);
    }

    private static String answer(String href, String more) {
        return "<multistatus xmlns='DAV:' xmlns:o='urn:custodex:link'><response><href>" + href
                + "</href><propstat><prop>" + more + "</prop></propstat></response></multistatus>";
    }

    @Test
    void readsThePublishedExample() throws XMLStreamException, LinkException {
        var listed = read(ALLPROP, "/container/", PhonePath.ROOT);

        assertEquals(
                List.of(new Listed.File(
                        new PhonePath("front.html"), 4525, Instant.parse("1998-01-12T09:25:56Z"), "\"zzyzx\"")),
                listed);
    }

    @Test
    void decodesNamesOnceAndOnlyOnce() throws XMLStreamException, LinkException {
        var listed = read(
                answer("/files/a%2520b%20+%E6%B5%B7%0A", "<getcontentlength>1</getcontentlength>"),
                "/files/",
                PhonePath.ROOT);

        assertEquals(
                new PhonePath("a%20b +海\n"),
                assertInstanceOf(Listed.File.class, listed.getFirst()).path());
    }

    @Test
    void refusesNamesThatLeadOutOfTheFolder() throws XMLStreamException, LinkException {
        for (var href : List.of(
                "/files/sub/..%2F..%2Fetc%2Fpasswd",
                "/files/sub/%2e%2e",
                "/files/sub/..",
                "/files/other/x",
                "/files/sub/a/b",
                "/elsewhere/sub/x",
                "http://[broken")) {
            var listed = read(answer(href, ""), "/files/", new PhonePath("sub"));
            assertInstanceOf(Listed.Refused.class, listed.getFirst(), href);
        }
    }

    @Test
    void keepsALinkAsWhatItSays() throws XMLStreamException, LinkException {
        var listed = read(answer("/files/l", "<o:link-target>../../etc</o:link-target>"), "/files/", PhonePath.ROOT);

        assertEquals(new Listed.Link(new PhonePath("l"), "../../etc"), listed.getFirst());
    }

    @Test
    void doesNotFollowEntities() {
        var evil = "<!DOCTYPE m [<!ENTITY x SYSTEM 'file:///etc/passwd'>]>" + answer("/files/&x;", "");

        assertThrows(XMLStreamException.class, () -> read(evil, "/files/", PhonePath.ROOT));
    }

    @Test
    void aListingThatStopsInTheMiddleIsNoListing() {
        assertThrows(XMLStreamException.class, () -> read(ALLPROP.substring(0, 900), "/container/", PhonePath.ROOT));
    }

    @Test
    void nonsenseInFiguresDoesNotStopTheListing() throws XMLStreamException, LinkException {
        var listed = read(
                answer(
                        "/files/x",
                        "<getcontentlength>-5</getcontentlength><getlastmodified>yesterday</getlastmodified>"),
                "/files/",
                PhonePath.ROOT);

        assertEquals(new Listed.File(new PhonePath("x"), 0, Instant.EPOCH, ""), listed.getFirst());
    }

    @Test
    void pathsHoldAnythingButWhatNamesNothing() {
        for (var bad : List.of("/a", "a/", "a//b", ".", "a/..", "..", "a\0b")) {
            assertThrows(IllegalArgumentException.class, () -> new PhonePath(bad), bad);
        }
        var odd = new PhonePath("a\\b/c:d/...");
        assertEquals("...", odd.name());
        assertTrue(odd.in(new PhonePath("a\\b")));
        assertEquals(".jpg", new PhonePath("x/Y.JPG").ending());
        assertEquals("", new PhonePath("x/.hidden").ending());
    }

    @Test
    void readinessNamesTheOneNextMovement() {
        var some = new Readiness(Family.PELLOW, Set.of(ReadinessStep.UNLOCK, ReadinessStep.CABLE_ACCESS));
        assertEquals(ReadinessStep.MAKER_MENU, some.next().orElseThrow());
        var all = new Readiness(Family.OSTREL, Set.of(ReadinessStep.UNLOCK, ReadinessStep.TRUST));
        assertTrue(all.ready());
    }
}
