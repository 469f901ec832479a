package org.mendedleaf.desktop.document;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.BlockChange;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.ProseChanges;
import org.mendedleaf.core.compare.Comparison.SectionChange;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** The pages of two documents as they are printed, side by side, with what differs in colour on the later one. */
final class PagePairsView implements DocumentView {

    private static final double WIDTH_MOST = 620;

    /** As high as a page of A4 is beside its width. */
    private static final double SHAPE = 1.414;

    /** What stands beside the pages. Pixels. */
    private static final double ASIDE = 90;

    private final ListView<SectionChange> list;
    private final List<SectionChange> changed;
    private final Pictures pictures;

    PagePairsView(ProseChanges prose, boolean onlyChanges, Pictures pictures) {
        this.pictures = pictures;
        List<SectionChange> all = prose.sections();
        changed = all.stream().filter(s -> s.mark() != Mark.SAME).toList();
        list = ScrollPosition.list(onlyChanges && !changed.isEmpty() ? changed : all, "prose-list", "look-list");
        list.setCellFactory(v -> new Cell());
    }

    @Override
    public Node node() {
        return list;
    }

    @Override
    public boolean hasPages() {
        return true;
    }

    @Override
    public int changes() {
        return changed.size();
    }

    @Override
    public void goTo(int change) {
        int at = list.getItems().indexOf(changed.get(change - 1));
        list.getSelectionModel().clearAndSelect(at);
        ScrollPosition.scroll(list, at);
    }

    private static String text(SectionChange page) {
        List<String> lines = new ArrayList<>();
        for (BlockChange block : page.blocks()) {
            lines.add(block.block().text());
        }
        return String.join("\n", lines);
    }

    @Override
    public Position position() {
        int first = ScrollPosition.first(list);
        return new Position("", first, ScrollPosition.words(list.getItems(), first, PagePairsView::text));
    }

    @Override
    public void position(Position position) {
        ScrollPosition.scroll(
                list,
                ScrollPosition.nearest(list.getItems(), 0, list.getItems().size(), position, PagePairsView::text));
    }

    @Override
    public boolean find(String words) {
        return ScrollPosition.find(list, words, PagePairsView::text);
    }

    @Override
    public String whole() {
        return ScrollPosition.text(list.getItems(), List.of(), PagePairsView::text);
    }

    @Override
    public String text() {
        return ScrollPosition.text(list.getItems(), list.getSelectionModel().getSelectedIndices(), PagePairsView::text);
    }

    private final class Cell extends ListCell<SectionChange> {
        Cell() {
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable SectionChange page, boolean empty) {
            super.updateItem(page, empty);
            setText(null);
            if (empty || page == null) {
                setGraphic(null);
                return;
            }
            double width = Math.min(WIDTH_MOST, Math.max(160, (list.getWidth() - ASIDE) / 2));
            Label share = Ui.label("", "dim");
            StackPane before = sheet(width);
            StackPane after = sheet(width);
            if (page.before() >= 0) {
                pictures.pageBefore(page.before(), (int) (width * 2), image -> put(before, image, width));
            }
            boolean both = page.before() >= 0 && page.after() >= 0;
            if (both && page.mark() != Mark.SAME) {
                pictures.difference(page.before(), page.after(), (int) (width * 2), differs -> {
                    put(after, PictureView.image(differs.difference()), width);
                    share.setText(differs.words());
                });
            } else if (page.after() >= 0) {
                pictures.page(page.after(), (int) (width * 2), image -> put(after, image, width));
            }
            int number = page.after() >= 0 ? page.after() : page.before();
            HBox name = new HBox(
                    12,
                    Ui.label(ChangeMarks.sign(page.mark()), "mono", "gutter-sign"),
                    Ui.label(Words.of("look.page", number + 1), "dim"),
                    share);
            name.setAlignment(Pos.CENTER_LEFT);
            setGraphic(new VBox(4, name, new HBox(16, before, after)));
        }

        private static StackPane sheet(double width) {
            StackPane sheet = new StackPane();
            sheet.setMinWidth(width);
            sheet.setMaxWidth(width);
            sheet.setMinHeight(width * SHAPE);
            return sheet;
        }

        private static void put(StackPane sheet, Image image, double width) {
            ImageView view = new ImageView(image);
            view.setPreserveRatio(true);
            view.setSmooth(true);
            view.setFitWidth(width);
            sheet.getStyleClass().add("look-page");
            sheet.setMinHeight(width * image.getHeight() / image.getWidth());
            sheet.getChildren().setAll(view);
        }
    }
}
