package org.mendedleaf.core.pick;

import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.ss.SpreadsheetVersion;
import org.apache.poi.ss.usermodel.CellValue;
import org.apache.poi.ss.usermodel.FormulaEvaluator;
import org.apache.poi.ss.usermodel.Workbook;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.Formulas;

/** What the formulas of a workbook give, computed by Apache POI from the values that stand in it. */
final class Results {

    /** Larger workbooks are not computed. */
    private static final int CELLS_MOST = 200_000;

    /** What changes by itself is nobody's change. */
    private static final Pattern VOLATILE = Pattern.compile("\\b(TODAY|NOW|RAND|RANDBETWEEN|OFFSET|INDIRECT)\\(");

    private static final Pattern NUMBER = Pattern.compile("-?[\\d,.\\s\u00a0\u202f']*\\d");

    private final Map<SheetFormat.Place, Result> results = new HashMap<>();

    /** A number, a text, or nothing that is known. */
    record Result(double number, String text) {
        /** Whether a cell says this already. */
        boolean isShownIn(Cell cell) {
            if (!text.isEmpty()) {
                return cell.shown().equals(text);
            }
            try {
                double there = Double.parseDouble(cell.value());
                return Math.abs(there - number) <= 1e-9 * Math.max(1, Math.max(Math.abs(there), Math.abs(number)));
            } catch (NumberFormatException e) {
                return false;
            }
        }

        /** A cell as it is when it says this. */
        Cell in(Cell cell) {
            if (!text.isEmpty()) {
                return new Cell(text, "", cell.formula());
            }
            String value = number == Math.rint(number) && Math.abs(number) < 1e15
                    ? Long.toString((long) number)
                    : Double.toString(number);
            return new Cell(likeness(cell), value, cell.formula());
        }

        /** The number in the manner of the one that is shown: as many decimals, the same signs around it. */
        private String likeness(Cell cell) {
            Matcher m = NUMBER.matcher(cell.shown());
            if (!m.find()) {
                return Double.toString(number).replaceFirst("\\.0$", "");
            }
            String shown = m.group();
            int point = Math.max(shown.lastIndexOf('.'), shown.lastIndexOf(','));
            String after = point < 0 ? "" : shown.substring(point + 1);
            boolean groups = point >= 0 && after.length() == 3 && !cell.value().contains(".");
            int decimals = point < 0 || groups ? 0 : after.length();
            boolean grouped =
                    shown.replaceAll("[\\d.-]", "").length() > (decimals > 0 && shown.charAt(point) == ',' ? 1 : 0)
                            || groups;
            DecimalFormatSymbols symbols = new DecimalFormatSymbols(Locale.ROOT);
            if (decimals > 0 && shown.charAt(point) == ',') {
                symbols.setDecimalSeparator(',');
                symbols.setGroupingSeparator('.');
            }
            DecimalFormat format = new DecimalFormat(
                    (grouped ? "#,##0" : "0") + (decimals > 0 ? "." + "0".repeat(decimals) : ""), symbols);
            boolean percent = cell.shown().contains("%");
            String made = format.format(percent ? number * 100 : number);
            return cell.shown().substring(0, m.start()) + made + cell.shown().substring(m.end());
        }
    }

    static final Result UNKNOWN = new Result(Double.NaN, "");

    private Results() {}

    Result at(SheetFormat.Place place) {
        return results.getOrDefault(place, UNKNOWN);
    }

    static Results of(Document.Sheets sheets) {
        Results results = new Results();
        int cells = sheets.sheets().stream()
                .flatMap(s -> s.rows().stream())
                .mapToInt(r -> r.cells().size())
                .sum();
        boolean fits = sheets.sheets().stream()
                .allMatch(s -> s.rows().size() <= SpreadsheetVersion.EXCEL97.getMaxRows()
                        && s.width() <= SpreadsheetVersion.EXCEL97.getMaxColumns());
        if (cells > CELLS_MOST || !fits) {
            return results;
        }
        try (Workbook book = new HSSFWorkbook()) {
            for (Sheet sheet : sheets.sheets()) {
                fill(book.createSheet(sheet.name()), sheet);
            }
            FormulaEvaluator evaluator = book.getCreationHelper().createFormulaEvaluator();
            for (Sheet sheet : sheets.sheets()) {
                results.evaluate(book.getSheet(sheet.name()), sheet, evaluator);
            }
        } catch (java.io.IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(Results.class).debug("a workbook that cannot be computed", e);
            results.results.clear();
        }
        return results;
    }

    private static void fill(org.apache.poi.ss.usermodel.Sheet to, Sheet sheet) {
        for (int r = 0; r < sheet.rows().size(); r++) {
            List<Cell> cells = sheet.rows().get(r).cells();
            org.apache.poi.ss.usermodel.Row row = to.createRow(r);
            for (int c = 0; c < cells.size(); c++) {
                Cell cell = cells.get(c);
                if (!cell.formula().isEmpty()) {
                    formula(row.createCell(c), cell.formula());
                } else if (!cell.value().isEmpty()) {
                    row.createCell(c).setCellValue(Double.parseDouble(cell.value()));
                } else if (!cell.shown().isEmpty()) {
                    row.createCell(c).setCellValue(cell.shown());
                }
            }
        }
    }

    private static void formula(org.apache.poi.ss.usermodel.Cell cell, String formula) {
        try {
            cell.setCellFormula(Formulas.plain(formula));
        } catch (RuntimeException e) {
            // What cannot be understood gives an error, and so does what names it.
            org.slf4j.LoggerFactory.getLogger(Results.class).debug("{}", formula, e);
            cell.setCellErrorValue(org.apache.poi.ss.usermodel.FormulaError.NAME.getCode());
        }
    }

    private void evaluate(org.apache.poi.ss.usermodel.Sheet in, Sheet sheet, FormulaEvaluator evaluator) {
        for (int r = 0; r < sheet.rows().size(); r++) {
            List<Cell> cells = sheet.rows().get(r).cells();
            for (int c = 0; c < cells.size(); c++) {
                String formula = cells.get(c).formula();
                if (formula.isEmpty() || VOLATILE.matcher(formula).find()) {
                    continue;
                }
                Result result = result(in.getRow(r).getCell(c), evaluator);
                results.put(new SheetFormat.Place(sheet.name(), r, c), result);
            }
        }
    }

    private static Result result(org.apache.poi.ss.usermodel.Cell cell, FormulaEvaluator evaluator) {
        try {
            CellValue value = evaluator.evaluate(cell);
            return switch (value.getCellType()) {
                case NUMERIC -> new Result(value.getNumberValue(), "");
                case STRING -> value.getStringValue().isEmpty() ? UNKNOWN : new Result(0, value.getStringValue());
                default -> UNKNOWN;
            };
        } catch (RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(Results.class).debug("a formula that cannot be computed", e);
            return UNKNOWN;
        }
    }
}
