package app.custodex.desktop.guide;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.commonmark.ext.gfm.tables.TableBlock;
import org.commonmark.ext.gfm.tables.TableBody;
import org.commonmark.ext.gfm.tables.TablesExtension;
import org.commonmark.node.BulletList;
import org.commonmark.node.Code;
import org.commonmark.node.Emphasis;
import org.commonmark.node.Heading;
import org.commonmark.node.HtmlBlock;
import org.commonmark.node.Node;
import org.commonmark.node.Paragraph;
import org.commonmark.node.SoftLineBreak;
import org.commonmark.node.StrongEmphasis;
import org.commonmark.node.Text;
import org.commonmark.parser.Parser;

/** The pages of the guide, read from the same text that stands in the docs. */
public record GuideText(List<Page> pages) {
    private static final String SOURCE = "/app/custodex/desktop/guide.md";
    private static final String MARK = "<!-- page: ";

    public GuideText {
        pages = List.copyOf(pages);
    }

    /** Words of one look. */
    public record Span(String text, boolean strong) {}

    /** A part of a page. */
    public sealed interface Block {
        /** What it says, without its look. */
        String plain();
    }

    /** @param bullet whether it is one of a list */
    public record Words(List<Span> spans, boolean bullet) implements Block {
        @Override
        public String plain() {
            return spans.stream().map(Span::text).collect(Collectors.joining());
        }
    }

    /** Keys and what they do. */
    public record Keys(String keys, String does) implements Block {
        @Override
        public String plain() {
            return keys + " " + does;
        }
    }

    /** @param id by which a place in the window finds it */
    public record Page(String id, String title, List<Block> blocks) {
        public Page {
            blocks = List.copyOf(blocks);
        }
    }

    /** A page on which something was found, and the first part that says it. */
    public record Hit(Page page, String says) {}

    /** Reads the guide that came with the application. */
    public static GuideText load() {
        try (var in = Optional.ofNullable(GuideText.class.getResourceAsStream(SOURCE))
                .orElseThrow(() -> new IllegalStateException("this Custodex was built without its guide"))) {
            return parse(new String(in.readAllBytes(), StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Reads Markdown (CommonMark 0.31, with tables): each page has a comment with its identifier before its heading. */
    static GuideText parse(String markdown) {
        var parser =
                Parser.builder().extensions(List.of(TablesExtension.create())).build();
        var pages = new ArrayList<Page>();
        var id = "";
        var title = "";
        var blocks = new ArrayList<Block>();
        for (var node = parser.parse(markdown).getFirstChild(); node != null; node = node.getNext()) {
            if (node instanceof HtmlBlock comment && comment.getLiteral().startsWith(MARK)) {
                add(pages, id, title, blocks);
                id = comment.getLiteral()
                        .substring(MARK.length())
                        .replace("-->", "")
                        .strip();
                blocks.clear();
            } else if (node instanceof Heading) {
                title = plain(node);
            } else {
                blocks.addAll(blocks(node));
            }
        }
        add(pages, id, title, blocks);
        return new GuideText(pages);
    }

    private static void add(List<Page> pages, String id, String title, List<Block> blocks) {
        if (!id.isEmpty()) {
            pages.add(new Page(id, title, blocks));
        }
    }

    private static List<Block> blocks(Node node) {
        return switch (node) {
            case Paragraph paragraph -> List.of(new Words(spans(paragraph, false), false));
            case BulletList list ->
                children(list).stream()
                        .<Block>map(item -> new Words(spans(item.getFirstChild(), false), true))
                        .toList();
            case TableBlock table ->
                children(table).stream()
                        .filter(TableBody.class::isInstance)
                        .flatMap(body -> children(body).stream())
                        .<Block>map(row -> new Keys(plain(row.getFirstChild()), plain(row.getLastChild())))
                        .toList();
            default -> List.of();
        };
    }

    private static List<Node> children(Node node) {
        var children = new ArrayList<Node>();
        for (var child = node.getFirstChild(); child != null; child = child.getNext()) {
            children.add(child);
        }
        return children;
    }

    private static List<Span> spans(Node parent, boolean strong) {
        var spans = new ArrayList<Span>();
        for (var node : children(parent)) {
            switch (node) {
                case Text text -> spans.add(new Span(text.getLiteral(), strong));
                case Code code -> spans.add(new Span(code.getLiteral(), strong));
                case SoftLineBreak line -> spans.add(new Span(" ", strong));
                case StrongEmphasis more -> spans.addAll(spans(more, true));
                case Emphasis more -> spans.addAll(spans(more, true));
                default -> spans.addAll(spans(node, strong));
            }
        }
        return spans;
    }

    private static String plain(Node node) {
        return spans(node, false).stream().map(Span::text).collect(Collectors.joining());
    }

    /** The page of a place; the first one when it has none. */
    public Page page(String id) {
        return pages.stream().filter(page -> page.id().equals(id)).findFirst().orElseGet(pages::getFirst);
    }

    /** The pages that have all of the words, those with a word in their title first; every page when there are no words. */
    public List<Hit> find(String typed) {
        var words = Arrays.stream(typed.toLowerCase(Locale.ROOT).split("\\s+"))
                .filter(word -> !word.isEmpty())
                .toList();
        return pages.stream()
                .filter(page -> words.stream().allMatch(word -> says(page, word)))
                .map(page -> new Hit(page, first(page, words)))
                .sorted((one, other) -> Boolean.compare(inTitle(other.page(), words), inTitle(one.page(), words)))
                .toList();
    }

    private static boolean inTitle(Page page, List<String> words) {
        var title = page.title().toLowerCase(Locale.ROOT);
        return words.stream().anyMatch(title::contains);
    }

    private static boolean says(Page page, String word) {
        return inTitle(page, List.of(word))
                || page.blocks().stream()
                        .anyMatch(
                                block -> block.plain().toLowerCase(Locale.ROOT).contains(word));
    }

    private static String first(Page page, List<String> words) {
        return page.blocks().stream()
                .map(Block::plain)
                .filter(plain -> words.stream()
                        .anyMatch(word -> plain.toLowerCase(Locale.ROOT).contains(word)))
                .findFirst()
                .orElse("");
    }
}
