package org.mendedleaf.desktop.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.TabPane;
import javafx.scene.control.TableView;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Merged;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.desktop.PatientRobot;
import org.mendedleaf.desktop.WidgetTest;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** Documents and differences on the screen: every kind is shown, gone through, searched and copied. */
class DocumentViewTest extends WidgetTest {

    private static final DocumentViews.Choices ALL = new DocumentViews.Choices(false, false, false, false);
    private static final DocumentViews.Choices ONLY = new DocumentViews.Choices(false, true, false, false);
    private static final DocumentViews.Choices WIDE = new DocumentViews.Choices(true, false, false, false);
    private static final DocumentViews.Titles TITLES = new DocumentViews.Titles("before", "after");

    private static Document read(String name, String text) {
        return Documents.read(name, text.getBytes(StandardCharsets.UTF_8), false);
    }

    private static Comparison compare(String name, String a, String b) {
        byte[] x = a.getBytes(StandardCharsets.UTF_8);
        byte[] y = b.getBytes(StandardCharsets.UTF_8);
        return Compare.compare(Documents.read(name, x, false), x, Documents.read(name, y, false), y);
    }

    /** Makes a look and shows it in a window. */
    private DocumentView show(java.util.function.Supplier<DocumentView> make) throws Exception {
        AtomicReference<DocumentView> look = new AtomicReference<>();
        FxToolkit.registerStage(() -> {
            DocumentView made = make.get();
            look.set(made);
            Stage stage = new Stage();
            Scene scene = new Scene(new StackPane(made.node()), 900, 400);
            scene.getStylesheets()
                    .add(Objects.requireNonNull(DocumentView.class.getResource("/org/mendedleaf/desktop/leaf.css"))
                            .toExternalForm());
            stage.setScene(scene);
            stage.show();
            return stage;
        });
        WaitForAsyncUtils.waitForFxEvents();
        return look.get();
    }

    @Test
    void wordsThatAreLookedForAreMarkedOnceTheDocumentIsThereThatHoldsThem() throws Exception {
        AtomicReference<DocumentPane> made = new AtomicReference<>();
        FxToolkit.registerStage(() -> {
            DocumentPane pane = new DocumentPane("test");
            made.set(pane);
            Stage stage = new Stage();
            Scene scene = new Scene(new StackPane(new javafx.scene.layout.VBox(pane.findField(), pane)), 900, 400);
            stage.setScene(scene);
            stage.show();
            return stage;
        });
        DocumentPane pane = made.get();
        Document other = read("letter.txt", "Dear tenant\n");
        Document wanted = read("letter.txt", "The orchard gate\n");
        robot.interact(() -> {
            pane.find("orchard");
            pane.show(c -> DocumentPane.Shown.of(DocumentViews.of(other, c, Pictures.NONE, p -> {}), "other"), false);
        });
        assertThat(robot.lookup(".look-found").tryQuery()).isEmpty();
        robot.interact(() -> pane.show(
                c -> DocumentPane.Shown.of(DocumentViews.of(wanted, c, Pictures.NONE, p -> {}), "wanted"), false));
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(robot.lookup(".look-found").tryQuery())
                .as("the one that holds them")
                .isPresent();
        assertThat(robot.lookup(".detail-words").queryLabeled().getText()).isEqualTo("wanted");
        robot.interact(() -> pane.show(
                c -> DocumentPane.Shown.of(DocumentViews.of(wanted, c, Pictures.NONE, p -> {}), "anew"), true));
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(robot.lookup(".look-found").tryQuery())
                .as("still marked when the same is shown anew")
                .isPresent();
        robot.clickOn(pane.findField()).eraseText(7).write("gate");
        robot.interact(() -> pane.show(
                c -> DocumentPane.Shown.of(DocumentViews.of(other, c, Pictures.NONE, p -> {}), "again"), false));
        assertThat(robot.lookup(".detail-words").queryLabeled().getText())
                .as("what was typed is looked for when it is asked for")
                .isEqualTo("again");
    }

    private DocumentView show(Document document) throws Exception {
        return show(() -> DocumentViews.of(document, ALL, Pictures.NONE, path -> {}));
    }

    private DocumentView show(Comparison comparison, DocumentViews.Choices choices) throws Exception {
        return show(() -> DocumentViews.of(comparison, choices, TITLES, Pictures.NONE, path -> {}));
    }

    private void eventually(String what, java.util.concurrent.Callable<Boolean> is) throws Exception {
        WaitForAsyncUtils.waitFor(30, TimeUnit.SECONDS, () -> PatientRobot.onScreen(is));
    }

