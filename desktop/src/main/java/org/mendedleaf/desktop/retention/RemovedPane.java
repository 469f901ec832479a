package org.mendedleaf.desktop.retention;

import java.util.Comparator;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.SelectionMode;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.RemovedFile;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.retention.Verdict;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** What was removed: by whom, when, from where, how long it is kept; one, many or all come back or are erased. */
final class RemovedPane extends ListPane<RemovedFile> {

    private final Button back;
    private final Button erase;

    RemovedPane(RetentionModel model) {
        super(model, "removed", "removed-effect", "removed.none");
        table.getColumns()
                .add(Tables.words(
                        "removed.name",
                        230,
                        f -> RelativePath.name(f.path()),
                        Comparator.comparing(f -> RelativePath.name(f.path()))));
        table.getColumns().add(Tables.words("removed.from", 250, this::from, Comparator.comparing(this::from)));
        table.getColumns()
                .add(Tables.words(
                        "removed.column", Ui.moment(120), this::when, Comparator.comparing(RemovedFile::removed)));
        table.getColumns()
                .add(Tables.words("removed.who", 90, RemovedFile::who, Comparator.comparing(RemovedFile::who)));
        table.getColumns()
                .add(Tables.figures(
                        "removed.size",
                        80,
                        f -> Formats.size(f.bytes()),
                        Comparator.comparingLong(RemovedFile::bytes)));
        table.getColumns().add(Tables.words("removed.kept", 280, this::kept, Comparator.comparing(this::kept)));
        table.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
        Button all = Ui.button("removed.all", () -> table.getSelectionModel().selectAll(), "flat");
        all.setId("removed-all");
        back = Ui.button("removed.back", () -> model.removedFiles().bringBack(chosen()), "accent");
        back.setId("removed-back");
        erase = Ui.button("removed.erase", () -> model.removedFiles().erase(chosen()), "danger-text");
        erase.setId("removed-erase");
        table.getSelectionModel().getSelectedItems().addListener((javafx.beans.InvalidationListener) o -> effect());
        finish(all, back, erase);
    }

    private List<RemovedFile> chosen() {
        return List.copyOf(table.getSelectionModel().getSelectedItems());
    }

    private String from(RemovedFile f) {
        RetentionModel.Picture p = model.pictureProperty().get();
        String folder = RelativePath.parent(f.path());
        String place = p == null ? "" : p.place(f.place());
        return folder.isEmpty() ? place : place + " › " + folder;
    }

    private String when(RemovedFile f) {
        return Formats.moment(
                f.removed(), model.context().clock().instant(), model.context().zone());
    }

    private String kept(RemovedFile f) {
        RetentionModel.Picture p = model.pictureProperty().get();
        int row = p == null ? -1 : p.table().row(f.line(), f.number());
        if (p == null || row < 0) {
            return "";
        }
        Verdict v = p.verdicts().at(row);
        return v.words(model.context().clock().instant(), model.context().zone());
    }

    @Override
    void show(RetentionModel.@Nullable Picture p) {
        if (p != null) {
            table.getItems().setAll(p.removed());
        }
        effect();
    }

    private void effect() {
        List<RemovedFile> chosen = chosen();
        back.setDisable(chosen.isEmpty());
        erase.setDisable(true);
        if (chosen.isEmpty()) {
            effect.setText(Words.of("removed.hint"));
            return;
        }
        model.removedFiles().beforeErasing(chosen, e -> {
            erase.setDisable(e.rows().isEmpty());
            effect.setText(Words.of("removed.effect", chosen.size(), Formats.size(e.freedBytes()), e.kept()));
        });
    }
}
