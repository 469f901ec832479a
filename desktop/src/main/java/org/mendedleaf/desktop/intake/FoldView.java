package org.mendedleaf.desktop.intake;

import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Family;
import org.mendedleaf.core.recovery.Folding;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** Families of scattered copies, oldest first, with what they have in common; their order is changed by dragging. */
public final class FoldView extends BorderPane {

    /** Space for a time and a size, or for how much is in common. */
    private static final double FACTS = 210;

    private final FoldModel model;
    private final VBox list = new VBox(14);
    private final Label problem = Ui.label("", "error-text");
    private final Label sum = Ui.label("", "small-title");
    private final Button go = new Button();
    private @Nullable String focus;

    /**
     * The view.
     *
     * @param back goes back to the files
     * @param done says in the message bar what was done, with the way to undo it
     */
    public FoldView(FoldModel model, Runnable back, Consumer<String> done) {
        this.model = model;
        getStyleClass().addAll("files", "plan");
        setId("fold");
        Label title = Ui.label(model.heading(), "big-title");
        title.setId("fold-title");
        title.setMinWidth(0);
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "plan.close", back));
        head.setAlignment(Pos.CENTER_LEFT);
        Label hint = Ui.label(Words.of("fold.hint"), "dim");
        hint.setWrapText(true);
        problem.setWrapText(true);
        problem.setId("fold-problem");
        sum.setId("fold-sum");
        VBox top = new VBox(10, head, hint, problem, sum);
        top.getStyleClass().add("plan-top");
        setTop(top);
        list.getStyleClass().add("fold-list");
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("place-scroll");
        BorderPane middle = new BorderPane(scroll);
        middle.getStyleClass().add("plan-middle");
        setCenter(middle);
        go.setId("fold-go");
        go.getStyleClass().add("accent");
        go.setOnAction(e -> model.run(words -> {
            done.accept(words);
            back.run();
        }));
        HBox buttons = new HBox(8, go, Ui.spacer(), Ui.button("protect.back", back, "flat"));
        buttons.setAlignment(Pos.CENTER_LEFT);
        buttons.getStyleClass().add("plan-buttons");
        setBottom(buttons);
        model.familiesProperty().addListener((o, a, all) -> show());
        model.problemProperty().addListener((o, a, p) -> show());
        model.runningProperty().addListener((o, a, r) -> show());
        show();
    }

    private void show() {
        List<Family> all = model.familiesProperty().get();
        problem.setText(model.problemProperty().get());
        Ui.visible(problem, !model.problemProperty().get().isEmpty());
        list.getChildren().clear();
        List<Folding> chosen = model.foldings();
        go.setDisable(chosen.isEmpty() || model.runningProperty().get());
        long copies = chosen.stream()
                .mapToLong(
                        f -> f.order().stream().filter(p -> !p.equals(f.keep())).count())
                .sum();
        go.setText(Words.of("fold.go", chosen.size()));
        if (all == null) {
            sum.setText(Words.of("fold.looking"));
            return;
        }
        if (all.isEmpty()) {
            sum.setText("");
            Label none = Ui.label(Words.of("fold.none"), "dim", "centered");
            none.setWrapText(true);
            StackPane empty = new StackPane(none);
            empty.getStyleClass().add("nothing");
            list.getChildren().add(empty);
            return;
        }
        sum.setText(Words.of("fold.sum", chosen.size(), copies));
        for (int i = 0; i < all.size(); i++) {
            list.getChildren().add(family(i, all.get(i)));
        }
        String wanted = focus;
        if (wanted != null) {
            focus = null;
            javafx.scene.Node node = list.lookup(wanted);
            if (node != null) {
                node.requestFocus();
            }
        }
    }

    private VBox family(int index, Family f) {
        CheckBox include = new CheckBox(Words.of("fold.into"));
        include.setId("fold-include-" + index);
        include.setSelected(model.isIncluded(index));
        include.setOnAction(e -> model.include(index, include.isSelected()));
        TextField keep = new TextField(RelativePath.name(f.keep()));
        keep.setId("fold-keep-" + index);
        keep.setAccessibleText(Words.of("fold.keep"));
        keep.setPrefWidth(260);
        keep.setOnAction(e -> model.keep(index, keep.getText().strip()));
        keep.focusedProperty().addListener((o, was, is) -> {
            if (!is && !keep.getText().strip().equals(RelativePath.name(f.keep()))) {
                model.keep(index, keep.getText().strip());
            }
        });
        String where = RelativePath.parent(f.keep());
        Label facts = Ui.label(
                (where.isEmpty() ? "" : Words.of("fold.in", where) + "  ·  ") + Words.of("fold.versions", f.versions()),
                "dim");
        HBox head = new HBox(10, include, keep, facts);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("sheet-header");
        VBox sheet = new VBox(head);
        sheet.getStyleClass().add("sheet");
        for (int i = 0; i < f.members().size(); i++) {
            sheet.getChildren().add(member(index, f, i));
        }
        for (String path : f.leftOut()) {
            Label left = Ui.label(Words.of("fold.leftOut", RelativePath.name(path)), "dim");
            HBox row = new HBox(left);
            row.getStyleClass().add("fold-row");
            sheet.getChildren().add(row);
        }
        return sheet;
    }

    private HBox member(int family, Family f, int at) {
        Family.Member m = f.members().get(at);
        boolean kept = m.path().equals(f.keep());
        boolean newest = at == f.members().size() - 1;
        Label name = Ui.label(RelativePath.name(m.path()), "point-when");
        Label place = Ui.label(
                Words.of(newest ? "fold.becomesCurrent" : kept ? "fold.isKept" : "fold.becomes"),
                "badge",
                newest ? "badge-moss" : "badge-slate");
        place.setMinWidth(USE_PREF_SIZE);
        Label when = Ui.label(
                Formats.moment(
                                m.modified(),
                                model.context().clock().instant(),
                                model.context().zone()) + "  ·  " + Formats.size(m.size()),
                "dim");
        when.setMinWidth(FACTS);
        when.setPrefWidth(FACTS);
        Label common = Ui.label(
                m.same() ? Words.of("fold.same") : m.shared() < 0 ? "" : Words.of("fold.common", m.shared()),
                "point-change");
        common.setMinWidth(FACTS);
        common.setPrefWidth(FACTS);
        Button up = Ui.iconButton(Feather.ARROW_UP, "fold.earlier", () -> move(family, at, at - 1));
        up.setDisable(at == 0);
        Button down = Ui.iconButton(Feather.ARROW_DOWN, "fold.later", () -> move(family, at, at + 1));
        down.setDisable(newest);
        Button out = Ui.iconButton(Feather.X, "fold.takeOut", () -> model.takeOut(family, m.path()));
        HBox names = new HBox(8, Shapes.leaf(), name, place);
        names.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(names, Priority.ALWAYS);
        HBox row = new HBox(10, names, when, common, up, down, out);
        row.setId("fold-row-" + family + "-" + at);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("fold-row");
        row.setFocusTraversable(true);
        row.setAccessibleRole(javafx.scene.AccessibleRole.LIST_ITEM);
        row.setAccessibleText(String.join(", ", name.getText(), when.getText(), common.getText()));
        row.setOnKeyPressed(e -> {
            if (e.isAltDown() && e.getCode() == KeyCode.UP) {
                move(family, at, at - 1);
                e.consume();
            } else if (e.isAltDown() && e.getCode() == KeyCode.DOWN) {
                move(family, at, at + 1);
                e.consume();
            }
        });
        RowDrag.on(row, family, at, (from, to) -> move(family, from, to));
        return row;
    }

    private void move(int family, int from, int to) {
        focus = "#fold-row-" + family + "-" + to;
        model.move(family, from, to);
    }
}
