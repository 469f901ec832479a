package org.mendedleaf.desktop.recovery;

import java.io.File;
import java.io.IOException;
import java.time.Instant;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.compare.CompareWords;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.compare.TwoMoments.Change;
import org.mendedleaf.core.compare.TwoMoments.Kind;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.document.DifferenceView;
import org.mendedleaf.desktop.document.PairWork;
import org.mendedleaf.desktop.widgets.MomentField;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** What became of the files of a folder from one moment to another. */
public final class CompareView extends BorderPane {

    private final CompareModel model;
    private final TableView<Change> table = Tables.table("compare-table", "moments.empty");
    private final TableColumn<Change, Change> movedFrom;
    private final Label sum = Ui.label("", "small-title");
    private final Label problem = Ui.label("", "error-text");
    private final HBox kinds = new HBox(4);
    private final Consumer<Change> reveal;

    /**
     * The view.
     *
     * @param first the earlier moment to begin with; null lets it be typed
     * @param saveAsk asks for a file to write, with a name to begin with
     * @param reveal goes to a file's line
     * @param back goes back to the files
     * @param said says in the message bar what was done
     */
    public CompareView(
            CompareModel model,
            @Nullable Instant first,
            Function<String, Optional<File>> saveAsk,
            Consumer<Change> reveal,
            Runnable back,
            Consumer<String> said) {
        this.model = model;
        this.reveal = reveal;
        this.movedFrom = Tables.words("moments.column.from", 260, this::from, Comparator.comparing(this::from));
        getStyleClass().addAll("files", "past", "plan");
        String where = model.folder().isEmpty()
                ? model.openPlace().place().label()
                : model.openPlace().place().label() + " › " + model.folder().replace("/", " › ");
        Label title = Ui.label(Words.of("moments.title", where), "big-title");
        title.setMinWidth(0);
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "plan.close", back));
        head.setAlignment(Pos.CENTER_LEFT);
        MomentField from = field("compare-from", model.fromProperty());
        MomentField to = field("compare-to", model.toProperty());
        HBox moments = new HBox(
                12,
                Ui.label(Words.of("moments.fromLabel"), "form-name"),
                from,
                Ui.label(Words.of("moments.toLabel"), "form-name"),
                to);
        moments.getStyleClass().add("compare-moments");
        TextField filter = new TextField();
        filter.setId("compare-filter");
        filter.setPromptText(Words.of("moments.filter"));
        filter.setAccessibleText(Words.of("moments.filter"));
        filter.setPrefColumnCount(18);
        filter.textProperty().bindBidirectional(model.filterProperty());
        Button save = Ui.button(
                "moments.save",
                () -> saveAsk.apply(Words.of("moments.fileName"))
                        .ifPresent(f -> model.save(f.toPath(), () -> said.accept(Words.of("plan.saved", f)))));
        save.setId("compare-save");
        kinds.getStyleClass().add("filters-bare");
        kinds.setAlignment(Pos.CENTER_LEFT);
        HBox row = new HBox(12, kinds, Ui.spacer(), filter, save);
        row.setAlignment(Pos.CENTER_LEFT);
        sum.setId("compare-sum");
        problem.setId("compare-problem");
        problem.textProperty().bind(model.problemProperty());
        problem.visibleProperty().bind(problem.textProperty().isNotEmpty());
        problem.managedProperty().bind(problem.visibleProperty());
        VBox top = new VBox(10, head, moments, problem, sum, row);
        top.getStyleClass().add("plan-top");
        setTop(top);
        columns();
        VBox sheet = new VBox(table);
        VBox.setVgrow(table, Priority.ALWAYS);
        sheet.getStyleClass().add("sheet");
        BorderPane middle = new BorderPane(sheet);
        middle.getStyleClass().add("plan-middle");
        setCenter(middle);
        Label hint = Ui.label(Words.of("moments.hint"), "dim");
        Button look = Ui.button("difference.open", this::look, "accent");
        look.setId("compare-look");
        look.disableProperty()
                .bind(table.getSelectionModel().selectedItemProperty().isNull());
        Button line = Ui.button("moments.line", this::revealSelected);
        line.setId("compare-line");
        line.disableProperty()
                .bind(table.getSelectionModel().selectedItemProperty().isNull());
        HBox buttons = new HBox(12, look, line, hint, Ui.spacer(), Ui.button("protect.back", back, "flat"));
        buttons.setAlignment(Pos.CENTER_LEFT);
        buttons.getStyleClass().add("plan-buttons");
        setBottom(buttons);
        model.wholeProperty().addListener((o, a, all) -> show(all));
        model.shownProperty().addListener((o, a, rows) -> table.getItems().setAll(rows));
        to.text().setText(Words.of("moment.vocabulary.now"));
        from.text().setText(first == null ? Words.of("moments.start") : iso(first));
    }

    private String iso(Instant at) {
        return at.atZone(model.context().zone()).toOffsetDateTime().toString();
    }

    private MomentField field(String id, javafx.beans.property.ObjectProperty<@Nullable Instant> moment) {
        MomentField field = new MomentField(model.context(), id, model::understand);
        field.setPrefWidth(330);
        field.momentProperty().addListener((o, a, at) -> {
            if (at != null) {
                moment.set(field.isNow() ? Moment.FAR : at);
            }
        });
        return field;
    }

    /** Where files came from is worth a column only when some did. */
    private void showMoved(boolean any) {
        table.getColumns().remove(movedFrom);
        if (any) {
            table.getColumns().add(2, movedFrom);
        }
    }

    private static String change(Change c) {
        long by = c.sizeAfter() - c.sizeBefore();
        return by != 0 ? Formats.sizeChange(by) : c.kind() == Kind.CHANGED ? Words.of("moments.sameSize") : "";
    }

    private void columns() {
        table.getColumns()
                .add(Tables.nodes("moments.column.kind", 150, CompareView::kind, Comparator.comparing(Change::kind)));
        table.getColumns()
                .add(Tables.words("plan.column.file", 420, c -> within(c.path()), Comparator.comparing(Change::path)));
        table.getColumns()
                .add(Tables.figures(
                        "moments.column.before",
                        100,
                        c -> c.before().isEmpty() ? "" : Formats.size(c.sizeBefore()),
                        Comparator.comparing(Change::sizeBefore)));
        table.getColumns()
                .add(Tables.figures(
                        "moments.column.after",
                        100,
                        c -> c.after().isEmpty() ? "" : Formats.size(c.sizeAfter()),
                        Comparator.comparing(Change::sizeAfter)));
        table.getColumns()
                .add(Tables.figures(
                        "moments.column.change",
                        110,
                        CompareView::change,
                        Comparator.comparing((Change c) -> c.sizeAfter() - c.sizeBefore())));
        table.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                look();
            }
        });
        table.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                look();
                e.consume();
            }
        });
    }

    /** Opens what changed in the selected file. */
    private void look() {
        List<Change> listed = List.copyOf(table.getItems());
        int selected = table.getSelectionModel().getSelectedIndex();
        if (selected < 0) {
            return;
        }
        DifferenceView.open(
                this,
                new DifferenceView.Files() {
                    @Override
                    public int size() {
                        return listed.size();
                    }

                    @Override
                    public String path(int number) {
                        return listed.get(number).path();
                    }

                    @Override
                    public Pair pair(int number) throws IOException {
                        return model.pair(listed.get(number));
                    }

                    @Override
                    public void went(int number) {
                        table.getSelectionModel().clearAndSelect(number);
                        table.scrollTo(Math.max(0, number - 3));
                    }
                },
                selected,
                new PairWork(model.context().background()));
    }

    private void revealSelected() {
        Change c = table.getSelectionModel().getSelectedItem();
        if (c != null) {
            reveal.accept(c);
        }
    }

    private static Node kind(Change c) {
        String style = switch (c.kind()) {
            case ADDED -> "badge-moss";
            case REMOVED -> "badge-clay";
            case CHANGED -> "badge-gold";
            case MOVED, MOVED_AND_CHANGED -> "badge-slate";
        };
        return Tables.badge(Words.of("compare.kind." + c.kind()), style);
    }

    /** A path within the folder that is compared. */
    private String within(String path) {
        String folder = model.folder();
        return folder.isEmpty() || !path.startsWith(folder + "/") ? path : path.substring(folder.length() + 1);
    }

    private String from(Change c) {
        boolean moved = c.kind() == Kind.MOVED || c.kind() == Kind.MOVED_AND_CHANGED;
        return moved ? within(c.before().orElseThrow().path()) : "";
    }

    private void show(@Nullable TwoMoments all) {
        sum.setText(all == null ? "" : CompareWords.sum(all));
        kinds.getChildren().clear();
        if (all == null) {
            return;
        }
        showMoved(all.count(Kind.MOVED) + all.count(Kind.MOVED_AND_CHANGED) > 0);
        Set<Kind> on = EnumSet.noneOf(Kind.class);
        for (Kind k : Kind.values()) {
            if (all.count(k) > 0) {
                ToggleButton button = new ToggleButton(
                        Words.of("plan.filter", Words.of("compare.kind." + k), Formats.number(all.count(k))));
                button.setOnAction(e -> {
                    if (button.isSelected()) {
                        on.add(k);
                    } else {
                        on.remove(k);
                    }
                    model.kindsProperty().set(on.isEmpty() ? Set.of() : EnumSet.copyOf(on));
                });
                kinds.getChildren().add(button);
            }
        }
        model.kindsProperty().set(Set.of());
    }
}
