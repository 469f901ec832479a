package org.mendedleaf.desktop.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.Slider;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.StackPane;
import javafx.scene.shape.Rectangle;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.desktop.WidgetTest;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** Pictures and printed pages on the screen, alone and in pairs: what is asked for is what is seen, and what differs is shown. */
class PagesAndPicturesViewTest extends WidgetTest {

    private static final DocumentViews.Titles TITLES = new DocumentViews.Titles("before", "after");

    private final List<String> asked = new ArrayList<>();

    /** Pages come at once, all of them white, and it is noted which were asked for. */
    private final Pictures pages = new Pictures() {
        @Override
        public void ask(String ref, Consumer<Image> to) {
            asked.add("picture " + ref);
        }

        @Override
        public void page(int page, int width, Consumer<Image> to) {
            asked.add("page " + page);
            to.accept(new WritableImage(60, 80));
        }

        @Override
        public void pageBefore(int page, int width, Consumer<Image> to) {
            asked.add("before " + page);
            to.accept(new WritableImage(60, 80));
        }

        @Override
        public void difference(int before, int after, int width, Consumer<Comparison.PictureChanges> to) {
            asked.add("difference " + before + " " + after);
        }
    };

    private DocumentView show(Supplier<DocumentView> make) throws Exception {
        AtomicReference<DocumentView> look = new AtomicReference<>();
        FxToolkit.registerStage(() -> {
            DocumentView made = make.get();
            look.set(made);
            Stage stage = new Stage();
            stage.setScene(new Scene(new StackPane(made.node()), 900, 400));
            stage.show();
            return stage;
        });
        WaitForAsyncUtils.waitForFxEvents();
        return Objects.requireNonNull(look.get());
    }

