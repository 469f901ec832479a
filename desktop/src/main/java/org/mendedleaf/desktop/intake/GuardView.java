package org.mendedleaf.desktop.intake;

import java.io.IOException;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.PutService;
import org.mendedleaf.desktop.document.DifferenceView;
import org.mendedleaf.desktop.document.DocumentViews;
import org.mendedleaf.desktop.document.PairWork;
import org.mendedleaf.desktop.document.Pictures;
import org.mendedleaf.desktop.widgets.Ui;

/** Shows a doubtful revision beside what it would replace, with the reasons for the doubt, and asks for a yes. */
public final class GuardView extends BorderPane {

    private final GuardModel model;
    private final Label problem = Ui.label("", "error-text");

    /**
     * The view.
     *
     * @param leave goes back to the files
     */
    public GuardView(GuardModel model, PutService.Hearer hearer, Runnable leave) {
        this.model = model;
        getStyleClass().addAll("files", "plan");
        setId("guard");
        Label title = Ui.label(model.heading(), "big-title");
        title.setId("guard-title");
        title.setMinWidth(0);
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "guard.leave", leave));
        head.setAlignment(Pos.CENTER_LEFT);
        Judgement j = model.doubt().judgement();
        boolean unlikely = j.outcome() == Judgement.Outcome.UNLIKELY;
        Label outcome =
                Ui.label(Words.of("guard.outcome." + j.outcome()), "badge", unlikely ? "badge-clay" : "badge-gold");
        outcome.setId("guard-outcome");
        VBox reasons = new VBox(4);
        reasons.setId("guard-reasons");
        for (Judgement.Reason r : model.reasons()) {
            reasons.getChildren().add(reason(r));
        }
        VBox why = new VBox(8, outcome, reasons);
        why.getStyleClass().add("guard-why");
        problem.setWrapText(true);
        Ui.visible(problem, false);
        model.problemProperty().addListener((o, a, words) -> {
            problem.setText(words);
            Ui.visible(problem, !words.isEmpty());
        });
        VBox top = new VBox(12, head, why, problem);
        top.getStyleClass().add("plan-top");
        setTop(top);

        BorderPane left = side("guard.replaced");
        BorderPane right = side("guard.incoming");
        model.currentProperty().addListener((o, a, s) -> show(left, s, "guard.replaced"));
        model.incomingProperty().addListener((o, a, s) -> show(right, s, "guard.incoming"));
        show(left, model.currentProperty().get(), "guard.replaced");
        show(right, model.incomingProperty().get(), "guard.incoming");
        GridPane both = new GridPane();
        both.getStyleClass().add("guard-sides");
        both.addRow(0, left, right);
        for (int i = 0; i < 2; i++) {
            javafx.scene.layout.ColumnConstraints half = new javafx.scene.layout.ColumnConstraints();
            half.setPercentWidth(50);
            both.getColumnConstraints().add(half);
        }
        GridPane.setVgrow(left, Priority.ALWAYS);
        GridPane.setVgrow(right, Priority.ALWAYS);
        setCenter(both);
        setBottom(buttons(hearer, leave, unlikely));
        addEventFilter(javafx.scene.input.KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ESCAPE && !DifferenceView.leave(this)) {
                leave.run();
                e.consume();
            } else if (e.getCode() == javafx.scene.input.KeyCode.ESCAPE) {
                e.consume();
            }
        });
    }

    /** Opens what the revision would change. */
    private void look() {
        DifferenceView.open(
                this,
                new DifferenceView.Files() {
                    @Override
                    public int size() {
                        return 1;
                    }

                    @Override
                    public String path(int number) {
                        return model.doubt().target();
                    }

                    @Override
                    public Pair pair(int number) throws IOException {
                        return model.pair();
                    }
                },
                0,
                new PairWork(model.context().background()));
    }

    private static HBox reason(Judgement.Reason r) {
        Label sign = Ui.label(r.against() ? "!" : "✓", r.against() ? "clay-text" : "dim", "guard-sign");
        Label words = Ui.label(r.words(), r.against() ? "guard-against" : "dim");
        words.setWrapText(true);
        return new HBox(8, sign, words);
    }

    private static BorderPane side(String id) {
        BorderPane pane = new BorderPane();
        pane.setId(id.replace('.', '-'));
        pane.getStyleClass().add("sheet");
        pane.setMinHeight(0);
        return pane;
    }

    private static void show(BorderPane pane, GuardModel.@Nullable Side side, String key) {
        Label what = Ui.label(Words.of(key), "form-name");
        VBox header = new VBox(2, what);
        header.getStyleClass().add("sheet-header");
        pane.setTop(header);
        if (side == null) {
            pane.setCenter(DocumentViews.message(Words.of("guard.reading")).node());
            return;
        }
        Label title = Ui.label(side.title(), "line-title");
        Label facts = Ui.label(side.facts(), "line-summary");
        header.getChildren().addAll(title, facts);
        Optional<Document> document = side.document();
        Node node = document.isPresent()
                ? DocumentViews.of(document.get(), DocumentViews.Choices.SMALL, Pictures.NONE, path -> {
                            // Members of what comes in are looked at once it is in.
                        })
                        .node()
                : DocumentViews.message(Words.of("guard.noPreview")).node();
        BorderPane.setMargin(node, new javafx.geometry.Insets(4, 0, 8, 0));
        pane.setCenter(node);
    }

    private HBox buttons(PutService.Hearer hearer, Runnable leave, boolean unlikely) {
        HBox buttons = new HBox(8);
        Button leaveIt = Ui.button("guard.leave", leave, unlikely ? "accent" : "flat");
        leaveIt.setId("guard-leave");
        Button anyway = Ui.button("guard.anyway", () -> model.putAnyway(hearer), unlikely ? "danger-text" : "accent");
        anyway.setId("guard-anyway");
        if (unlikely) {
            buttons.getChildren().add(leaveIt);
        } else {
            buttons.getChildren().add(anyway);
        }
        if (model.canRestore()) {
            Button restore = new Button(
                    Words.of("guard.restoreInstead", model.doubt().judgement().identicalTo()));
            restore.setId("guard-restore");
            restore.setOnAction(e -> model.restore(hearer));
            buttons.getChildren().add(restore);
        }
        model.belongsTo().ifPresent(path -> {
            Button there = new Button(Words.of("guard.there", RelativePath.name(path)));
            there.setId("guard-there");
            there.setOnAction(e -> model.putThere(hearer));
            buttons.getChildren().add(there);
        });
        Button look = Ui.button("difference.open", this::look);
        look.setId("guard-look");
        buttons.getChildren().add(look);
        TextField note = new TextField();
        note.setId("guard-note");
        note.setPromptText(Words.of("put.notePrompt"));
        note.setAccessibleText(Words.of("put.notePrompt"));
        note.textProperty().bindBidirectional(model.noteProperty());
        HBox.setHgrow(note, Priority.ALWAYS);
        buttons.getChildren().add(note);
        buttons.getChildren().add(unlikely ? anyway : leaveIt);
        buttons.setAlignment(Pos.CENTER_LEFT);
        buttons.getStyleClass().add("plan-buttons");
        javafx.application.Platform.runLater(unlikely ? leaveIt::requestFocus : anyway::requestFocus);
        return buttons;
    }
}
