package org.mendedleaf.desktop.document;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.compare.Comparison.ArchiveChanges;
import org.mendedleaf.core.compare.Comparison.ByteChanges;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Range;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Archives, contents that say nothing, and words in the place of a look. */
final class OtherView implements DocumentView {

    private final Node node;
    private final int changes;
    private final ListView<Item> list;

    private record Item(Mark mark, String path, String size, int change) {}

    private OtherView(Node node, ListView<Item> list, int changes) {
        this.node = node;
        this.list = list;
        this.changes = changes;
    }

    private static OtherView of(Node node) {
        return new OtherView(node, new ListView<>(), 0);
    }

    @Override
    public Node node() {
        return node;
    }

    @Override
    public int changes() {
        return changes;
    }

    @Override
    public void goTo(int change) {
        for (int i = 0; i < list.getItems().size(); i++) {
            if (list.getItems().get(i).change() == change) {
                list.getSelectionModel().clearAndSelect(i);
                ScrollPosition.scroll(list, i - 2);
                return;
            }
        }
    }

    @Override
    public boolean find(String words) {
        return ScrollPosition.find(list, words, Item::path);
    }

    @Override
    public String whole() {
        return ScrollPosition.text(list.getItems(), List.of(), Item::path);
    }

    @Override
    public String text() {
        return ScrollPosition.text(list.getItems(), list.getSelectionModel().getSelectedIndices(), Item::path);
    }

    /** Words in the place of a look. */
    static OtherView message(String text) {
        Label label = Ui.label(text, "dim", "centered");
        label.setWrapText(true);
        StackPane pane = new StackPane(label);
        pane.setMinHeight(0);
        pane.getStyleClass().add("detail-message");
        return of(pane);
    }

    /** The members of an archive; opening one is left to {@code open}. */
    static OtherView of(Document.Archive archive, Consumer<String> open) {
        List<Item> items = archive.members().stream()
                .map(m -> new Item(Mark.SAME, m.path(), m.folder() || m.size() < 0 ? "" : Formats.size(m.size()), 0))
                .toList();
        return list(items, 0, open);
    }

    static OtherView of(ArchiveChanges archive, boolean onlyChanges, Consumer<String> open) {
        List<Item> items = archive.members().stream()
                .filter(m -> !onlyChanges || m.mark() != Mark.SAME)
                .map(m -> new Item(
                        m.mark(),
                        m.mark() == Mark.MOVED ? m.before().orElseThrow().path() + " → " + m.path() : m.path(),
                        m.after()
                                .or(m::before)
                                .map(x -> Formats.size(Math.max(0, x.size())))
                                .orElse(""),
                        m.change()))
                .toList();
        return list(items, archive.changes().size(), path -> {
            // What was moved has the same content.
            if (!path.contains(" → ")) {
                open.accept(path);
            }
        });
    }

    private static OtherView list(List<Item> items, int changes, Consumer<String> open) {
        ListView<Item> list = ScrollPosition.list(items, "text-list", "look-list");
        list.setFixedCellSize(24);
        list.setCellFactory(v -> new javafx.scene.control.ListCell<>() {
            @Override
            protected void updateItem(Item item, boolean empty) {
                super.updateItem(item, empty);
                setText(null);
                ChangeMarks.mark(this, empty || item == null ? Mark.SAME : item.mark());
                if (empty || item == null) {
                    setGraphic(null);
                    return;
                }
                setGraphic(new HBox(
                        8,
                        Ui.label(ChangeMarks.sign(item.mark()), "mono", "gutter-sign"),
                        Ui.label(item.path()),
                        Ui.spacer(),
                        Ui.label(item.size(), "dim")));
            }
        });
        Runnable go = () -> {
            Item item = list.getSelectionModel().getSelectedItem();
            if (item != null) {
                open.accept(item.path());
            }
        };
        list.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                go.run();
            }
        });
        list.setOnKeyPressed(e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ENTER) {
                go.run();
                e.consume();
            }
        });
        return new OtherView(list, list, changes);
    }

    /** A content that says nothing: what it is, facts, the words in it. */
    static OtherView of(Document.Other other) {
        VBox box = new VBox(8);
        box.getStyleClass().add("detail-body");
        if (!other.why().isEmpty()) {
            box.getChildren().add(wrapped(other.why(), "clay-text"));
        }
        box.getChildren().add(wrapped(Words.of("look.other", other.type()), "dim"));
        other.facts().forEach(f -> box.getChildren().add(Ui.label(f.name() + ": " + f.value())));
        if (!other.strings().isEmpty()) {
            box.getChildren().add(wrapped(Words.of("look.strings"), "dim"));
            other.strings().forEach(s -> box.getChildren().add(Ui.label(s, "mono")));
        }
        if (!other.hex().isEmpty()) {
            box.getChildren().add(wrapped(Words.of("look.hex"), "dim"));
            box.getChildren().add(Ui.label(String.join("\n", other.hex()), "mono"));
        }
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        return of(scroll);
    }

    private static Label wrapped(String text, String style) {
        Label label = Ui.label(text, style);
        label.setWrapText(true);
        return label;
    }

    /** Where two contents are equal, as a bar. */
    static OtherView of(ByteChanges bytes) {
        Pane bar = new Pane();
        bar.getStyleClass().add("bytes-bar");
        bar.setMinHeight(28);
        bar.setMaxHeight(28);
        long all = bytes.ranges().stream().mapToLong(Range::length).sum();
        List<Region> parts = new ArrayList<>();
        List<double[]> places = new ArrayList<>();
        long at = 0;
        for (Range range : bytes.ranges()) {
            Region part = new Region();
            part.getStyleClass().add(range.isEqual() ? "bytes-same" : "bytes-other");
            part.setManaged(false);
            parts.add(part);
            places.add(new double[] {(double) at / Math.max(1, all), (double) range.length() / Math.max(1, all)});
            at += range.length();
        }
        bar.getChildren().addAll(parts);
        bar.widthProperty().addListener((o, a, w) -> {
            for (int i = 0; i < parts.size(); i++) {
                double width = w.doubleValue();
                parts.get(i).resizeRelocate(places.get(i)[0] * width, 0, Math.max(1, places.get(i)[1] * width), 28);
            }
        });
        HBox.setHgrow(bar, Priority.ALWAYS);
        Label words = wrapped(bytes.words(), "detail-words");
        Label legend = wrapped(Words.of("look.bytes", Math.round(Math.floor(bytes.share() * 100))), "dim");
        VBox box = new VBox(12, words, bar, legend);
        box.setMinHeight(0);
        box.getStyleClass().add("detail-message");
        return of(box);
    }
}
