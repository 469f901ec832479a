package org.mendedleaf.core.pick;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.Formulas;
import org.mendedleaf.core.pick.Elements.Element;
import org.mendedleaf.core.words.Words;

/** Rows and cells of an Office Open XML workbook (ISO/IEC 29500-1, 18.3), each of which says where it stands. */
final class XlsxSheets implements SheetFormat {

    private static final String BOOK = "xl/workbook.xml";
    private static final String STRINGS = "xl/sharedStrings.xml";
    private static final String STYLES = "xl/styles.xml";
    private static final String CHAIN = "xl/calcChain.xml";

    /** What says in other parts of the workbook where rows are. */
    private static final Set<String> BOUND = Set.of("drawing", "legacyDrawing", "tableParts", "extLst", "controls");

    private final PartsEdit before;
    private final PartsEdit after;
    private final Map<String, String> partsBefore;
    private final Map<String, String> partsAfter;
    private final List<String> strings = new ArrayList<>();
    private final boolean sameStyles;

    /**
     * A workbook and the one before it.
     *
     * @param partsBefore the parts of its sheets by their names
     */
    XlsxSheets(PartsEdit before, PartsEdit after, Map<String, String> partsBefore, Map<String, String> partsAfter)
            throws IOException {
        this.before = before;
        this.after = after;
        this.partsBefore = partsBefore;
        this.partsAfter = partsAfter;
        if (before.has(STRINGS)) {
            Elements.of(before.text(STRINGS)).root().children("si").forEach(s -> strings.add(s.content()));
        }
        sameStyles = Arrays.equals(
                before.bytes(STYLES).orElse(new byte[0]), after.bytes(STYLES).orElse(new byte[0]));
    }

    private static <K, V> V required(Map<K, V> map, K key) {
        return Objects.requireNonNull(map.get(key), String.valueOf(key));
    }

    private static Elements elements(PartsEdit parts, String part) throws IOException {
        Elements xml = Elements.of(parts.text(part));
        if (!xml.root().qualified().equals("worksheet")) {
            throw new IOException("a sheet with a prefix");
        }
        return xml;
    }

    @Override
    public void write(SheetPlan.All plans) throws IOException {
        boolean others = after.hasAny("xl/charts/") || after.hasAny("xl/pivotCache/");
        if (plans.isShifted() && others) {
            throw new Picking.Refused(Words.of("pick.bound"));
        }
        for (Map.Entry<String, SheetPlan> e : plans.plans().entrySet()) {
            if (e.getValue().isTouched() || plans.isShifted()) {
                String part = required(partsAfter, e.getKey());
                Elements was = elements(
                        before, required(partsBefore, e.getValue().before().name()));
                after.put(part, new Part(e.getKey(), e.getValue(), plans, was, elements(after, part)).made());
            }
        }
        if (plans.isShifted()) {
            names(plans);
        }
        // It lists the cells that are computed, and is made anew by every program.
        if (after.has(CHAIN)) {
            after.remove(CHAIN);
            String rels = "xl/_rels/workbook.xml.rels";
            after.put(rels, without(after.text(rels), "Relationship", "Target", "calcChain.xml"));
            after.put("[Content_Types].xml", without(after.text("[Content_Types].xml"), "Override", "PartName", CHAIN));
        }
    }

    private static String without(String text, String element, String attribute, String ending) {
        Elements xml = Elements.of(text);
        Elements.Splices splices = new Elements.Splices();
        xml.all().stream()
                .filter(e -> e.is(element) && e.get(attribute).orElse("").endsWith(ending))
                .forEach(e -> splices.put(e.start(), e.end(), ""));
        return splices.apply(text);
    }

    /** Names that stand for cells. */
    private void names(SheetPlan.All plans) throws IOException {
        Elements book = Elements.of(after.text(BOOK));
        Elements.Splices splices = new Elements.Splices();
        for (Element e : book.all()) {
            if (e.is("definedName")) {
                String now = Elements.escaped(plans.fromAfter("", -1, -1, Elements.plain(e.content())));
                if (!Elements.plain(now).equals(Elements.plain(e.content()))) {
                    splices.put(e.inner(), e.innerEnd(), now);
                }
            }
        }
        after.put(BOOK, splices.apply(book.text()));
    }

