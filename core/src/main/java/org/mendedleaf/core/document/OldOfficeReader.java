package org.mendedleaf.core.document;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.apache.poi.hslf.usermodel.HSLFSlideShow;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.hwpf.extractor.WordExtractor;
import org.apache.poi.poifs.filesystem.DirectoryNode;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.DataFormatter;
import org.apache.poi.ss.util.CellRangeAddress;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Merged;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.Document.Style;

/** Sheets, texts and slides of the binary office formats (MS-XLS, MS-DOC, MS-PPT), read by Apache POI. */
final class OldOfficeReader {

    private OldOfficeReader() {}

    static Document read(byte[] content, Limits limits) throws IOException {
        try (POIFSFileSystem files = new POIFSFileSystem(new ByteArrayInputStream(content))) {
            DirectoryNode root = files.getRoot();
            if (root.hasEntryCaseInsensitive("Workbook") || root.hasEntryCaseInsensitive("Book")) {
                return sheets(root, limits);
            }
            if (root.hasEntryCaseInsensitive("WordDocument")) {
                return text(root, limits);
            }
            if (root.hasEntryCaseInsensitive("PowerPoint Document")) {
                return slides(root, limits);
            }
        } catch (RuntimeException e) {
            throw new DocumentException(org.mendedleaf.core.words.Words.of("document.damaged"), e);
        }
        throw new DocumentException(org.mendedleaf.core.words.Words.of("document.noBody"));
    }

    private static Document sheets(DirectoryNode root, Limits limits) throws IOException {
        DataFormatter formatter = new DataFormatter(Locale.ROOT);
        formatter.setUseCachedValuesForFormulaCells(true);
        SheetBuilder.Budget budget = new SheetBuilder.Budget(limits);
        List<Sheet> sheets = new ArrayList<>();
        try (HSSFWorkbook book = new HSSFWorkbook(root, false)) {
            for (org.apache.poi.ss.usermodel.Sheet from : book) {
                SheetBuilder sheet = new SheetBuilder(from.getSheetName(), budget);
                for (org.apache.poi.ss.usermodel.Row row : from) {
                    sheet.goToRow(row.getRowNum());
                    for (org.apache.poi.ss.usermodel.Cell cell : row) {
                        sheet.goTo(cell.getColumnIndex());
                        sheet.cell(cell(cell, formatter), 1);
                    }
                    sheet.endRow(1);
                }
                for (CellRangeAddress range : from.getMergedRegions()) {
                    sheet.merge(new Merged(
                            range.getFirstRow(),
                            range.getFirstColumn(),
                            range.getLastRow() - range.getFirstRow() + 1,
                            range.getLastColumn() - range.getFirstColumn() + 1));
                }
                sheets.add(sheet.sheet());
            }
        }
        return new Document.Sheets(sheets, budget.isCut());
    }

    private static Cell cell(org.apache.poi.ss.usermodel.Cell cell, DataFormatter formatter) {
        boolean computed = cell.getCellType() == CellType.FORMULA;
        CellType type = computed ? cell.getCachedFormulaResultType() : cell.getCellType();
        String value = type == CellType.NUMERIC ? plain(cell.getNumericCellValue()) : "";
        String shown = formatter.formatCellValue(cell);
        String formula = computed ? "=" + cell.getCellFormula() : "";
        return shown.isEmpty() && formula.isEmpty() ? Cell.NONE : new Cell(shown, value, formula);
    }

    private static String plain(double number) {
        return number == Math.rint(number) && Math.abs(number) < 1e15
                ? Long.toString((long) number)
                : Double.toString(number);
    }

    private static Document text(DirectoryNode root, Limits limits) throws IOException {
        List<Block> blocks = new ArrayList<>();
        boolean cut = false;
        try (WordExtractor words = new WordExtractor(root)) {
            for (String paragraph : words.getParagraphText()) {
                String text = WordExtractor.stripFields(paragraph)
                        .replace('\u0007', '\t')
                        .strip();
                if (!text.isEmpty()) {
                    cut = cut || blocks.size() >= limits.rows();
                    if (!cut) {
                        blocks.add(Block.of(Style.TEXT, 0, text));
                    }
                }
            }
        }
        return new Document.Prose(Form.DOCUMENT, List.of(new Section("", blocks)), cut);
    }

    private static Document slides(DirectoryNode root, Limits limits) throws IOException {
        List<Section> slides = new ArrayList<>();
        try (HSLFSlideShow show = new HSLFSlideShow(root)) {
            for (var slide : show.getSlides()) {
                if (slides.size() >= limits.pages()) {
                    return new Document.Prose(Form.SLIDES, slides, true);
                }
                List<Block> blocks = new ArrayList<>();
                String title = slide.getTitle() == null ? "" : slide.getTitle().strip();
                for (var paragraphs : slide.getTextParagraphs()) {
                    for (String line : org.apache.poi.hslf.usermodel.HSLFTextParagraph.getText(paragraphs)
                            .split("[\\r\\n\\u000b]+")) {
                        String text = line.strip();
                        boolean heading = text.equals(title) && blocks.isEmpty();
                        if (!text.isEmpty()) {
                            blocks.add(Block.of(heading ? Style.HEADING : Style.TEXT, heading ? 1 : 0, text));
                        }
                    }
                }
                slides.add(new Section(title, blocks));
            }
        }
        return new Document.Prose(Form.SLIDES, slides, false);
    }
}
