package org.mendedleaf.desktop.document;

import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.image.ImageView;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** The pages of a PDF as they are printed; each is drawn when it is looked at. */
final class PagesView implements DocumentView {

    private static final int WIDTH = 900;

    /** As high as a page of A4 is beside its width. */
    private static final double SHAPE = 1.414;

    private final Document.Prose pages;
    private final ListView<Integer> list;
    private final Pictures pictures;

    PagesView(Document.Prose pages, Pictures pictures) {
        this.pages = pages;
        this.pictures = pictures;
        java.util.List<Integer> numbers = new java.util.ArrayList<>();
        for (int i = 0; i < pages.sections().size(); i++) {
            numbers.add(i);
        }
        list = ScrollPosition.list(numbers, "prose-list", "look-list");
        list.setCellFactory(v -> new Cell());
    }

    @Override
    public Node node() {
        return list;
    }

    @Override
    public Position position() {
        int first = ScrollPosition.first(list);
        return new Position("", first, ScrollPosition.words(list.getItems(), first, this::text));
    }

    @Override
    public void position(Position position) {
        ScrollPosition.scroll(
                list, ScrollPosition.nearest(list.getItems(), 0, list.getItems().size(), position, this::text));
    }

    private String text(int page) {
        return String.join(
                "\n",
                pages.sections().get(page).blocks().stream().map(Block::text).toList());
    }

    @Override
    public boolean find(String words) {
        return ScrollPosition.find(list, words.toLowerCase(Locale.ROOT), this::text);
    }

    @Override
    public String whole() {
        return ScrollPosition.text(list.getItems(), java.util.List.of(), this::text);
    }

    @Override
    public String text() {
        return ScrollPosition.text(list.getItems(), list.getSelectionModel().getSelectedIndices(), this::text);
    }

    private final class Cell extends ListCell<Integer> {
        Cell() {
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable Integer page, boolean empty) {
            super.updateItem(page, empty);
            setText(null);
            if (empty || page == null) {
                setGraphic(null);
                return;
            }
            StackPane sheet = new StackPane();
            sheet.getStyleClass().add("look-page");
            double width = Math.min(WIDTH, Math.max(200, list.getWidth() - 80));
            sheet.setMaxWidth(width);
            sheet.setMinHeight(width * SHAPE);
            sheet.setMinWidth(Region.USE_PREF_SIZE);
            sheet.setPrefWidth(width);
            pictures.page(page, (int) (width * 2), image -> {
                ImageView view = new ImageView(image);
                view.setPreserveRatio(true);
                view.setSmooth(true);
                view.setFitWidth(width);
                sheet.setMinHeight(width * image.getHeight() / image.getWidth());
                sheet.getChildren().setAll(view);
            });
            VBox box = new VBox(4, Ui.label(Words.of("look.page", page + 1), "dim"), sheet);
            setGraphic(box);
        }
    }
}
