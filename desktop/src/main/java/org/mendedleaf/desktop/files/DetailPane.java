package org.mendedleaf.desktop.files;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.document.DocumentView;
import org.mendedleaf.desktop.document.DocumentViews;
import org.mendedleaf.desktop.document.Pictures;
import org.mendedleaf.desktop.widgets.Ui;

/** What is shown of the chosen version: its content, its difference to now, or facts. */
final class DetailPane extends BorderPane {

    private final LineModel line;
    private final NotesPane notes;
    private final Label title = Ui.label("", "detail-title");
    private final Label words = Ui.label("", "detail-words");

    DetailPane(LineModel line, NotesPane notes) {
        this.line = line;
        this.notes = notes;
        setId("detail");
        getStyleClass().add("detail");
        ToggleGroup group = new ToggleGroup();
        HBox modes = new HBox(
                toggle(group, "detail.changes", Detail.Mode.CHANGES, "left-pill"),
                toggle(group, "detail.content", Detail.Mode.CONTENT, "center-pill"),
                toggle(group, "detail.facts", Detail.Mode.FACTS, "center-pill"),
                toggle(group, "detail.notes", Detail.Mode.NOTES, "right-pill"));
        HBox.setHgrow(words, Priority.ALWAYS);
        title.setMinWidth(0);
        words.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(8, modes, Ui.spacer(), title, words);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("detail-head");
        setTop(head);
        line.detailProperty().addListener((o, a, detail) -> show(detail));
        show(line.detailProperty().get());
    }

    /** What stands before both is said once, as in "version 1 → 2": there is little width. */
    static String between(String before, String after) {
        int end = before.lastIndexOf(' ') + 1;
        boolean same = end > 0 && after.length() > end && after.startsWith(before.substring(0, end));
        return Words.of("detail.between", before, same ? after.substring(end) : after);
    }

    private ToggleButton toggle(ToggleGroup group, String key, Detail.Mode mode, String style) {
        ToggleButton button = new ToggleButton(Words.of(key));
        button.setToggleGroup(group);
        button.getStyleClass().addAll("small", style);
        button.setId(key.replace('.', '-'));
        button.setSelected(line.modeProperty().get() == mode);
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(e -> {
            button.setSelected(true);
            line.modeProperty().set(mode);
        });
        line.modeProperty().addListener((o, a, m) -> button.setSelected(m == mode));
        return button;
    }

    private void show(Detail detail) {
        title.setText("");
        words.setText("");
        if (detail instanceof Detail.Seen seen) {
            setCenter(content(seen));
        } else if (detail instanceof Detail.Compared compared) {
            title.setText(between(compared.before(), compared.after()));
            words.setText(compared.comparison().words());
            setCenter(changes(compared));
        } else if (detail instanceof Detail.Facts facts) {
            setCenter(facts(facts.facts()));
        } else if (detail instanceof Detail.Notes said) {
            setCenter(notes.show(said));
        } else if (detail instanceof Detail.Away away) {
            setCenter(away(away));
        } else if (detail instanceof Detail.Failed failed) {
            setCenter(DocumentViews.message(failed.words()).node());
        } else {
            setCenter(DocumentViews.message("").node());
        }
    }

    private Node away(Detail.Away away) {
        Label label = Ui.label(away.words(), "dim", "centered");
        label.setWrapText(true);
        VBox box = new VBox(12, label);
        box.setAlignment(javafx.geometry.Pos.CENTER);
        box.getStyleClass().add("detail-message");
        if (line.canTake()) {
            javafx.scene.control.Button take = Ui.button("line.take", line::take);
            take.setId("take");
            box.getChildren().add(take);
        }
        return box;
    }

    private Node content(Detail.Seen seen) {
        boolean first = line.modeProperty().get() == Detail.Mode.CHANGES
                && seen.member().isEmpty()
                && seen.said().isEmpty();
        title.setText(first ? Words.of("detail.first") : seen.said().isEmpty() ? seen.member() : seen.said());
        words.setText(DocumentViews.isCut(seen.document()) ? Words.of("detail.cut") : "");
        return DocumentViews.of(
                        seen.document(),
                        DocumentViews.Choices.SMALL,
                        seen.member().isEmpty() ? line.pictures() : Pictures.NONE,
                        path -> line.memberProperty().set(path))
                .node();
    }

    private Node changes(Detail.Compared compared) {
        DocumentView look = DocumentViews.of(
                compared.comparison(),
                DocumentViews.Choices.SMALL,
                new DocumentViews.Titles(compared.before(), compared.after()),
                line.pictures(),
                path -> line.memberProperty().set(path));
        if (look.changes() > 0) {
            look.goTo(1);
        }
        return look.node();
    }

    static Node facts(List<Detail.Fact> facts) {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("facts");
        int row = 0;
        for (Detail.Fact fact : facts) {
            Label name = Ui.label(fact.name(), "dim");
            name.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
            TextField value = new TextField(fact.value());
            value.setEditable(false);
            value.getStyleClass().add("fact-value");
            value.setAccessibleText(fact.name());
            GridPane.setHgrow(value, Priority.ALWAYS);
            grid.addRow(row++, name, value);
        }
        ScrollPane scroll = new ScrollPane(grid);
        scroll.setFitToWidth(true);
        return scroll;
    }
}
