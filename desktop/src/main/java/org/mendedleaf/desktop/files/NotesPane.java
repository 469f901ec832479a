package org.mendedleaf.desktop.files;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;

/** The note of a version and the comments below it, and what its file is filed under. */
final class NotesPane extends ScrollPane {

    private final LineActions actions;
    private final VBox body = new VBox(10);
    private @Nullable Version shown;

    NotesPane(LineActions actions) {
        this.actions = actions;
        setId("notes");
        body.getStyleClass().add("notes-body");
        setContent(body);
        setFitToWidth(true);
    }

    NotesPane show(Detail.Notes notes) {
        Version v = notes.version();
        LineRemarks said = notes.said();
        boolean same = shown != null && shown.line() == v.line() && shown.number() == v.number();
        // What somebody is typing stays when the line is looked at again.
        TextField typing = same ? typing() : null;
        String typed = typing == null ? "" : typing.getText();
        String where = typing == null ? "" : String.valueOf(typing.getId());
        shown = v;
        body.getChildren().setAll(note(v, said), comments(v, said), card(said));
        if (typing != null && body.lookup("#" + where) instanceof TextField again) {
            again.setText(typed);
            again.requestFocus();
            again.end();
        }
        return this;
    }

    private @Nullable TextField typing() {
        return getScene() != null && getScene().getFocusOwner() instanceof TextField t && isWithin(t) ? t : null;
    }

    private boolean isWithin(javafx.scene.Node node) {
        for (javafx.scene.Node n = node; n != null; n = n.getParent()) {
            if (n == body) {
                return true;
            }
        }
        return false;
    }

    private HBox note(Version v, LineRemarks said) {
        TextField field = new TextField(v.note());
        field.setId("note-text");
        field.setPromptText(Words.of("notes.prompt", v.edition().label()));
        field.setAccessibleText(Words.of("notes.note"));
        field.setEditable(said.rights().may(Permission.NOTE));
        HBox.setHgrow(field, Priority.ALWAYS);
        Button save =
                Ui.button("notes.save", () -> actions.note(v, field.getText().strip()), "small");
        save.setId("note-save");
        save.disableProperty().bind(field.textProperty().isEqualTo(v.note()));
        Ui.visible(save, said.rights().may(Permission.NOTE));
        field.setOnAction(e -> save.fire());
        return row(Words.of("notes.note"), field, save);
    }

    private static HBox row(String name, javafx.scene.Node... nodes) {
        Label label = Ui.label(name, "form-name");
        label.setMinWidth(86);
        HBox row = new HBox(8, label);
        row.getChildren().addAll(nodes);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private VBox comments(Version v, LineRemarks said) {
        VBox list = new VBox(6);
        list.setId("comments");
        List<Comment> all = said.comments(v.number());
        for (Comment c : all) {
            Label words = Ui.label(c.words(), "comment-words");
            words.setWrapText(true);
            Label who = Ui.label(Words.of("notes.by", c.who(), actions.moment(c.at())), "dim", "small-words");
            list.getChildren().add(new VBox(0, words, who));
        }
        TextField field = new TextField();
        field.setId("comment-text");
        field.setPromptText(Words.of("notes.commentPrompt"));
        field.setAccessibleText(Words.of("notes.commentPrompt"));
        HBox.setHgrow(field, Priority.ALWAYS);
        Button add = Ui.button(
                "notes.comment",
                () -> {
                    String words = field.getText().strip();
                    field.clear();
                    actions.comment(v, words);
                },
                "small");
        add.setId("comment-add");
        add.disableProperty().bind(field.textProperty().isEmpty());
        field.setOnAction(e -> add.fire());
        list.getChildren().add(row(Words.of("notes.comments"), field, add));
        return list;
    }

    private GridPane card(LineRemarks said) {
        boolean may = said.rights().may(Permission.NOTE);
        TextField category = new TextField(said.card().category());
        category.setId("card-category");
        category.setPromptText(Words.of("notes.categoryPrompt"));
        category.setAccessibleText(Words.of("notes.category"));
        category.setEditable(may);
        ComboBox<FileProperties.Visibility> visible =
                Choices.of(List.of(FileProperties.Visibility.values()), x -> Words.of("visibility." + x));
        visible.setId("card-visible");
        visible.setValue(said.card().visibility());
        visible.setDisable(!may);
        visible.setAccessibleText(Words.of("notes.visible"));
        Runnable save = () -> {
            FileProperties card = new FileProperties(category.getText().strip(), visible.getValue());
            if (!card.equals(said.card())) {
                actions.card(card);
            }
        };
        category.setOnAction(e -> save.run());
        category.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                save.run();
            }
        });
        visible.valueProperty().addListener((o, a, x) -> save.run());
        GridPane grid = new GridPane();
        grid.getStyleClass().add("form");
        Label under = Ui.label(Words.of("notes.category"), "form-name");
        under.setMinWidth(86);
        grid.addRow(0, under, category, Ui.label(Words.of("notes.visible"), "form-name"), visible);
        GridPane.setHgrow(category, Priority.ALWAYS);
        return grid;
    }
}
