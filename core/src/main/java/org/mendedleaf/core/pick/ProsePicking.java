package org.mendedleaf.core.pick;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.BlockChange;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.ProseChanges;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.document.Sources;
import org.mendedleaf.core.pick.Elements.Element;
import org.mendedleaf.core.words.Words;

/** Takes changes of texts back by paragraph and by row of a table, in the elements in which they are written. */
final class ProsePicking {

    /** What may stand in a paragraph that is put in place of another, or taken out. */
    private static final Set<String> SIMPLE = Set.of(
            "span",
            "s",
            "tab",
            "line-break",
            "a",
            "soft-page-break",
            "bookmark",
            "bookmark-start",
            "bookmark-end",
            "r",
            "t",
            "br",
            "cr",
            "noBreakHyphen",
            "proofErr",
            "bookmarkStart",
            "bookmarkEnd",
            "lastRenderedPageBreak",
            "p",
            "h",
            "table-cell",
            "covered-table-cell",
            "tc",
            "list",
            "list-item");

    /** What says how something looks, with all that stands in it. */
    private static final Set<String> LOOK = Set.of("rPr", "pPr", "tcPr", "trPr", "tblPrEx");

    private final List<Element> elementsBefore = new ArrayList<>();
    private final List<Element> elementsAfter = new ArrayList<>();
    private final Set<Integer> numbers;
    private final UnaryOperator<String> restyled;
    private final Elements.Splices splices = new Elements.Splices();
    private final List<Block> meant = new ArrayList<>();

    /** The first element that goes. */
    private @Nullable Element gone;

    /** Where the last paragraph came back, whether among the items of a list, and whether it stands just before this one. */
    private int broughtAt;

    private boolean broughtInList;
    private boolean afterBrought;

    private ProsePicking(
            Sources before,
            Sources after,
            Elements earlier,
            Elements later,
            Set<Integer> numbers,
            UnaryOperator<String> restyled) {
        this.numbers = numbers;
        this.restyled = restyled;
        before.elements()
                .forEach(e -> elementsBefore.add(e < 0 ? null : earlier.all().get(e)));
        after.elements()
                .forEach(e -> elementsAfter.add(e < 0 ? null : later.all().get(e)));
    }

    /** Why a change cannot be taken back whatever the file is. */
    static Optional<String> refusal(ProseChanges changes, Change change) {
        for (BlockChange block : changes.sections().stream()
                .flatMap(s -> s.blocks().stream())
                .filter(b -> b.change() == change.number())
                .toList()) {
            if (block.block().style() == Style.PICTURE) {
                return Optional.of(Words.of("pick.picture"));
            }
            if (block.block().style() == Style.NOTE) {
                return Optional.of(Words.of("pick.isNote"));
            }
        }
        return Optional.empty();
    }

    static Office.Made back(byte[] before, byte[] after, ProseChanges changes, Set<Integer> numbers)
            throws IOException {
        Sources was = Documents.sources(before);
        Sources is = Documents.sources(after);
        if (!was.part().equals(is.part())) {
            throw new Picking.Refused(Words.of("pick.format"));
        }
        try (PartsEdit from = new PartsEdit(before);
                PartsEdit to = new PartsEdit(after)) {
            Elements earlier = Elements.of(from.text(was.part()));
            Elements later = Elements.of(to.text(is.part()));
            boolean open = Office.isOpenDocument(to);
            OdfStyles styles = open ? new OdfStyles(earlier, later) : null;
            for (Elements xml : List.of(earlier, later)) {
                Office.standard(
                        xml,
                        open
                                ? "xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
                                : "xmlns:w=\"http://schemas.openxmlformats.org/wordprocessingml/2006/main\"");
            }
            ProsePicking picking = new ProsePicking(
                    was, is, earlier, later, numbers, styles == null ? UnaryOperator.identity() : styles::restyled);
            picking.write(changes);
            if (styles != null) {
                styles.put(picking.splices);
            }
            to.put(is.part(), picking.splices.apply(later.text()));
            List<Block> meant = picking.meant;
            return new Office.Made(
                    to.made(),
                    Office.also(to),
                    d -> d instanceof Document.Prose prose
                            && prose.sections().size() == 1
                            && same(prose.sections().get(0).blocks(), meant));
        }
    }

    private static boolean same(List<Block> made, List<Block> meant) {
        return made.stream()
                .map(b -> b.style() + b.text() + b.ref())
                .toList()
                .equals(meant.stream().map(b -> b.style() + b.text() + b.ref()).toList());
    }

