package org.mendedleaf.desktop.intake;

import java.io.File;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** Safety copies with the files they belong to, each with the one action that makes use of it. */
public final class StraysView extends BorderPane {

    private final StraysModel model;
    private final TableView<Stray> table = Tables.table("strays-table", "strays.none");
    private final Label message = Ui.label("", "small-title");

    /**
     * The view.
     *
     * @param folderAsk asks for a folder that programs leave copies in
     * @param back goes back to the files
     */
    public StraysView(StraysModel model, Supplier<Optional<File>> folderAsk, Runnable back) {
        this.model = model;
        getStyleClass().addAll("files", "plan");
        setId("strays");
        Label title = Ui.label(model.heading(), "big-title");
        title.setId("strays-title");
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "plan.close", back));
        head.setAlignment(Pos.CENTER_LEFT);
        Label hint = Ui.label(Words.of("strays.hint"), "dim");
        hint.setWrapText(true);
        message.setId("strays-message");
        message.setWrapText(true);
        VBox top = new VBox(10, head, hint, message);
        top.getStyleClass().add("plan-top");
        setTop(top);
        table.getColumns()
                .add(Tables.words(
                        "strays.column.file",
                        260,
                        s -> String.valueOf(s.file().getFileName()),
                        Comparator.comparing(s -> s.file().toString())));
        table.getColumns()
                .add(Tables.words("strays.column.when", 130, this::when, Comparator.comparing(Stray::modified)));
        table.getColumns()
                .add(Tables.figures(
                        "listing.column.size", 80, s -> Formats.size(s.size()), Comparator.comparing(Stray::size)));
        table.getColumns()
                .add(Tables.words("strays.column.kind", 170, s -> s.kind().words(), Comparator.comparing(Stray::kind)));
        table.getColumns()
                .add(Tables.words("strays.column.of", 250, StraysView::of, Comparator.comparing(Stray::belongsTo)));
        table.getColumns()
                .add(Tables.words(
                        "strays.column.common", 130, StraysView::common, Comparator.comparing(Stray::shared)));
        table.getColumns()
                .add(Tables.nodes("strays.column.action", 190, this::action, Comparator.comparing(Stray::isNews)));
        VBox sheet = new VBox(table);
        VBox.setVgrow(table, Priority.ALWAYS);
        sheet.getStyleClass().add("sheet");
        BorderPane middle = new BorderPane(sheet);
        middle.getStyleClass().add("plan-middle");
        setCenter(middle);
        Button folder = Ui.button("strays.folder", () -> folderAsk.get().ifPresent(f -> model.addFolder(f.toPath())));
        folder.setId("strays-folder");
        HBox buttons = new HBox(8, folder, Ui.spacer(), Ui.button("protect.back", back, "flat"));
        buttons.setAlignment(Pos.CENTER_LEFT);
        buttons.getStyleClass().add("plan-buttons");
        setBottom(buttons);
        model.straysProperty().addListener((o, a, all) -> fill(all));
        model.messageProperty().addListener((o, a, words) -> said(words));
        fill(model.straysProperty().get());
        said("");
    }

    private void said(String words) {
        message.setText(words);
        Ui.visible(message, !words.isEmpty());
    }

    private void fill(@org.jspecify.annotations.Nullable List<Stray> all) {
        table.getItems().setAll(all == null ? List.of() : all);
    }

    private String when(Stray s) {
        return Formats.moment(
                s.modified(), model.context().clock().instant(), model.context().zone());
    }

    private static String of(Stray s) {
        String name = RelativePath.name(s.belongsTo());
        return s.present() ? name : Words.of("strays.gone", name);
    }

    private static String common(Stray s) {
        return !s.sameAs().isEmpty()
                ? Words.of("stray.same", s.sameAs())
                : s.shared() < 0 ? "" : Words.of("intake.common", s.shared());
    }

    private Node action(Stray s) {
        if (!s.isNews()) {
            return Ui.label(Words.of("strays.there"), "dim");
        }
        Button take = Ui.button(s.present() ? "strays.adopt" : "strays.bringBack", () -> model.adopt(s), "small");
        take.setId("adopt-" + String.valueOf(s.file().getFileName()).replaceAll("[^A-Za-z0-9]", "-"));
        return take;
    }
}