    private static int column(Element cell, int otherwise) {
        String letters = cell.get("r").orElse("").replaceAll("\\d", "");
        int column = 0;
        for (int i = 0; i < letters.length(); i++) {
            column = column * 26 + (letters.charAt(i) - 'A' + 1);
        }
        return letters.isEmpty() ? otherwise : column - 1;
    }

    private static NavigableMap<Integer, Element> rows(Elements xml) {
        TreeMap<Integer, Element> rows = new TreeMap<>();
        for (Element data : xml.root().children("sheetData")) {
            for (Element row : data.children("row")) {
                int next = rows.isEmpty() ? 0 : rows.lastKey() + 1;
                rows.put(row.number("r", next + 1) - 1, row);
            }
        }
        return rows;
    }

    private static NavigableMap<Integer, Element> cells(Element row) {
        TreeMap<Integer, Element> cells = new TreeMap<>();
        for (Element c : row.children("c")) {
            cells.put(column(c, cells.isEmpty() ? 0 : cells.lastKey() + 1), c);
        }
        return cells;
    }

    private static Optional<Element> formula(Element cell) {
        return cell.children("f").stream().findFirst();
    }

    /** The part of one sheet. */
    private final class Part {
        private final String name;
        private final SheetPlan plan;
        private final SheetPlan.All plans;
        private final Elements xml;
        private final NavigableMap<Integer, Element> rowsBefore;
        private final NavigableMap<Integer, Element> rowsAfter;
        private final boolean shifted;
        private boolean unshare;

        Part(String name, SheetPlan plan, SheetPlan.All plans, Elements was, Elements xml) {
            this.name = name;
            this.plan = plan;
            this.plans = plans;
            this.xml = xml;
            this.rowsBefore = rows(was);
            this.rowsAfter = rows(xml);
            this.shifted = plans.isShifted();
            this.unshare = shifted;
        }

        String made() {
            Elements.Splices splices = new Elements.Splices();
            if (shifted) {
                bound();
                around(splices);
            }
            for (SheetPlan.Out out : plan.rows()) {
                out.cells().keySet().forEach(c -> replaceable(out.row(), c));
            }
            StringBuilder data = new StringBuilder();
            int at = 0;
            for (SheetPlan.Out out : plan.rows()) {
                data.append(row(out, at));
                at++;
            }
            int known = plan.after().rows().size();
            for (Map.Entry<Integer, Element> e : rowsAfter.tailMap(known, true).entrySet()) {
                data.append(row(e.getValue(), e.getKey(), e.getKey() - known + at, Map.of()));
            }
            Element all = xml.root().children("sheetData").get(0);
            splices.put(all.inner(), all.innerEnd(), data.toString());
            if (all.isClosed()) {
                throw new IllegalArgumentException("no rows");
            }
            return splices.apply(xml.text());
        }

        private void bound() {
            boolean bound = xml.root().children().stream().anyMatch(e -> BOUND.contains(e.local()));
            if (bound) {
                throw new Picking.Refused(Words.of("pick.bound"));
            }
        }

        private void replaceable(int row, int column) {
            Element there = rowsAfter.get(row);
            Element cell = there == null ? null : cells(there).get(column);
            if (cell != null) {
                formula(cell).ifPresent(f -> {
                    special(f);
                    unshare |= f.get("ref").isPresent();
                });
            }
        }

        private static void special(Element formula) {
            String type = formula.get("t").orElse("normal");
            if (type.equals("array") || type.equals("dataTable")) {
                throw new Picking.Refused(Words.of("pick.array"));
            }
        }

        /** What stands around the rows and names them. */
        private void around(Elements.Splices splices) {
            for (Element e : xml.all()) {
                if (e.is("dimension")) {
                    splices.put(e.start(), e.end(), "");
                } else if (e.is("mergeCells")) {
                    merges(e, splices);
                } else if (e.is("formula") || e.is("formula1") || e.is("formula2")) {
                    String was = Elements.plain(e.content());
                    String now = plans.fromAfter(name, -1, -1, was);
                    if (!now.equals(was)) {
                        splices.put(e.inner(), e.innerEnd(), Elements.escaped(now));
                    }
                } else if (!e.is("c") && !e.is("f") && !e.is("mergeCell")) {
                    attributes(e, splices);
                }
            }
        }

