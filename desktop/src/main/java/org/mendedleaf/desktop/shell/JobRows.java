package org.mendedleaf.desktop.shell;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.Jobs;
import org.mendedleaf.desktop.widgets.Ui;

/** The jobs beside the one that the status bar shows, one under the other above it. */
final class JobRows extends VBox {

    private static final int MOST = 4;

    private final Label more = Ui.label("", "status-words", "dim");

    JobRows(Jobs jobs) {
        setId("job-rows");
        getStyleClass().add("job-rows");
        more.setId("job-more");
        jobs.allProperty().addListener((o, a, all) -> show(all));
        show(jobs.allProperty().get());
    }

    private void show(List<Jobs.Shown> all) {
        List<Jobs.Shown> beside = all.isEmpty() ? List.of() : all.subList(1, all.size());
        int rows = Math.min(MOST, beside.size());
        getChildren().remove(more);
        while (getChildren().size() > rows) {
            getChildren().remove(getChildren().size() - 1);
        }
        while (getChildren().size() < rows) {
            getChildren().add(new JobRow());
        }
        for (int i = 0; i < rows; i++) {
            ((JobRow) getChildren().get(i)).show(beside.get(i));
        }
        if (beside.size() > rows) {
            more.setText(Words.of("job.more", beside.size() - rows));
            getChildren().add(more);
        }
        Ui.visible(this, rows > 0);
    }
}