    private List<String> labels() {
        return robot.lookup(n -> n instanceof Labeled).queryAllAs(Labeled.class).stream()
                .map(Labeled::getText)
                .filter(t -> t != null && !t.isBlank())
                .toList();
    }

    private ListView<?> list() {
        return robot.lookup(".look-list").queryListView();
    }

    private TableView<?> grid() {
        return robot.lookup(".look-grid").queryTableView();
    }

    private static String lines(int count) {
        return IntStream.rangeClosed(1, count).mapToObj(i -> "line " + i).collect(Collectors.joining("\n"));
    }

    @Test
    void aTextHasARowForEachLineAndIsSearchedRoundAndRound() throws Exception {
        DocumentView look = show(read("a.txt", lines(300)));
        assertThat(list().getItems()).hasSize(300);
        robot.interact(() -> assertThat(look.find("line 29")).isTrue());
        assertThat(list().getSelectionModel().getSelectedIndex()).isEqualTo(28);
        robot.interact(() -> assertThat(look.find("LINE 29")).isTrue());
        assertThat(list().getSelectionModel().getSelectedIndex()).isEqualTo(289);
        for (int i = 0; i < 10; i++) {
            robot.interact(() -> look.find("line 29"));
        }
        assertThat(list().getSelectionModel().getSelectedIndex())
                .as("after the last it begins anew")
                .isEqualTo(28);
        robot.interact(() -> assertThat(look.find("nowhere")).isFalse());
        assertThat(look.text()).isEqualTo("line 29\n");
    }

    @Test
    void whereSomebodyIsInATextIsKeptByTheLineAndNotByItsNumber() throws Exception {
        DocumentView look = show(read("a.txt", lines(300)));
        robot.interact(() -> look.position(new DocumentView.Position("", 100, "")));
        eventually("the line", () -> look.position().words().equals("line 101"));
        DocumentView.Position at = look.position();
        FxToolkit.cleanupStages();
        DocumentView longer = show(read("a.txt", "new\nnewer\nnewest\n" + lines(300)));
        robot.interact(() -> longer.position(at));
        eventually(
                "the same line three rows on",
                () -> longer.position().equals(new DocumentView.Position("", 103, "line 101")));
        robot.interact(() -> longer.position(new DocumentView.Position("", 290, "gone since")));
        eventually("as far down as there is", () -> longer.position().row() > 250);
    }

    @Test
    void aDifferenceOfTextsFoldsWhatIsEqualAndGoesFromChangeToChange() throws Exception {
        Comparison comparison = compare("a.txt", lines(200), lines(200).replace("line 50\n", "line fifty\n") + "\nend");
        DocumentView all = show(comparison, ALL);
        assertThat(all.changes()).isEqualTo(2);
        assertThat(list().getItems()).as("the removed line has a row too").hasSize(202);
        FxToolkit.cleanupStages();
        DocumentView only = show(comparison, ONLY);
        assertThat(list().getItems()).hasSizeLessThan(20);
        robot.interact(() -> only.goTo(2));
        assertThat(only.text()).isEqualTo("end\n");
        FxToolkit.cleanupStages();
        show(comparison, WIDE);
        assertThat(list().getItems()).as("side by side it has none").hasSize(201);
    }

    private static final String LEDGER = "Kind,Kilos,By\n"
            + IntStream.rangeClosed(1, 60)
                    .mapToObj(i -> "sort " + i + "," + i * 10 + ",Ines")
                    .collect(Collectors.joining("\n"));

    @Test
    void aTableIsAGridWithLettersAndNumbersAndIsCopiedWithTabs() throws Exception {
        DocumentView look = show(read("a.csv", LEDGER));
        assertThat(grid().getItems()).hasSize(61);
        assertThat(grid().getColumns()).extracting(c -> c.getText()).containsExactly("", "A", "B", "C");
        robot.interact(() -> assertThat(look.find("sort 33")).isTrue());
        assertThat(look.text()).isEqualTo("sort 33\t330\tInes\n");
        assertThat(look.hasFormulas()).isFalse();
        double before = grid().getFixedCellSize();
        robot.interact(() -> look.zoom(2));
        assertThat(grid().getFixedCellSize()).isGreaterThan(before);
    }

    @Test
    void aChangedCellSaysWhatItWasAndRowsBetweenAreFolded() throws Exception {
        Comparison comparison = compare("a.csv", LEDGER, LEDGER.replace("sort 40,400", "sort 40,444"));
        DocumentView look = show(comparison, ONLY);
        robot.interact(() -> look.goTo(1));
        eventually("the cell", () -> labels().contains("400 → 444"));
        assertThat(labels()).contains("… 37 rows the same", "… 17 rows the same");
        FxToolkit.cleanupStages();
        DocumentView wide = show(comparison, WIDE);
        robot.interact(() -> wide.goTo(1));
        eventually("both", () -> labels().containsAll(List.of("400", "444")));
        assertThat(grid().getColumns()).extracting(c -> c.getText()).containsExactly("before", "after");
    }

