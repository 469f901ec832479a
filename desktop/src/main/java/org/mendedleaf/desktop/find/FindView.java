package org.mendedleaf.desktop.find;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.find.FindWords;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** One box for everything that anybody ever wrote, and what was found, file by file. */
public final class FindView extends BorderPane {

    private static final int SPANS_MOST = 3;
    private static final int SAID_MOST = 3;

    private final FindModel model;
    private final TextField box = new TextField();
    private final ListView<FindModel.Hit> list = new ListView<>();
    private final ChoiceBox<@Nullable OpenPlace> in = new ChoiceBox<>();
    private final Consumer<FindModel.Hit> open;

    /**
     * The screen over this model.
     *
     * @param open leads to what was found
     */
    public FindView(FindModel model, Consumer<FindModel.Hit> open) {
        this.model = model;
        this.open = open;
        setId("find");
        getStyleClass().add("find");
        box.setId("find-box");
        box.getStyleClass().add("find-box");
        box.setPromptText(Words.of("find.prompt"));
        box.setAccessibleText(Words.of("find.prompt"));
        box.textProperty().bindBidirectional(model.typedProperty());
        in.setId("find-in");
        in.setAccessibleText(Words.of("find.in"));
        in.setConverter(Choices.said(o -> o.place().label(), Words.of("find.in.all")));
        in.valueProperty().bindBidirectional(model.inProperty());
        TextField kind = field("kind", 6, model.kindProperty());
        HBox limits = new HBox(
                12,
                field("folder", 16, model.folderProperty()),
                field("who", 10, model.whoProperty()),
                field("from", 16, model.fromProperty()),
                field("to", 16, model.toProperty()));
        limits.setAlignment(Pos.CENTER_LEFT);
        HBox narrow = new HBox(
                12,
                in,
                kind,
                choice(model.fieldProperty(), "find.field.", Wanted.Field.values()),
                choice(model.presenceProperty(), "find.presence.", Wanted.Presence.values()));
        narrow.setAlignment(Pos.CENTER_LEFT);
        narrow.setFillHeight(false);
        Label words = Ui.label("", "dim");
        words.setId("find-words");
        Label how = Ui.label(Words.of("find.how"), "dim");
        VBox top = new VBox(10, box, narrow, limits, words);
        top.getStyleClass().add("find-head");
        list.setId("find-hits");
        list.getStyleClass().add("find-list");
        list.setPlaceholder(how);
        list.setCellFactory(v -> new Cell());
        list.setAccessibleText(Words.of("find.hits"));
        BorderPane sheet = new BorderPane(list);
        sheet.setTop(top);
        sheet.getStyleClass().add("sheet");
        setCenter(sheet);
        BorderPane.setMargin(sheet, new javafx.geometry.Insets(14, 24, 14, 24));

        model.answerProperty().addListener((o, a, answer) -> {
            list.getItems().setAll(answer.hits());
            words.setText(answer.words());
            how.setText(model.typedProperty().get().isBlank() ? Words.of("find.how") : Words.of("find.none"));
        });
        box.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.DOWN && !list.getItems().isEmpty()) {
                list.requestFocus();
                list.getSelectionModel().select(0);
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER && !list.getItems().isEmpty()) {
                open.accept(list.getItems().get(0));
                e.consume();
            }
        });
        list.addEventHandler(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.ENTER) {
                go();
                e.consume();
            } else if (e.getCode() == KeyCode.UP && list.getSelectionModel().getSelectedIndex() <= 0) {
                box.requestFocus();
            }
        });
        list.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                go();
            }
        });
    }

    private static TextField field(String name, int columns, javafx.beans.property.StringProperty to) {
        TextField field = new TextField();
        field.setId("find-" + name);
        field.getStyleClass().add("find-limit");
        field.setPromptText(Words.of("find." + name));
        field.setAccessibleText(Words.of("find." + name));
        field.setPrefColumnCount(columns);
        field.textProperty().bindBidirectional(to);
        return field;
    }

    private void go() {
        FindModel.Hit hit = list.getSelectionModel().getSelectedItem();
        if (hit != null) {
            open.accept(hit);
        }
    }

    private static <T extends Enum<T>> HBox choice(javafx.beans.property.ObjectProperty<T> to, String key, T[] values) {
        ToggleGroup group = new ToggleGroup();
        HBox box = new HBox();
        for (int i = 0; i < values.length; i++) {
            T value = values[i];
            ToggleButton button = new ToggleButton(Words.of(key + value.name()));
            button.setId((key + value.name()).replace('.', '-').toLowerCase(java.util.Locale.ROOT));
            button.setToggleGroup(group);
            button.getStyleClass()
                    .addAll("small", i == 0 ? "left-pill" : i == values.length - 1 ? "right-pill" : "center-pill");
            button.setSelected(to.get() == value);
            button.setOnAction(e -> {
                button.setSelected(true);
                to.set(value);
            });
            to.addListener((o, a, b) -> button.setSelected(b == value));
            box.getChildren().add(button);
        }
        return box;
    }

    /** The words to mark in what is opened: the first that was typed. */
    public String words() {
        try {
            return Wanted.parse(model.typedProperty().get(), true, Wanted.Narrow.NOT)
                    .terms()
                    .get(0)
                    .text();
        } catch (IllegalArgumentException e) {
            return "";
        }
    }

    /** Makes ready for typing. */
    public void begin() {
        List<@Nullable OpenPlace> places = new ArrayList<>();
        places.add(null);
        places.addAll(model.places());
        OpenPlace before = model.inProperty().get();
        in.getItems().setAll(places);
        in.setValue(places.contains(before) ? before : null);
        model.ask();
        javafx.application.Platform.runLater(() -> {
            box.requestFocus();
            box.selectAll();
        });
    }

    private final class Cell extends ListCell<FindModel.Hit> {
        Cell() {
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(FindModel.@Nullable Hit hit, boolean empty) {
            super.updateItem(hit, empty);
            setText(null);
            if (empty || hit == null) {
                setGraphic(null);
                return;
            }
            if (hit instanceof FindModel.OfSnapshot snapshot) {
                setGraphic(snapshot(snapshot));
                return;
            }
            setGraphic(file(((FindModel.OfFile) hit).file()));
        }

        private HBox snapshot(FindModel.OfSnapshot hit) {
            String when = Formats.moment(
                    hit.snapshot().at(),
                    model.context().clock().instant(),
                    model.context().zone());
            HBox row = new HBox(
                    8,
                    Ui.label(Words.of("find.snapshotBadge"), "badge", "badge-slate"),
                    Ui.label(hit.snapshot().label(), "find-name"),
                    Ui.label(hit.openPlace().place().label() + " · " + when, "dim"));
            row.setAlignment(Pos.CENTER_LEFT);
            return row;
        }

        private VBox file(Finder.FileHit found) {
            Line line = found.line();
            HBox head = new HBox(8, Shapes.leaf(), Ui.label(line.name(), "find-name"), Ui.label(where(line), "dim"));
            head.setAlignment(Pos.CENTER_LEFT);
            if (line.removed().isPresent()) {
                head.getChildren().add(Ui.label(Words.of("find.removedBadge"), "badge", "badge-clay"));
            }
            VBox box = new VBox(2, head);
            found.spans().stream().limit(SPANS_MOST).forEach(s -> {
                Label span = Ui.label(FindWords.of(line, s, FindView.this::when), "find-span");
                span.setWrapText(true);
                box.getChildren().add(span);
            });
            if (!found.snippet().isEmpty()) {
                TextFlow snippet = snippet(found.snippet());
                snippet.maxWidthProperty().bind(list.widthProperty().subtract(80));
                box.getChildren().add(snippet);
            }
            found.said().stream()
                    .limit(SAID_MOST)
                    .forEach(s -> box.getChildren().add(Ui.label(FindWords.of(line, s), "dim")));
            HBox.setHgrow(box, Priority.ALWAYS);
            return box;
        }
    }

    private static String where(Line line) {
        String folder = RelativePath.parent(line.path());
        return folder.isEmpty() ? line.place().label() : line.place().label() + " › " + folder.replace("/", " › ");
    }

    private String when(Version v) {
        return Formats.moment(
                v.saved(), model.context().clock().instant(), model.context().zone());
    }

    /** The words that were looked for stand between two signs. */
    private static TextFlow snippet(String marked) {
        TextFlow flow = new TextFlow();
        boolean in = false;
        for (String part : marked.split("[\u0002\u0003]", -1)) {
            Text text = new Text(part);
            text.getStyleClass().add(in ? "find-mark" : "find-text");
            if (!part.isEmpty()) {
                flow.getChildren().add(text);
            }
            in = !in;
        }
        return flow;
    }
}
