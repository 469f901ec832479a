package org.mendedleaf.desktop.retention;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.retention.SpaceReport;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** What the vault takes on its drive, as one bar whose parts add up, with their names and sizes below. */
final class SpaceBar extends VBox {

    private final HBox bar = new HBox();
    private final HBox names = new HBox(18);

    SpaceBar(RetentionModel model) {
        super(6);
        setId("space-bar");
        bar.getStyleClass().add("sum-bar");
        names.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(bar, names);
        model.pictureProperty().addListener((o, a, p) -> {
            if (p != null) {
                show(p.report());
            }
        });
        RetentionModel.Picture now = model.pictureProperty().get();
        if (now != null) {
            show(now.report());
        }
    }

    private void show(SpaceReport r) {
        bar.getChildren().clear();
        names.getChildren().clear();
        part("sum.inUse", "sum-in-use", r.inUse(), r.all());
        part("sum.waiting", "sum-waiting", r.waiting(), r.all());
        part("sum.unused", "sum-unused", r.unused(), r.all());
        part("sum.bookkeeping", "sum-bookkeeping", r.bookkeeping(), r.all());
        Label all = Ui.label(Words.of("sum.all", Formats.size(r.all()), Formats.size(r.free())), "small-title");
        all.setId("sum-all");
        names.getChildren().addAll(Ui.spacer(), all);
    }

    private void part(String key, String style, long bytes, long all) {
        Region piece = new Region();
        piece.getStyleClass().addAll("sum-piece", style);
        piece.prefWidthProperty().bind(bar.widthProperty().multiply(all == 0 ? 0 : (double) bytes / all));
        piece.setMinWidth(bytes > 0 ? 2 : 0);
        bar.getChildren().add(piece);
        Region dot = new Region();
        dot.getStyleClass().addAll("sum-dot", style);
        Label words = Ui.label(Words.of(key, Formats.size(bytes)), "small-words");
        HBox name = new HBox(6, dot, words);
        name.setAlignment(Pos.CENTER_LEFT);
        names.getChildren().add(name);
    }
}