    /**
     * A block of what comes of it.
     *
     * @param before its place among the earlier blocks; -1 when it has none
     * @param after its place among the later blocks; -1 when it has none there, or not in this place
     * @param source the element that comes here from elsewhere; null when it stays where it is
     */
    private record Out(
            Block block, int before, int after, @Nullable Element source) {}

    private void write(ProseChanges changes) {
        List<Out> out = new ArrayList<>();
        List<Out> moved = new ArrayList<>();
        for (BlockChange change : changes.sections().get(0).blocks()) {
            boolean back = change.change() > 0 && numbers.contains(change.change());
            int i = change.before();
            int j = change.after();
            if (!back) {
                if (j >= 0) {
                    out.add(new Out(change.block(), change.mark() == Mark.MOVED ? -1 : i, j, null));
                }
                continue;
            }
            switch (change.mark()) {
                case ADDED -> remove(elementsAfter.get(j));
                case REMOVED -> out.add(new Out(block(change.from()), i, -1, source(elementsBefore.get(i))));
                case MOVED -> {
                    remove(elementsAfter.get(j));
                    moved.add(new Out(change.block(), i, -1, source(elementsAfter.get(j))));
                }
                default -> {
                    replace(elementsBefore.get(i), elementsAfter.get(j), change);
                    out.add(new Out(block(change.from()), i, j, null));
                }
            }
        }
        for (Out m : moved) {
            int at = 0;
            for (int k = 0; k < out.size(); k++) {
                at = out.get(k).before() >= 0 && out.get(k).before() < m.before() ? k + 1 : at;
            }
            out.add(at, m);
        }
        insert(out);
        out.forEach(o -> meant.add(o.block()));
    }

    private static Block block(@Nullable Block block) {
        return java.util.Objects.requireNonNull(block);
    }

    private static Element source(@Nullable Element element) {
        if (element == null) {
            throw new Picking.Refused(Words.of("pick.special"));
        }
        simple(element);
        return element;
    }

    private static void simple(Element element) {
        boolean look = false;
        for (Element e : element.within()) {
            look = LOOK.contains(e.local())
                    || e.parent().isPresent() && e.parent().get() != element && inLook(e, element);
            boolean bad = look ? e.is("sectPr") || e.is("pPrChange") || e.is("rPrChange") : !SIMPLE.contains(e.local());
            if (bad) {
                throw new Picking.Refused(Words.of("pick.special"));
            }
        }
    }

    private static boolean inLook(Element e, Element top) {
        for (Element at = e; at != top; at = at.parent().orElse(top)) {
            if (LOOK.contains(at.local())) {
                return true;
            }
        }
        return false;
    }

    /** Puts what stood in an earlier paragraph in place of a later one. */
    private void replace(@Nullable Element before, @Nullable Element after, BlockChange change) {
        Element was = source(before);
        Element is = source(after);
        boolean sameStyle = block(change.from()).style() == block(change.to()).style()
                && block(change.from()).level() == block(change.to()).level()
                && was.qualified().equals(is.qualified());
        boolean row = block(change.to()).style() == Style.ROW;
        if (row || !sameStyle) {
            splices.put(is.start(), is.end(), restyled.apply(was.whole()));
            return;
        }
        Optional<Element> look = is.children("pPr").stream().findFirst();
        Optional<Element> looked = was.children("pPr").stream().findFirst();
        String content = was.content();
        if (looked.isPresent()) {
            content = content.substring(0, looked.get().start() - was.inner())
                    + content.substring(looked.get().end() - was.inner());
        }
        splices.put(
                is.start(), is.end(), is.with(is.tag(), look.map(Element::whole).orElse("") + restyled.apply(content)));
    }

    private void remove(@Nullable Element element) {
        Element outer = outer(source(element));
        gone = gone == null ? outer : gone;
        splices.put(outer.start(), outer.end(), "");
    }

    /** The item, list or table that holds nothing but this, or itself. */
    private static Element outer(Element element) {
        Element e = element;
        while (e.parent().isPresent()) {
            Element parent = e.parent().get();
            Element self = e;
            boolean holder = parent.is("list-item") || parent.is("list") || parent.is("table") || parent.is("tbl");
            boolean alone = parent.children().stream()
                    .filter(c -> c != self)
                    .allMatch(c -> c.is("table-column") || c.is("tblPr") || c.is("tblGrid"));
            if (!holder || !alone) {
                break;
            }
            e = parent;
        }
        return e;
    }

