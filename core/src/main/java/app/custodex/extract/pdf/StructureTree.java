package app.custodex.extract.pdf;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import org.apache.pdfbox.cos.COSArray;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSInteger;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.common.PDRectangle;

/** What the parts of a document are, for those who have it read to them (ISO 32000-1, 14.7 and 14.8). */
final class StructureTree {
    private final Element document = Element.of("Document");
    private final Deque<Element> open = new ArrayDeque<>();
    private final List<COSArray> ofPages = new ArrayList<>();

    StructureTree() {
        open.push(document);
    }

    /** A part of the document. */
    record Element(COSDictionary dictionary) {
        private static Element of(String tag) {
            var dictionary = new COSDictionary();
            dictionary.setName(COSName.S, tag);
            return new Element(dictionary);
        }

        String tag() {
            return dictionary.getNameAsString(COSName.S);
        }

        private COSArray kids() {
            if (dictionary.getDictionaryObject(COSName.K) instanceof COSArray known) {
                return known;
            }
            var kids = new COSArray();
            kids.setDirect(true);
            dictionary.setItem(COSName.K, kids);
            return kids;
        }
    }

    /** Adds a part of this sort to the one that is open. */
    Element add(String tag) {
        var element = Element.of(tag);
        element.dictionary().setItem(COSName.P, open.element().dictionary());
        open.element().kids().add(element.dictionary());
        return element;
    }

    /** What follows is inside a part of this sort. */
    void open(String tag) {
        open.push(add(tag));
    }

    void close() {
        open.pop();
    }

    /** What follows is inside of. */
    Element current() {
        return open.element();
    }

    /** Moves the last part of the document before all others. */
    void moveLastToFront() {
        var kids = document.kids();
        kids.add(0, kids.remove(kids.size() - 1));
    }

    /** That the part that is open is a picture, with what it shows, and where on the page. */
    void figure(String shows, PDRectangle where) {
        var element = open.element().dictionary();
        element.setString(COSName.ALT, shows);
        element.setItem(COSName.A, layout(where));
    }

    private static COSDictionary layout(PDRectangle where) {
        var layout = new COSDictionary();
        layout.setName(COSName.O, "Layout");
        layout.setName(COSName.getPDFName("Placement"), "Block");
        layout.setItem(COSName.BBOX, where);
        layout.setDirect(true);
        return layout;
    }

    /** That a part is the heading of a column. */
    static void headsColumn(Element heading) {
        var attributes = new COSDictionary();
        attributes.setName(COSName.O, "Table");
        attributes.setName(COSName.getPDFName("Scope"), "Column");
        attributes.setDirect(true);
        heading.dictionary().setItem(COSName.A, attributes);
    }

    /** Makes room for what a page says; the page is given its number here. */
    void begin(PDPage page) {
        page.getCOSObject().setInt(COSName.STRUCT_PARENTS, ofPages.size());
        ofPages.add(new COSArray());
    }

    /** A part says the next piece of the newest page. */
    int piece(Element part, PDPage page) {
        var onPage = ofPages.getLast();
        int number = onPage.size();
        onPage.add(part.dictionary());
        var reference = new COSDictionary();
        reference.setItem(COSName.TYPE, COSName.getPDFName("MCR"));
        reference.setItem(COSName.PG, page.getCOSObject());
        reference.setInt(COSName.MCID, number);
        reference.setDirect(true);
        part.kids().add(reference);
        return number;
    }

    void embed(PDDocument into) {
        var root = new COSDictionary();
        root.setItem(COSName.TYPE, COSName.STRUCT_TREE_ROOT);
        document.dictionary().setItem(COSName.P, root);
        root.setItem(COSName.K, document.dictionary());
        var numbers = new COSArray();
        for (int i = 0; i < ofPages.size(); i++) {
            numbers.add(COSInteger.get(i));
            numbers.add(ofPages.get(i));
        }
        var parents = new COSDictionary();
        parents.setItem(COSName.NUMS, numbers);
        root.setItem(COSName.PARENT_TREE, parents);
        root.setInt(COSName.PARENT_TREE_NEXT_KEY, ofPages.size());
        var catalog = into.getDocumentCatalog().getCOSObject();
        catalog.setItem(COSName.STRUCT_TREE_ROOT, root);
        var marked = new COSDictionary();
        marked.setBoolean(COSName.getPDFName("Marked"), true);
        catalog.setItem(COSName.MARK_INFO, marked);
    }
}
