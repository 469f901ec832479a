package org.mendedleaf.desktop.retention;

import java.time.Instant;
import javafx.geometry.HPos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.retention.SpaceAge;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.retention.WhatIf;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.ForecastChart;
import org.mendedleaf.desktop.widgets.Ui;

/** What the proposed rules would do: kept by age beside what is kept now, what to look at, what is to come, which files. */
final class WhatIfPane extends VBox {

    private static final int FILES = 30;

    private final RetentionModel model;
    private final VBox body = new VBox(16);

    private Node ahead = Ui.label(Words.of("space.reading"), "dim");

    WhatIfPane(RetentionModel model) {
        this.model = model;
        setId("what-if");
        body.getStyleClass().add("place-body");
        ScrollPane scroll = new ScrollPane(body);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("place-scroll");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().add(scroll);
        getStyleClass().add("sheet");
        model.proposal().effectProperty().addListener((o, a, e) -> show());
        show();
    }

    private void show() {
        body.getChildren().clear();
        RuleProposal.Effect e = model.proposal().effectProperty().get();
        RetentionModel.Picture p = model.pictureProperty().get();
        if (e == null || p == null) {
            body.getChildren().add(Ui.label(Words.of("space.reading"), "dim"));
            return;
        }
        for (String w : e.plan().warnings()) {
            Label words = Ui.label(w, "warning-words", "warning");
            words.setWrapText(true);
            words.setMaxWidth(Double.MAX_VALUE);
            body.getChildren().add(words);
        }
        body.getChildren().add(ages(e.whatIf()));
        // The last forecast stands until the next one is there.
        e.ahead().ifPresent(a -> ahead = forecast(a));
        body.getChildren().add(ahead);
        if (!e.whatIf().differing().isEmpty()) {
            body.getChildren().add(files(p.table(), e.whatIf()));
        }
    }

    private static GridPane grid(int columns) {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("small-table");
        ColumnConstraints wide = new ColumnConstraints();
        wide.setHgrow(Priority.ALWAYS);
        ColumnConstraints right = new ColumnConstraints();
        right.setHalignment(HPos.RIGHT);
        right.setMinWidth(USE_PREF_SIZE);
        grid.getColumnConstraints().add(wide);
        for (int i = 1; i < columns; i++) {
            grid.getColumnConstraints().add(right);
        }
        return grid;
    }

    private static Node ages(WhatIf what) {
        GridPane grid = grid(5);
        grid.setId("what-if-ages");
        grid.addRow(
                0,
                Ui.label(Words.of("whatif.title"), "small-title"),
                Ui.label(Words.of("whatif.now"), "dim", "small-words"),
                Ui.label(""),
                Ui.label(Words.of("whatif.proposed"), "dim", "small-words"),
                Ui.label(""));
        int row = 1;
        for (SpaceAge a : SpaceAge.values()) {
            WhatIf.Kept one = what.now().ages().getOrDefault(a, new WhatIf.Kept(0, 0));
            WhatIf.Kept two = what.proposed().ages().getOrDefault(a, new WhatIf.Kept(0, 0));
            String style = one.equals(two) ? "dim" : "differs";
            grid.addRow(
                    row++,
                    Ui.label(Words.of("age." + a)),
                    Ui.label(Formats.number(one.versions()), "dim"),
                    Ui.label(Formats.size(one.bytes()), "dim"),
                    Ui.label(Formats.number(two.versions()), style),
                    Ui.label(Formats.size(two.bytes()), style));
        }
        grid.addRow(
                row,
                Ui.label(Words.of("whatif.taken"), "small-title"),
                Ui.label(Formats.number(what.now().versions()), "small-title"),
                Ui.label(Formats.size(what.now().takenBytes()), "small-title"),
                Ui.label(Formats.number(what.proposed().versions()), "small-title"),
                Ui.label(Formats.size(what.proposed().takenBytes()), "small-title"));
        return grid;
    }

    private Node forecast(RuleProposal.Ahead e) {
        Instant now = model.context().clock().instant();
        Forecast f = e.then();
        Label basis = Ui.label(
                Words.of(f.assumed() ? "forecast.assumed" : "forecast.basis", f.observedDays()), "dim", "small-words");
        basis.setWrapText(true);
        Label words = Ui.label(Words.of(
                "forecast.words",
                Formats.oneDecimal(f.versionsPerDay()),
                Formats.size(f.curve().get(0).bytes()),
                Formats.size(f.monthBytes()),
                Formats.size(f.yearBytes())));
        words.setId("forecast-words");
        words.setWrapText(true);
        String full = f.fullAt(now)
                .map(at -> Words.of(
                        "forecast.full", Formats.day(at, now, model.context().zone())))
                .orElseGet(() -> Words.of("forecast.notFull"));
        long difference = f.yearBytes() - e.now().yearBytes();
        Label more = Ui.label(
                difference == 0 ? full : Words.of("forecast.difference", Formats.sizeChange(difference), full), "dim");
        more.setWrapText(true);
        return new VBox(
                6,
                Ui.label(Words.of("forecast.title"), "small-title"),
                basis,
                words,
                more,
                new ForecastChart(e.now(), f));
    }

    private static Node files(VersionTable t, WhatIf what) {
        GridPane grid = grid(3);
        grid.addRow(
                0,
                Ui.label(Words.of("whatif.files", what.differing().size()), "small-title"),
                Ui.label(Words.of("whatif.now"), "dim", "small-words"),
                Ui.label(Words.of("whatif.proposed"), "dim", "small-words"));
        int row = 1;
        for (WhatIf.Differing d : what.differing().stream().limit(FILES).toList()) {
            Label name = Ui.label(t.name(d.line()));
            name.setMinWidth(0);
            Ui.tooltip(name, t.path(d.line()));
            grid.addRow(
                    row++,
                    name,
                    Ui.label(Formats.number(d.now()), "dim"),
                    Ui.label(Formats.number(d.proposed()), d.proposed() < d.now() ? "clay-text" : "differs"));
        }
        if (what.differing().size() > FILES) {
            grid.add(Ui.label(Words.of("cli.rules.more", what.differing().size() - FILES), "dim"), 0, row, 3, 1);
        }
        return grid;
    }
}