        private void attributes(Element e, Elements.Splices splices) {
            String tag = e.tag();
            for (String attribute : List.of("ref", "sqref", "activeCell", "topLeftCell")) {
                Optional<String> value = e.get(attribute);
                if (value.isPresent()) {
                    String now = String.join(
                            " ",
                            Arrays.stream(value.get().split(" "))
                                    .map(r -> Formulas.map(r, (sheet, a, b) -> plan.fromAfter(a, b)))
                                    .filter(r -> !r.contains(Formulas.LOST))
                                    .toList());
                    tag = Elements.set(tag, attribute, now.isEmpty() ? "A1" : now);
                }
            }
            if (!tag.equals(e.tag())) {
                splices.put(e.start(), e.inner(), tag);
            }
        }

        private void merges(Element merges, Elements.Splices splices) {
            List<String> left = new ArrayList<>();
            for (Element e : merges.children("mergeCell")) {
                String now = Formulas.map(e.get("ref").orElse(""), (sheet, first, last) -> plan.fromAfter(first, last));
                if (!now.contains(Formulas.LOST)) {
                    left.add("<mergeCell ref=\"" + now + "\"/>");
                }
            }
            splices.put(
                    merges.start(),
                    merges.end(),
                    left.isEmpty()
                            ? ""
                            : "<mergeCells count=\"" + left.size() + "\">" + String.join("", left) + "</mergeCells>");
        }

        private String row(SheetPlan.Out out, int at) {
            if (out.earlier()) {
                Element row = rowsBefore.get(out.row());
                return row == null ? "" : brought(row, at);
            }
            Element row = rowsAfter.get(out.row());
            Element from = out.cells().isEmpty() ? null : rowsBefore.get(out.from());
            NavigableMap<Integer, Element> was = from == null ? new TreeMap<>() : cells(from);
            NavigableMap<Integer, Element> is = row == null ? new TreeMap<>() : cells(row);
            Map<Integer, String> put = new HashMap<>();
            out.cells()
                    .forEach((to, column) -> put.put(
                            to,
                            cell(
                                    Optional.ofNullable(was.get(column)),
                                    Optional.ofNullable(is.get(to)).flatMap(c -> c.get("s")),
                                    name(to, at))));
            if (row == null) {
                return put.isEmpty() ? "" : "<row r=\"" + (at + 1) + "\">" + joined(new TreeMap<>(put)) + "</row>";
            }
            return row(row, out.row(), at, put);
        }

        private static String joined(SortedMap<Integer, String> cells) {
            return String.join("", cells.values());
        }

        private static String name(int column, int row) {
            StringBuilder name = new StringBuilder();
            for (int n = column; n >= 0; n = n / 26 - 1) {
                name.insert(0, (char) ('A' + n % 26));
            }
            return name.append(row + 1).toString();
        }

        private String row(Element row, int number, int at, Map<Integer, String> put) {
            TreeMap<Integer, String> made = new TreeMap<>();
            for (Map.Entry<Integer, Element> e : cells(row).entrySet()) {
                made.put(e.getKey(), same(e.getValue(), number, e.getKey(), at));
            }
            made.putAll(put);
            String tag = at == number && put.isEmpty()
                    ? row.tag()
                    : Elements.set(Elements.set(row.tag(), "r", Integer.toString(at + 1)), "spans", null);
            if (tag.equals(row.tag()) && put.isEmpty() && !unshare) {
                return row.whole();
            }
            return row.with(tag, joined(made));
        }

        /** A cell that stays, of which the formula may name other rows than before. */
        private String same(Element cell, int row, int column, int at) {
            Optional<Element> formula = formula(cell);
            String tag = at == row ? cell.tag() : Elements.set(cell.tag(), "r", name(column, at));
            if (formula.isEmpty() || !unshare) {
                return tag.equals(cell.tag()) ? cell.whole() : cell.with(tag, cell.content());
            }
            if (shifted) {
                special(formula.get());
            }
            Element f = formula.get();
            boolean shared = f.get("t").orElse("").equals("shared");
            if (!shared && !shifted) {
                return cell.whole();
            }
            String plain = shared
                    ? plan.after().rows().get(row).cell(column).formula().replaceFirst("^=", "")
                    : Elements.plain(f.content());
            String now = "<f>" + Elements.escaped(plans.fromAfter(name, row, column, plain)) + "</f>";
            return cell.with(tag, replaced(cell, f, now));
        }

