package org.mendedleaf.desktop.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.BlockChange;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.core.compare.Comparison.ProseChanges;
import org.mendedleaf.core.compare.Comparison.SectionChange;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Documents, slides, pages as text, and messages; one of them, or two in one run or side by side. */
final class ProseView extends RowsView<ProseView.Row> {

    /** Pictures within a document are shown no larger than this. Pixels. */
    private static final double PICTURE_MOST = 360;

    private static final double INDENT = 20;

    /** What stands beside the text: the sign of a change, space, and the scroll bar. */
    private static final double ASIDE = 64;

    private static final double BETWEEN = 24;

    /**
     * A row.
     *
     * @param section the name that stands here; empty when it is a block
     * @param block what stands here; null when it is a name, or stands for others
     * @param number of the section, from 0
     */
    record Row(String section, @Nullable BlockChange block, int number, int leftOut) {
        String text() {
            return block == null ? section : block.block().text();
        }

        int change() {
            return block == null ? 0 : block.change();
        }
    }

    private final Pictures pictures;
    private final @Nullable Consumer<String> open;
    private boolean pages;

    private ProseView(List<Row> rows, boolean wide, int changes, Pictures pictures, @Nullable Consumer<String> open) {
        super(rows, "prose-list", Row::text, Row::change, changes);
        this.pictures = pictures;
        this.open = open;
        list.setCellFactory(v -> new Cell(wide));
        // Heights that were found before the letters were known, or for another width, are of no use.
        javafx.application.Platform.runLater(() -> javafx.application.Platform.runLater(list::refresh));
        list.widthProperty().addListener((o, a, w) -> {
            if (Math.abs(a.doubleValue() - w.doubleValue()) > 1) {
                javafx.application.Platform.runLater(list::refresh);
            }
        });
    }

    private static String name(Form form, int number, String name) {
        return switch (form) {
            case SLIDES -> Words.of("look.slide", number + 1);
            case PAGES -> Words.of("look.page", number + 1);
            default -> name;
        };
    }

