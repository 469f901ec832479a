package org.mendedleaf.desktop.files;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;

/** The line as a narrow stem: stepping along it changes what stands beside it. */
final class ReadingStem extends ListView<LineRow> {

    private final LineModel line;
    private List<StemCell.Tie> ties = List.of();
    private boolean filling;

    ReadingStem(AppContext context, LineModel line) {
        this.line = line;
        setId("reading-stem");
        getStyleClass().addAll("points", "reading-stem");
        setFixedCellSize(PointCell.HEIGHT);
        setCellFactory(v -> new StemCell(context, i -> i >= 0 && i < ties.size() ? ties.get(i) : StemCell.Tie.NONE));
        setAccessibleText(Words.of("line.name"));
        getSelectionModel().selectedItemProperty().addListener((o, a, row) -> {
            if (!filling && row instanceof LineRow.OfVersion v) {
                line.choose(v.version());
            }
        });
        setOnMouseClicked(e -> unfold());
        setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                unfold();
            }
        });
        line.rowsProperty().addListener((o, a, rows) -> fill(rows));
        line.chosenProperty().addListener((o, a, v) -> follow(v));
        fill(line.rowsProperty().get());
    }

    private void fill(List<LineRow> rows) {
        filling = true;
        ties = ties(rows);
        getItems().setAll(rows);
        filling = false;
        follow(line.chosenProperty().get());
    }

    private void follow(@Nullable Version version) {
        filling = true;
        for (int i = 0; version != null && i < getItems().size(); i++) {
            boolean same = getItems().get(i) instanceof LineRow.OfVersion v
                    && v.version().line() == version.line()
                    && v.version().number() == version.number();
            if (same && getSelectionModel().getSelectedIndex() != i) {
                getSelectionModel().select(i);
                scrollTo(Math.max(0, i - 3));
            }
        }
        filling = false;
    }

    private void unfold() {
        if (getSelectionModel().getSelectedItem() instanceof LineRow.Folded f) {
            line.unfold(f.key());
        }
    }

    /** How the ties between equal contents run: from each version to the nearest older one with the same content. */
    static List<StemCell.Tie> ties(List<LineRow> rows) {
        List<StemCell.Tie> ties = new ArrayList<>(java.util.Collections.nCopies(rows.size(), StemCell.Tie.NONE));
        for (int i = 0; i < rows.size(); i++) {
            if (!(rows.get(i) instanceof LineRow.OfVersion v) || v.equalTo() == 0) {
                continue;
            }
            int to = -1;
            for (int j = i + 1; j < rows.size() && to < 0; j++) {
                if (rows.get(j) instanceof LineRow.OfVersion older
                        && older.version().line() == v.version().line()
                        && older.version().number() == v.equalTo()) {
                    to = j;
                }
            }
            if (to < 0) {
                continue;
            }
            ties.set(i, ties.get(i) == StemCell.Tie.NONE ? StemCell.Tie.BEGINS : StemCell.Tie.THROUGH);
            for (int j = i + 1; j < to; j++) {
                ties.set(j, ties.get(j) == StemCell.Tie.NONE ? StemCell.Tie.PAST : StemCell.Tie.THROUGH);
            }
            ties.set(to, ties.get(to) == StemCell.Tie.NONE ? StemCell.Tie.ENDS : StemCell.Tie.THROUGH);
        }
        return ties;
    }
}