        private static String replaced(Element cell, Element part, String now) {
            String content = cell.content();
            int from = part.start() - cell.inner();
            return content.substring(0, from) + now + content.substring(from + part.end() - part.start());
        }

        private String brought(Element row, int at) {
            TreeMap<Integer, String> made = new TreeMap<>();
            cells(row).forEach((column, cell) -> {
                formula(cell).ifPresent(Part::special);
                made.put(
                        column,
                        cell(Optional.of(cell), sameStyles ? cell.get("s") : neighbour(column), name(column, at)));
            });
            String tag = Elements.set(Elements.set(row.tag(), "r", Integer.toString(at + 1)), "spans", null);
            if (!sameStyles) {
                tag = Elements.set(Elements.set(tag, "s", null), "customFormat", null);
            }
            return row.with(tag, joined(made));
        }

        /** How cells of a column look, in the row with most likeness to any: the one in the middle. */
        private Optional<String> neighbour(int column) {
            List<String> styles = rowsAfter.values().stream()
                    .map(r -> Optional.ofNullable(cells(r).get(column)).flatMap(c -> c.get("s")))
                    .flatMap(Optional::stream)
                    .toList();
            return styles.isEmpty() ? Optional.empty() : Optional.of(styles.get(styles.size() / 2));
        }

        /** What an earlier cell says, in a cell that looks so and is called so. */
        private String cell(Optional<Element> was, Optional<String> style, String called) {
            String tag = "<c r=\"" + called + "\""
                    + style.map(s -> " s=\"" + s + "\"").orElse("");
            if (was.isEmpty()) {
                return tag + "/>";
            }
            formula(was.get()).ifPresent(Part::special);
            String value = was.get().children("v").stream()
                    .findFirst()
                    .map(Element::content)
                    .orElse("");
            String type = was.get().get("t").orElse("n");
            String formula =
                    formula(was.get()).map(f -> broughtFormula(was.get())).orElse("");
            if (type.equals("s")) {
                int number = Integer.parseInt(value.strip());
                return tag + " t=\"inlineStr\">" + formula + "<is>" + strings.get(number) + "</is></c>";
            }
            if (type.equals("inlineStr")) {
                return tag + " t=\"inlineStr\">" + was.get().content() + "</c>";
            }
            String content = formula + (value.isEmpty() ? "" : "<v>" + value + "</v>");
            return tag
                    + (type.equals("n") ? "" : " t=\"" + type + "\"")
                    + (content.isEmpty() ? "/>" : ">" + content + "</c>");
        }

        private String broughtFormula(Element was) {
            Element row = was.parent().orElseThrow();
            int number = rowsBefore.entrySet().stream()
                    .filter(e -> e.getValue() == row)
                    .findFirst()
                    .orElseThrow()
                    .getKey();
            int column = cells(row).entrySet().stream()
                    .filter(e -> e.getValue() == was)
                    .findFirst()
                    .orElseThrow()
                    .getKey();
            Sheet sheet = plan.before();
            String text = sheet.rows().get(number).cell(column).formula().replaceFirst("^=", "");
            return "<f>" + Elements.escaped(plans.fromBefore(name, text)) + "</f>";
        }
    }

    @Override
    public void results(Map<Place, Cell> results) throws IOException {
        Map<String, Map<Place, Cell>> bySheet = new HashMap<>();
        results.forEach((place, cell) ->
                bySheet.computeIfAbsent(place.sheet(), s -> new HashMap<>()).put(place, cell));
        for (Map.Entry<String, Map<Place, Cell>> e : bySheet.entrySet()) {
            String part = required(partsAfter, e.getKey());
            Elements xml = elements(after, part);
            NavigableMap<Integer, Element> rows = rows(xml);
            Elements.Splices splices = new Elements.Splices();
            e.getValue().forEach((place, result) -> {
                Element cell = required(cells(required(rows, place.row())), place.column());
                boolean number = !result.value().isEmpty();
                String tag = Elements.set(cell.tag(), "t", number ? null : "str");
                String value = "<v>" + Elements.escaped(number ? result.value() : result.shown()) + "</v>";
                String formula = formula(cell).map(Element::whole).orElse("");
                splices.put(cell.start(), cell.end(), cell.with(tag, formula + value));
            });
            after.put(part, splices.apply(xml.text()));
        }
    }
}