    @Test
    void aChangeIsSeenHoweverLittleRoomThereIs() throws Exception {
        Comparison comparison = compare("a.csv", LEDGER, LEDGER.replace("sort 40,400", "sort 40,444"));
        DocumentView look = show(comparison, ONLY);
        robot.interact(() -> {
            Stage stage = (Stage) grid().getScene().getWindow();
            stage.setHeight(stage.getHeight() - grid().getHeight() + 110);
        });
        WaitForAsyncUtils.waitForFxEvents();
        robot.interact(() -> look.goTo(1));
        WaitForAsyncUtils.waitForFxEvents();
        eventually(
                "the cell within what is seen",
                () -> robot.lookup(".cell-changed").queryAll().stream()
                        .anyMatch(n -> n.localToScene(n.getBoundsInLocal()).getMaxY()
                                <= grid().localToScene(grid().getBoundsInLocal())
                                        .getMaxY()));
        assertThat(ScrollPosition.fitting(40, 24, 3)).isZero();
        assertThat(ScrollPosition.fitting(600, 24, 3)).isEqualTo(3);
        assertThat(ScrollPosition.fitting(150, 0, 3)).isEqualTo(2);
    }

    private static Sheet sheet(String name, List<Merged> merged, String... rows) {
        List<Row> all = new ArrayList<>();
        for (String row : rows) {
            List<Cell> cells = new ArrayList<>();
            for (String cell : row.split(",", -1)) {
                boolean formula = cell.startsWith("=");
                cells.add(cell.isEmpty() ? Cell.NONE : new Cell(formula ? "42" : cell, "", formula ? cell : ""));
            }
            all.add(new Row(cells));
        }
        return new Sheet(name, all, merged);
    }

    @Test
    void sheetsHaveTabsAndStepsStayOnTheSameSheet() throws Exception {
        Document book = new Document.Sheets(
                List.of(sheet("Fees", List.of(), "a,1"), sheet("Rota", List.of(), "b,2", "c,=B1")), false);
        DocumentView look = show(book);
        TabPane tabs = robot.lookup(".sheet-tabs").queryAs(TabPane.class);
        assertThat(tabs.getTabs()).extracting(t -> t.getText()).containsExactly("Fees", "Rota");
        robot.interact(() -> tabs.getSelectionModel().select(1));
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(look.position().section()).isEqualTo("Rota");
        DocumentView.Position at = look.position();
        assertThat(look.hasFormulas()).isTrue();
        FxToolkit.cleanupStages();
        DocumentView again = show(() ->
                DocumentViews.of(book, new DocumentViews.Choices(false, false, true, false), Pictures.NONE, p -> {}));
        robot.interact(() -> again.position(at));
        eventually("the formula, on the sheet that was looked at", () -> labels().contains("=B1"));
    }

    @Test
    void cellsThatAreOneHaveTheRoomOfAllOfThem() throws Exception {
        String title = "The fees of all members of the orchard in this year";
        show(new Document.Sheets(List.of(sheet("", List.of(new Merged(0, 0, 1, 3)), title + ",,", "Ada,12,x")), false));
        eventually("the title", () -> robot.lookup(".look-merged").tryQuery().isPresent());
        Label label = robot.lookup(".look-merged").queryAs(Label.class);
        assertThat(label.getText()).isEqualTo(title);
        double columns = grid().getColumns().stream()
                .skip(1)
                .limit(3)
                .mapToDouble(c -> c.getWidth())
                .sum();
        assertThat(label.getWidth()).isBetween(columns - 24, columns);
    }

    private static Document.Prose minutes(String... paragraphs) {
        List<Block> blocks = new ArrayList<>();
        blocks.add(Block.of(Style.HEADING, 1, "Minutes"));
        for (String p : paragraphs) {
            blocks.add(Block.of(Style.TEXT, 0, p));
        }
        blocks.add(Block.of(Style.ITEM, 2, "deep"));
        blocks.add(Block.of(Style.ROW, 0, "a\tb\tc"));
        return new Document.Prose(Document.Form.DOCUMENT, List.of(new Section("", blocks)), false);
    }