    /** A document as it is; attachments of a message are opened by {@code open}. */
    static ProseView of(Document.Prose prose, Pictures pictures, Consumer<String> open) {
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < prose.sections().size(); i++) {
            String name = name(prose.form(), i, prose.sections().get(i).name());
            if (!name.isEmpty()) {
                rows.add(new Row(name, null, i, 0));
            }
            List<Block> blocks = prose.sections().get(i).blocks();
            for (int j = 0; j < blocks.size(); j++) {
                Block block = blocks.get(j);
                List<Piece> pieces = List.of(new Piece(Mark.SAME, block.text()));
                rows.add(new Row("", new BlockChange(Mark.SAME, block, block, j, j, pieces, 0), i, 0));
            }
        }
        return new ProseView(rows, false, 0, pictures, prose.form() == Form.MAIL ? open : null);
    }

    /** Two documents; attachments of messages are opened by {@code open}. */
    static ProseView of(
            ProseChanges prose, boolean wide, boolean onlyChanges, Pictures pictures, Consumer<String> open) {
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < prose.sections().size(); i++) {
            SectionChange section = prose.sections().get(i);
            int number = section.after() >= 0 ? section.after() : section.before();
            String name = name(prose.form(), number, section.name());
            List<Row> blocks = new ArrayList<>();
            for (BlockChange block : section.blocks()) {
                blocks.add(new Row("", block, i, 0));
            }
            if (onlyChanges && section.mark() == Mark.SAME && !name.isEmpty()) {
                continue;
            }
            if (!name.isEmpty()) {
                rows.add(new Row(name, null, i, 0));
            }
            int of = i;
            rows.addAll(
                    onlyChanges
                            ? ChangeContext.fold(blocks, r -> r.change() > 0, n -> new Row("", null, of, n))
                            : blocks);
        }
        ProseView look =
                new ProseView(rows, wide, prose.changes().size(), pictures, prose.form() == Form.MAIL ? open : null);
        look.pages = prose.form() == Form.PAGES && pictures != Pictures.NONE;
        return look;
    }

    @Override
    public boolean hasPages() {
        return pages;
    }

    @Override
    public Position position() {
        int first = ScrollPosition.first(list);
        List<Row> rows = list.getItems();
        if (first >= rows.size()) {
            return Position.START;
        }
        int number = rows.get(first).number();
        int begin = first;
        while (begin > 0 && rows.get(begin - 1).number() == number) {
            begin--;
        }
        return new Position(
                Integer.toString(number), first - begin, rows.get(first).text());
    }

    @Override
    public void position(Position position) {
        List<Row> rows = list.getItems();
        for (int i = 0; i < rows.size(); i++) {
            if (Integer.toString(rows.get(i).number()).equals(position.section())) {
                int end = i;
                while (end < rows.size()
                        && rows.get(end).number() == rows.get(i).number()) {
                    end++;
                }
                ScrollPosition.scroll(list, ScrollPosition.nearest(rows, i, end, position, Row::text));
                return;
            }
        }
    }

    private final class Cell extends ListCell<Row> {
        private final boolean wide;

        Cell(boolean wide) {
            this.wide = wide;
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable Row row, boolean empty) {
            super.updateItem(row, empty);
            setText(null);
            ChangeMarks.mark(this, Mark.SAME);
            Ui.style(
                    this,
                    "look-section",
                    row != null && !empty && !row.section().isEmpty());
            if (empty || row == null) {
                setGraphic(null);
                return;
            }
            BlockChange block = row.block();
            if (block == null) {
                setGraphic(
                        row.leftOut() > 0
                                ? Ui.label(Words.of("look.leftOut", row.leftOut()), "dim")
                                : Ui.label(row.section(), "look-section-name"));
                return;
            }
            Region body;
            if (wide && block.change() > 0) {
                body = sides(block);
            } else if (wide) {
                body = halves(
                        paragraph(block.block(), block.pieces(), false),
                        paragraph(block.block(), block.pieces(), false));
            } else {
                body = paragraph(block.block(), plain(block, block.pieces()), block.mark() == Mark.REMOVED);
                ChangeMarks.mark(this, block.mark() == Mark.CHANGED ? Mark.SAME : block.mark());
            }
            Label sign = Ui.label(ChangeMarks.sign(block.mark()), "mono", "gutter-sign");
            if (block.mark() == Mark.MOVED) {
                Ui.tooltip(sign, Words.of("compare.kind.MOVED"));
            }
            HBox.setHgrow(body, Priority.ALWAYS);
            HBox box = new HBox(8, sign, body);
            body.maxWidthProperty().bind(list.widthProperty().subtract(ASIDE));
            body.prefWidthProperty().bind(body.maxWidthProperty());
            setGraphic(box);
            // Its height is asked for before letters have their size: they are given it now.
            if (getScene() != null) {
                applyCss();
            }
            rowWords.shows(this);
        }

        private Region sides(BlockChange block) {
            Region left = new VBox();
            Region right = new VBox();
            if (block.from() != null) {
                left = paragraph(block.from(), plain(block, side(block.pieces(), Mark.ADDED)), true);
                ChangeMarks.mark(left, block.mark() == Mark.CHANGED ? Mark.SAME : block.mark());
            }
            if (block.to() != null) {
                right = paragraph(block.to(), plain(block, side(block.pieces(), Mark.REMOVED)), false);
                ChangeMarks.mark(right, block.mark() == Mark.CHANGED ? Mark.SAME : block.mark());
            }
            return halves(left, right);
        }

        private HBox halves(Region left, Region right) {
            HBox both = new HBox(BETWEEN, left, right);
            for (Region each : List.of(left, right)) {
                each.prefWidthProperty()
                        .bind(list.widthProperty().subtract(ASIDE + BETWEEN).divide(2));
                each.maxWidthProperty().bind(each.prefWidthProperty());
                each.setMinWidth(0);
            }
            return both;
        }

        /** Where all of it came or went, that is said once. */
        private static List<Piece> plain(BlockChange block, List<Piece> pieces) {
            return block.mark() == Mark.CHANGED || block.mark() == Mark.REMOVED
                    ? pieces
                    : pieces.stream().map(p -> new Piece(Mark.SAME, p.text())).toList();
        }

        private static List<Piece> side(List<Piece> pieces, Mark without) {
            return pieces.stream().filter(p -> p.mark() != without).toList();
        }

        private Region paragraph(Block block, List<Piece> pieces, boolean before) {
            if (block.style() == Style.PICTURE) {
                return picture(block, before);
            }
            String style = block.style() == Style.HEADING
                    ? "look-heading-" + Math.min(3, Math.max(1, block.level()))
                    : "look-" + block.style().name().toLowerCase(java.util.Locale.ROOT);
            VBox box = new VBox();
            box.getStyleClass().add("look-block-" + block.style().name().toLowerCase(java.util.Locale.ROOT));
            if (block.style() == Style.ROW || block.style() == Style.FACT) {
                box.getChildren().add(cells(pieces, block.style() == Style.FACT));
            } else if (block.style() == Style.ITEM) {
                HBox item = new HBox(8, Ui.label("•", "look-text"), ChangeMarks.flow(pieces, rowWords.found(), style));
                attachment(block).ifPresent(link -> item.getChildren().add(link));
                item.setPadding(new javafx.geometry.Insets(0, 0, 0, INDENT * Math.max(0, block.level() - 1)));
                box.getChildren().add(item);
            } else {
                box.getChildren().add(ChangeMarks.flow(pieces, rowWords.found(), style));
            }
            return box;
        }

        /** The way into what is attached to a message. */
        private Optional<Hyperlink> attachment(Block block) {
            Consumer<String> to = open;
            int end = block.ref().lastIndexOf('#');
            if (to == null || end <= 0) {
                return Optional.empty();
            }
            String name = block.ref().substring(0, end);
            Hyperlink link = new Hyperlink(Words.of("look.attachment"));
            link.setAccessibleText(Words.of("look.attachment.of", name));
            link.setMinWidth(USE_PREF_SIZE);
            link.setOnAction(e -> to.accept(name));
            return Optional.of(link);
        }

        /** The cells of a row, as wide as each other; the name of a fact has the space of a name. */
        private HBox cells(List<Piece> pieces, boolean fact) {
            HBox row = new HBox(12);
            List<Piece> cell = new ArrayList<>();
            List<List<Piece>> cells = new ArrayList<>();
            for (Piece piece : pieces) {
                String[] parts = piece.text().split("\t", -1);
                for (int i = 0; i < parts.length; i++) {
                    if (i > 0) {
                        cells.add(cell);
                        cell = new ArrayList<>();
                    }
                    cell.add(new Piece(piece.mark(), parts[i]));
                }
            }
            cells.add(cell);
            for (List<Piece> each : cells) {
                Region flow = ChangeMarks.flow(each, rowWords.found(), "look-row");
                boolean name = fact && row.getChildren().isEmpty();
                flow.setPrefWidth(120);
                flow.setMinWidth(name ? 120 : 0);
                HBox.setHgrow(flow, name ? Priority.NEVER : Priority.ALWAYS);
                row.getChildren().add(flow);
            }
            return row;
        }

        private Region picture(Block block, boolean before) {
            VBox box = new VBox(4, Ui.label(block.text(), "dim"));
            Consumer<Image> put = image -> {
                ImageView view = new ImageView(image);
                view.setPreserveRatio(true);
                view.setSmooth(true);
                view.setFitWidth(Math.min(PICTURE_MOST, image.getWidth()));
                box.getChildren().add(0, view);
            };
            if (before) {
                pictures.askBefore(block.ref(), put);
            } else {
                pictures.ask(block.ref(), put);
            }
            return box;
        }
    }
}