    private static byte[] png(int width, int height, Color... stripes) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        for (int i = 0; i < stripes.length; i++) {
            g.setColor(stripes[i]);
            g.fillRect(i * width / stripes.length, 0, width, height);
        }
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static byte[] pdf(String... texts) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (PDDocument document = new PDDocument()) {
            for (String text : texts) {
                PDPage page = new PDPage();
                document.addPage(page);
                try (PDPageContentStream content = new PDPageContentStream(document, page)) {
                    content.beginText();
                    content.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 12);
                    content.newLineAtOffset(60, 700);
                    content.showText(text);
                    content.endText();
                }
            }
            document.save(out);
        }
        return out.toByteArray();
    }

    private static DocumentViews.Choices choices(boolean onlyChanges) {
        return new DocumentViews.Choices(false, onlyChanges, false, true);
    }

    private static Comparison compare(String name, byte[] a, byte[] b) {
        return Compare.compare(Documents.read(name, a, false), a, Documents.read(name, b, false), b);
    }

    private List<ImageView> images() {
        return new ArrayList<>(
                robot.lookup(n -> n instanceof ImageView && n.isVisible()).queryAllAs(ImageView.class));
    }

    @SuppressWarnings("unchecked")
    private ListView<Object> list() {
        return robot.lookup(".look-list").queryAs(ListView.class);
    }

    @Test
    void aPictureIsShownNoLargerThanItIsWithItsFactsBelow() throws Exception {
        Document picture = Documents.read("a.png", png(300, 60, Color.RED), false);
        show(() -> DocumentViews.of(picture, choices(false), pages, p -> {}));
        assertThat(images()).hasSize(1);
        assertThat(images().get(0).getFitWidth()).isEqualTo(300);
        assertThat(images().get(0).getFitHeight()).isEqualTo(60);
        assertThat(robot.lookup(".look-facts .label").queryAllAs(Labeled.class))
                .extracting(Labeled::getText)
                .anyMatch(t -> t.contains("300 × 60"));
    }

    @Test
    void twoPicturesStandBesideEachOtherOneOverTheOtherOrAsWhatDiffers() throws Exception {
        Comparison two = compare("a.png", png(200, 100, Color.RED, Color.BLUE), png(200, 100, Color.RED, Color.GREEN));
        show(() -> DocumentViews.of(two, choices(false), TITLES, pages, p -> {}));
        assertThat(images()).as("beside").hasSize(2);
        robot.clickOn("#look-differs");
        assertThat(images()).as("what differs").hasSize(1);
        robot.clickOn("#look-over");
        assertThat(images()).as("over").hasSize(2);
        robot.clickOn("#look-over");
        assertThat(images()).as("the way that is chosen stays chosen").hasSize(2);
        robot.clickOn("#look-beside");
        assertThat(robot.lookup("#look-divider").tryQuery()).isEmpty();
    }

    @Test
    void theDividerShowsMoreOfOneOrOfTheOther() throws Exception {
        Comparison two = compare("a.png", png(200, 100, Color.RED), png(200, 100, Color.GREEN));
        show(() -> DocumentViews.of(two, choices(false), TITLES, pages, p -> {}));
        robot.clickOn("#look-over");
        Slider divider = robot.lookup("#look-divider").queryAs(Slider.class);
        StackPane both =
                (StackPane) divider.getParent().getChildrenUnmodifiable().get(0);
        Rectangle later = (Rectangle) both.getChildren().get(1).getClip();
        robot.interact(() -> divider.setValue(0));
        assertThat(later.getX()).as("all of the later one").isZero();
        robot.interact(() -> divider.setValue(1));
        assertThat(later.getX()).as("nothing of it").isEqualTo(both.getWidth());
        robot.interact(() -> divider.setValue(0.25));
        assertThat(later.getX()).isEqualTo(both.getWidth() / 4);
        assertThat(divider.getAccessibleText()).isNotBlank();
    }

    @Test
    void aPageIsDrawnWhenItIsLookedAtAndNotBefore() throws Exception {
        String[] texts = new String[30];
        java.util.Arrays.setAll(
                texts, i -> i == 0 ? "the first" : i == 20 ? "the orchard" : i == 29 ? "the last" : "page");
        Document pdf = Documents.read("a.pdf", pdf(texts), false);
        DocumentView view = show(() -> DocumentViews.of(pdf, choices(false), pages, p -> {}));
        assertThat(list().getItems()).hasSize(30);
        assertThat(asked).contains("page 0").doesNotContain("page 20", "page 29");
        robot.interact(() -> assertThat(view.find("Orchard")).isTrue());
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(list().getSelectionModel().getSelectedIndex()).isEqualTo(20);
        assertThat(asked).contains("page 20").doesNotContain("page 29");
        assertThat(view.text()).contains("the orchard").doesNotContain("the last");
        assertThat(view.whole()).contains("the first", "the last");
        robot.interact(() -> assertThat(view.find("nothing like it")).isFalse());
    }

    @Test
    void whoIsAtAPageStaysThereWhenItIsShownAnew() throws Exception {
        Document pdf = Documents.read("a.pdf", pdf("one", "two", "three", "four", "five"), false);
        DocumentView view = show(() -> DocumentViews.of(pdf, choices(false), pages, p -> {}));
        robot.interact(() -> list().scrollTo(3));
        WaitForAsyncUtils.waitForFxEvents();
        DocumentView.Position at = view.position();
        assertThat(at.row()).isEqualTo(3);
        DocumentView anew = show(() -> DocumentViews.of(pdf, choices(false), pages, p -> {}));
        robot.interact(() -> anew.position(at));
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(anew.position().row()).isEqualTo(3);
    }

    @Test
    void ofPairsOfPagesThoseThatDifferAreGoneToAndWhatDiffersIsAskedFor() throws Exception {
        Comparison two = compare(
                "a.pdf", pdf("the first", "the second", "the last"), pdf("the first", "the second one", "the last"));
        DocumentView view = show(() -> DocumentViews.of(two, choices(false), TITLES, pages, p -> {}));
        assertThat(view.changes()).isEqualTo(1);
        assertThat(list().getItems()).hasSize(3);
        robot.interact(() -> view.goTo(1));
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(list().getSelectionModel().getSelectedIndex()).isEqualTo(1);
        assertThat(asked).contains("before 1", "difference 1 1").doesNotContain("difference 0 0");
        assertThat(view.text()).contains("second");
    }

    @Test
    void onlyThePagesThatDifferAreShownWhereThatIsChosenAndOneThatCameHasNothingBeforeIt() throws Exception {
        Comparison two = compare("a.pdf", pdf("the first", "the last"), pdf("the first", "one that came", "the last"));
        DocumentView view = show(() -> DocumentViews.of(two, choices(true), TITLES, pages, p -> {}));
        assertThat(list().getItems()).hasSize(1);
        assertThat(view.whole()).contains("one that came").doesNotContain("the last");
        assertThat(asked)
                .contains("page 1")
                .noneMatch(a -> a.startsWith("difference"))
                .noneMatch(a -> a.startsWith("before"));
    }
}