    @Test
    void aDocumentShowsParagraphsAndItsDifferenceSaysWhatWasMoved() throws Exception {
        Document.Prose a =
                minutes("Pruning went on all winter long.", "The press was mended by Jory.", "Nobody was hurt.");
        Document.Prose b =
                minutes("The press was mended by Jory.", "Nobody was hurt at all.", "Pruning went on all winter long.");
        DocumentView one = show(a);
        assertThat(list().getItems()).hasSize(6);
        robot.interact(() -> assertThat(one.find("jory")).isTrue());
        assertThat(one.text()).isEqualTo("The press was mended by Jory.\n");
        FxToolkit.cleanupStages();
        DocumentView two = show(Compare.compare(a, new byte[] {1}, b, new byte[] {2}), ALL);
        assertThat(two.changes()).isEqualTo(2);
        eventually("the sign of a moved paragraph", () -> labels().contains("↕"));
        robot.interact(() -> two.goTo(1));
        assertThat(two.text()).isEqualTo("Nobody was hurt at all.\n");
    }

    @Test
    void aShortParagraphTakesTheRoomOfOneLine() throws Exception {
        show(minutes("One.", "Two.", "Three."));
        WaitForAsyncUtils.waitForFxEvents();
        List<Double> heights = robot.lookup(".prose-list .list-cell").queryAll().stream()
                .filter(n -> n.isVisible() && ((javafx.scene.control.ListCell<?>) n).getItem() != null)
                .map(n -> n.getBoundsInParent().getHeight())
                .toList();
        assertThat(heights).hasSize(6);
        assertThat(heights.subList(1, 4)).allSatisfy(h -> assertThat(h).isLessThan(34));
    }

    @Test
    void membersOfArchivesAreOpenedAndOnlyThoseThatChangedAreListed() throws Exception {
        Document.Archive a = new Document.Archive(
                "ZIP",
                List.of(
                        new Document.Member("same.txt", false, 5, 0, "1"),
                        new Document.Member("other.txt", false, 5, 0, "2")),
                false);
        Document.Archive b = new Document.Archive(
                "ZIP",
                List.of(
                        new Document.Member("same.txt", false, 5, 0, "1"),
                        new Document.Member("other.txt", false, 6, 0, "3"),
                        new Document.Member("new.txt", false, 7, 0, "4")),
                false);
        Comparison comparison = Compare.compare(a, new byte[] {1}, b, new byte[] {2});
        List<String> opened = new ArrayList<>();
        DocumentView look = show(() -> DocumentViews.of(comparison, ONLY, TITLES, Pictures.NONE, opened::add));
        assertThat(list().getItems()).hasSize(2);
        robot.interact(() -> {
            look.goTo(1);
            list().requestFocus();
        });
        robot.push(javafx.scene.input.KeyCode.ENTER);
        assertThat(opened).containsExactly("other.txt");
        robot.interact(() -> assertThat(look.find("new")).isTrue());
        assertThat(look.text()).isEqualTo("new.txt\n");
    }

    @Test
    void contentsThatSayNothingShowWhyFactsAndBytes() throws Exception {
        show(new Document.Other(
                "application/x-thing",
                "It is damaged.",
                List.of(new Document.Fact("size", "3 B")),
                List.of("words in it"),
                List.of("0000  41")));
        assertThat(labels()).contains("It is damaged.", "size: 3 B", "words in it", "0000  41");
        FxToolkit.cleanupStages();
        show(new Document.Empty());
        assertThat(labels()).singleElement().asString().contains("empty");
        FxToolkit.cleanupStages();
        show(new Comparison.Equal(), ALL);
        assertThat(labels()).hasSize(1);
    }

    private static final String MAIL = "From: Ines <ines@example.org>\nSubject: The fees\nMIME-Version: 1.0\n"
            + "Content-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nHere they are.\n"
            + "--b\nContent-Type: text/csv; name=fees.csv\nContent-Disposition: attachment; filename=fees.csv\n\n"
            + "k,v\na,1\n--b--\n";

    private void clickAttachment() {
        robot.clickOnFound(() ->
                robot.lookup(n -> n instanceof javafx.scene.control.Hyperlink).query());
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    void whatIsAttachedToAMessageIsLookedInto() throws Exception {
        List<String> opened = new ArrayList<>();
        show(() -> DocumentViews.of(read("a.eml", MAIL), ALL, Pictures.NONE, opened::add));
        clickAttachment();
        assertThat(opened).containsExactly("fees.csv");
        FxToolkit.cleanupStages();
        Comparison comparison = compare("a.eml", MAIL, MAIL.replace("a,1", "a,2"));
        show(() -> DocumentViews.of(comparison, ONLY, TITLES, Pictures.NONE, opened::add));
        clickAttachment();
        assertThat(opened).as("from a difference too").containsExactly("fees.csv", "fees.csv");
    }
}
