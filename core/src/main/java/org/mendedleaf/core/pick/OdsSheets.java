package org.mendedleaf.core.pick;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.pick.Elements.Element;
import org.mendedleaf.core.words.Words;

/** Rows and cells of an OpenDocument sheet (ISO/IEC 26300-1, 9.1), of which one element can stand for many. */
final class OdsSheets implements SheetFormat {

    private static final String PART = "content.xml";

    /** What says in other places of the document where rows are. */
    private static final Set<String> BOUND = Set.of(
            "named-range",
            "named-expression",
            "database-range",
            "content-validation",
            "conditional-format",
            "sparkline",
            "frame",
            "shapes",
            "data-pilot-table",
            "scenario",
            "cell-range-source",
            "label-range",
            "detective",
            "custom-shape",
            "control");

    private static final List<String> VALUES = List.of(
            "office:value-type",
            "office:value",
            "office:date-value",
            "office:time-value",
            "office:boolean-value",
            "office:string-value",
            "office:currency",
            "calcext:value-type",
            "table:formula");

    private final PartsEdit parts;
    private final Elements earlier;
    private final Elements later;
    private final OdfStyles styles;
    private final boolean calcext;

    OdsSheets(PartsEdit before, PartsEdit after) throws IOException {
        parts = after;
        earlier = Elements.of(before.text(PART));
        later = Elements.of(after.text(PART));
        for (Elements xml : List.of(earlier, later)) {
            Office.standard(
                    xml,
                    "xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\"",
                    "xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\"",
                    "xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"");
        }
        styles = new OdfStyles(earlier, later);
        calcext = later.root().tag().contains("xmlns:calcext=");
    }

    /** An element that stands for as many rows or cells as it says, with the number of the first. */
    private record Run(Element element, int first, int count) {
        boolean has(int number) {
            return number >= first && number < first + count;
        }
    }

    private static Map<String, Element> tables(Elements xml) {
        Map<String, Element> tables = new HashMap<>();
        for (Element e : xml.all()) {
            if (e.is("table") && e.parent().filter(p -> p.is("spreadsheet")).isPresent()) {
                tables.putIfAbsent(e.get("name").orElse(""), e);
            }
        }
        return tables;
    }

    private static Element required(Map<String, Element> tables, String name) {
        return java.util.Objects.requireNonNull(tables.get(name), name);
    }

    private static List<Run> rows(Element table) {
        List<Run> rows = new ArrayList<>();
        int at = 0;
        for (Element e : table.within()) {
            boolean own = e.is("table-row")
                    && e.around("table").filter(t -> t == table).isPresent();
            if (own) {
                int count = Math.max(1, e.number("number-rows-repeated", 1));
                rows.add(new Run(e, at, count));
                at += count;
            }
        }
        return rows;
    }

    private static List<Run> cells(Element row) {
        List<Run> cells = new ArrayList<>();
        int at = 0;
        for (Element e : row.children()) {
            if (e.is("table-cell") || e.is("covered-table-cell")) {
                int count = Math.max(1, e.number("number-columns-repeated", 1));
                cells.add(new Run(e, at, count));
                at += count;
            }
        }
        return cells;
    }

    private static Optional<Element> find(List<Run> runs, int number) {
        return runs.stream().filter(r -> r.has(number)).map(Run::element).findFirst();
    }

    private static String times(String tag, String attribute, int count) {
        return Elements.set(tag, attribute, count > 1 ? Integer.toString(count) : null);
    }

    @Override
    public void write(SheetPlan.All plans) throws IOException {
        if (plans.isShifted()) {
            boolean bound = later.all().stream().anyMatch(e -> BOUND.contains(e.local()))
                    || tables(later).values().stream()
                            .anyMatch(t -> t.get("print-ranges").isPresent());
            if (bound) {
                throw new Picking.Refused(Words.of("pick.bound"));
            }
        }
        Elements.Splices splices = new Elements.Splices();
        Map<String, Element> was = tables(earlier);
        Map<String, Element> is = tables(later);
        plans.plans().forEach((name, plan) -> {
            if (plan.isTouched() || plans.isShifted()) {
                Element before = required(was, plan.before().name());
                new Table(name, plan, plans, rows(before), rows(required(is, name))).write(splices);
            }
        });
        styles.put(splices);
        parts.put(PART, splices.apply(later.text()));
    }

    /** One sheet that is written anew, as far as anything in it changes. */
    private final class Table {
        private final String name;
        private final SheetPlan plan;
        private final SheetPlan.All plans;
        private final List<Run> before;
        private final List<Run> after;

        Table(String name, SheetPlan plan, SheetPlan.All plans, List<Run> before, List<Run> after) {
            this.name = name;
            this.plan = plan;
            this.plans = plans;
            this.before = before;
            this.after = after;
        }

        void write(Elements.Splices splices) {
            List<SheetPlan.Out> rows = plan.rows();
            int at = 0;
            int lastEnd = after.isEmpty() ? -1 : after.get(0).element().start();
            int known = plan.after().rows().size();
            for (Run run : after) {
                int end = Math.min(run.first() + run.count(), known);
                if (run.first() >= known) {
                    break;
                }
                StringBuilder made = new StringBuilder();
                // Whatever does not belong to a later row of its own goes where the row before it is.
                while (at < rows.size() && !isOwnOfLater(rows.get(at), end)) {
                    at = emit(rows, at, run, made);
                }
                if (run.first() + run.count() > known) {
                    made.append(whole(run, run.first() + run.count() - known));
                }
                if (!made.toString().equals(run.element().whole())) {
                    splices.put(run.element().start(), run.element().end(), made.toString());
                }
                lastEnd = run.element().end();
            }
            StringBuilder rest = new StringBuilder();
            for (; at < rows.size(); at++) {
                rest.append(one(rows.get(at)));
            }
            if (!rest.isEmpty() && lastEnd >= 0) {
                splices.put(lastEnd, lastEnd, rest.toString());
            }
        }

        /** Whether a row stands in its own place in an element after this one. */
        private static boolean isOwnOfLater(SheetPlan.Out row, int end) {
            return !row.earlier() && !row.moved() && row.row() >= end;
        }

        private int emit(List<SheetPlan.Out> rows, int at, Run run, StringBuilder made) {
            SheetPlan.Out row = rows.get(at);
            if (!isPlain(row, run)) {
                made.append(one(row));
                return at + 1;
            }
            int end = at + 1;
            while (end < rows.size() && isPlain(rows.get(end), run)) {
                end++;
            }
            made.append(kept(run, row.row(), end - at));
            return end;
        }

        private static boolean isPlain(SheetPlan.Out row, Run run) {
            return !row.earlier() && !row.moved() && row.cells().isEmpty() && run.has(row.row());
        }

        private String whole(Run run, int count) {
            return run.element()
                    .with(
                            times(run.element().tag(), "table:number-rows-repeated", count),
                            run.element().content());
        }

        /** Rows that stay, of which formulas may name other rows than before. */
        private String kept(Run run, int row, int count) {
            Element e = run.element();
            if (plans.isShifted() && e.content().contains("table:formula")) {
                return row(e, row, count, Map.of());
            }
            return count == run.count() ? e.whole() : whole(run, count);
        }

        private String one(SheetPlan.Out out) {
            if (out.earlier()) {
                return find(before, out.row()).map(this::brought).orElse("<table:table-row/>");
            }
            Element row = find(after, out.row()).orElseThrow();
            List<Run> was = out.cells().isEmpty()
                    ? List.of()
                    : find(before, out.from()).map(OdsSheets::cells).orElse(List.of());
            Map<Integer, String> cells = new HashMap<>();
            List<Run> is = cells(row);
            out.cells().forEach((to, from) -> cells.put(to, cell(find(is, to), find(was, from))));
            return row(row, out.row(), 1, cells);
        }

        /** A row of the earlier sheet. */
        private String brought(Element row) {
            StringBuilder content = new StringBuilder();
            for (Element c : row.children()) {
                special(c);
                String tag = c.tag();
                Optional<String> formula = c.get("formula");
                if (formula.isPresent()) {
                    tag = Elements.set(tag, "table:formula", plans.fromBefore(name, formula.get()));
                }
                content.append(c.with(ours(tag), c.content()));
            }
            return styles.restyled(row.with(times(row.tag(), "table:number-rows-repeated", 1), content.toString()));
        }

        private String ours(String tag) {
            return calcext ? tag : Elements.set(tag, "calcext:value-type", null);
        }

        private void special(Element cell) {
            if (cell.get("number-matrix-rows-spanned").isPresent()) {
                throw new Picking.Refused(Words.of("pick.array"));
            }
            for (Element e : cell.within()) {
                if (e.is("frame") || e.is("table") || e.is("detective") || e.is("annotation")) {
                    throw new Picking.Refused(Words.of("pick.special"));
                }
            }
        }

        /** A row of the later sheet with these cells, so many times. */
        private String row(Element row, int number, int count, Map<Integer, String> put) {
            StringBuilder content = new StringBuilder();
            int at = 0;
            for (Run run : cells(row)) {
                int end = run.first() + run.count();
                int left = 0;
                for (int c = run.first(); c < end; c++) {
                    String fresh = put.get(c);
                    if (fresh == null) {
                        left++;
                        continue;
                    }
                    content.append(same(run.element(), left, number, run.first()))
                            .append(fresh);
                    left = 0;
                }
                content.append(same(run.element(), left, number, run.first()));
                at = end;
            }
            List<Integer> beyond = put.keySet().stream().sorted().toList();
            for (int c : beyond) {
                if (c >= at) {
                    content.append(times("<table:table-cell/>", "table:number-columns-repeated", c - at)
                            .repeat(c > at ? 1 : 0));
                    content.append(put.get(c));
                    at = c + 1;
                }
            }
            return row.with(times(row.tag(), "table:number-rows-repeated", count), content.toString());
        }

        private String same(Element cell, int count, int row, int column) {
            if (count == 0) {
                return "";
            }
            String tag = cell.tag();
            Optional<String> formula = cell.get("formula");
            if (formula.isPresent() && plans.isShifted()) {
                if (cell.get("number-matrix-rows-spanned").isPresent()) {
                    throw new Picking.Refused(Words.of("pick.array"));
                }
                tag = Elements.set(tag, "table:formula", plans.fromAfter(name, row, column, formula.get()));
            }
            tag = times(tag, "table:number-columns-repeated", count);
            return tag.equals(cell.tag()) ? cell.whole() : cell.with(tag, cell.content());
        }

        /** The later cell with what stood in the earlier one. */
        private String cell(Optional<Element> now, Optional<Element> then) {
            now.ifPresent(this::replaceable);
            then.ifPresent(this::special);
            String tag = now.map(Element::tag).orElse("<table:table-cell/>");
            tag = times(tag, "table:number-columns-repeated", 1);
            boolean sameType = now.flatMap(n -> n.get("value-type")).equals(then.flatMap(t -> t.get("value-type")));
            for (String attribute : VALUES) {
                tag = Elements.set(tag, attribute, null);
            }
            StringBuilder content = new StringBuilder();
            if (now.isPresent()) {
                now.get().children("annotation").forEach(a -> content.append(a.whole()));
            }
            if (then.isPresent()) {
                for (String attribute : VALUES) {
                    String value = then.get().tag().contains(attribute + "=") ? value(then.get(), attribute) : null;
                    if (value != null && (calcext || !attribute.startsWith("calcext"))) {
                        boolean formula = attribute.equals("table:formula");
                        tag = Elements.set(tag, attribute, formula ? plans.fromBefore(name, value) : value);
                    }
                }
                if (!sameType && then.get().get("style-name").isPresent()) {
                    String style =
                            "table:style-name=\"" + then.get().get("style-name").orElseThrow() + "\"";
                    String mapped = styles.restyled(style);
                    String own = mapped.substring(mapped.indexOf('"') + 1, mapped.length() - 1);
                    tag = Elements.set(tag, "table:style-name", own.isEmpty() ? null : own);
                }
                then.get().children("p").forEach(p -> content.append(styles.restyled(p.whole())));
            }
            Element like = now.or(() -> then).orElseThrow();
            return like.is("covered-table-cell") || now.isEmpty()
                    ? closed(tag, content.toString())
                    : like.with(tag, content.toString());
        }

        private static String closed(String tag, String content) {
            String open = tag.endsWith("/>") ? tag.substring(0, tag.length() - 2) : tag.substring(0, tag.length() - 1);
            return content.isEmpty() ? open + "/>" : open + ">" + content + "</table:table-cell>";
        }

        private void replaceable(Element cell) {
            boolean covered = cell.is("covered-table-cell")
                    || cell.get("number-matrix-rows-spanned").isPresent();
            boolean more = cell.children().stream().anyMatch(c -> !c.is("p") && !c.is("annotation"));
            if (covered || more) {
                throw new Picking.Refused(Words.of(covered ? "pick.array" : "pick.special"));
            }
        }
    }

    private static @org.jspecify.annotations.Nullable String value(Element cell, String qualified) {
        var m = java.util.regex.Pattern.compile("\\s" + qualified + "=(\"[^\"]*\"|'[^']*')")
                .matcher(cell.tag());
        return m.find() ? Elements.plain(m.group(1).substring(1, m.group(1).length() - 1)) : null;
    }

    @Override
    public void results(Map<Place, Cell> results) throws IOException {
        Elements xml = Elements.of(parts.text(PART));
        Map<String, Element> tables = tables(xml);
        Elements.Splices splices = new Elements.Splices();
        Map<String, List<Run>> rows = new HashMap<>();
        results.forEach((place, result) -> {
            Element table = required(tables, place.sheet());
            List<Run> runs = rows.computeIfAbsent(place.sheet(), s -> rows(table));
            Element row = find(runs, place.row()).orElseThrow();
            Element cell = find(cells(row), place.column()).orElseThrow();
            boolean alone =
                    row.number("number-rows-repeated", 1) == 1 && cell.number("number-columns-repeated", 1) == 1;
            if (!alone) {
                throw new IllegalArgumentException("a result that stands for several cells");
            }
            String tag =
                    result.value().isEmpty() ? cell.tag() : Elements.set(cell.tag(), "office:value", result.value());
            String style = cell.children("p").stream()
                    .findFirst()
                    .map(Element::tag)
                    .map(t -> t.endsWith("/>") ? t.substring(0, t.length() - 2) + ">" : t)
                    .orElse("<text:p>");
            String others = String.join(
                    "",
                    cell.children().stream()
                            .filter(c -> !c.is("p"))
                            .map(Element::whole)
                            .toList());
            splices.put(
                    cell.start(),
                    cell.end(),
                    cell.with(tag, others + style + Elements.escaped(result.shown()) + "</text:p>"));
        });
        parts.put(PART, splices.apply(xml.text()));
    }
}