    /** Puts what comes back behind the block that stands before it. */
    private void insert(List<Out> out) {
        for (int k = 0; k < out.size(); k++) {
            Element source = out.get(k).source();
            if (source == null) {
                continue;
            }
            boolean row = out.get(k).block().style() == Style.ROW;
            afterBrought = k > 0
                    && out.get(k - 1).source() != null
                    && out.get(k - 1).block().style() != Style.ROW;
            Element behind = neighbour(out, k, -1);
            Element ahead = neighbour(out, k, 1);
            if (row) {
                row(source, behind, ahead);
            } else {
                paragraph(source, behind, ahead, behind != null || itemsFollow(out, k));
            }
        }
    }

    private @Nullable Element neighbour(List<Out> out, int from, int step) {
        for (int k = from + step; k >= 0 && k < out.size(); k += step) {
            Out o = out.get(k);
            if (o.source() == null && o.after() >= 0 && elementsAfter.get(o.after()) != null) {
                return elementsAfter.get(o.after());
            }
        }
        return null;
    }

    private static boolean isRow(@Nullable Element e) {
        return e != null && (e.is("table-row") || e.is("tr"));
    }

    private void row(Element source, @Nullable Element behind, @Nullable Element ahead) {
        Element table = java.util.Objects.requireNonNull(source.parent().orElse(null));
        int columns = cells(source);
        boolean after = isRow(behind) && cells(java.util.Objects.requireNonNull(behind)) == columns;
        boolean before = isRow(ahead) && cells(java.util.Objects.requireNonNull(ahead)) == columns;
        if (after) {
            int at = java.util.Objects.requireNonNull(behind).end();
            splices.put(at, at, restyled.apply(source.whole()));
        } else if (before) {
            int at = java.util.Objects.requireNonNull(ahead).start();
            splices.put(at, at, restyled.apply(source.whole()));
        } else {
            throw new Picking.Refused(Words.of("pick.noTable", table.get("name").orElse("")));
        }
    }

    private static int cells(Element row) {
        return (int) row.children().stream()
                .filter(c -> c.is("table-cell") || c.is("covered-table-cell") || c.is("tc"))
                .count();
    }

    /** Whether only items come back between this block and the next one that is there already. */
    private static boolean itemsFollow(List<Out> out, int from) {
        for (int k = from; k < out.size() && out.get(k).source() != null; k++) {
            if (out.get(k).block().style() != Style.ITEM) {
                return false;
            }
        }
        return true;
    }

    private void paragraph(Element source, @Nullable Element behind, @Nullable Element ahead, boolean mayJoinList) {
        boolean item = source.around("list-item").isPresent();
        String text = restyled.apply(source.whole());
        if (afterBrought && item && !broughtInList) {
            // The paragraph before it came back behind a list, and so does this one.
            splices.put(broughtAt, broughtAt, list(source, text));
            return;
        }
        Element near = behind != null ? behind : ahead;
        if (near == null && gone != null) {
            // Nothing stays of what is there now.
            brought(gone.start(), false, item ? list(source, text) : text);
            return;
        }
        if (near == null) {
            throw new Picking.Refused(Words.of("pick.special"));
        }
        Element place = near;
        if (isRow(near)) {
            place = near.around(near.is("tr") ? "tbl" : "table").orElse(near);
        }
        Optional<Element> nearItem = near.around("list-item");
        boolean inList = item && nearItem.isPresent() && mayJoinList;
        if (nearItem.isPresent()) {
            place = inList ? nearItem.get() : outermostList(near);
        }
        int at = behind != null ? place.end() : place.start();
        brought(
                at,
                inList,
                inList ? "<text:list-item>" + text + "</text:list-item>" : item ? list(source, text) : text);
    }

    private void brought(int at, boolean inList, String text) {
        broughtAt = at;
        broughtInList = inList;
        splices.put(at, at, text);
    }

    private String list(Element source, String text) {
        String tag = source.around("list").map(Element::tag).orElse("<text:list>");
        return restyled.apply(tag) + "<text:list-item>" + text + "</text:list-item></text:list>";
    }

    private static Element outermostList(Element element) {
        Element list = element;
        for (Optional<Element> e = Optional.of(element);
                e.isPresent();
                e = e.get().around("list")) {
            list = e.get();
        }
        return list;
    }
}
