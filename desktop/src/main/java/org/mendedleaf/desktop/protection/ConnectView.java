package org.mendedleaf.desktop.protection;

import javafx.beans.property.StringProperty;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** The sheet on which a system is connected, or a place is made in one. */
final class ConnectView extends StackPane {

    private final ConnectModel model;
    private final VBox outlook = new VBox(2);

    /**
     * The sheet.
     *
     * @param connection in which a place is made; null to connect a system
     * @param back goes back, done or not
     */
    ConnectView(AppContext context, @Nullable Connection connection, Runnable back) {
        this.model = new ConnectModel(context);
        getStyleClass().add("protect");
        VBox sheet = new VBox(14);
        sheet.getStyleClass().addAll("sheet", "protect-sheet");
        sheet.setMaxWidth(640);
        sheet.setMaxHeight(USE_PREF_SIZE);
        String title = connection == null ? Words.of("connect.title") : Words.of("place.title", connection.name());
        HBox head = new HBox(14, Shapes.mark(), Ui.label(title, "big-title"));
        head.setAlignment(Pos.CENTER_LEFT);
        Label text = Ui.label(Words.of(connection == null ? "connect.text" : "place.text"), "dim");
        text.setWrapText(true);
        GridPane form = new GridPane();
        form.getStyleClass().add("form");
        Button go = Ui.button(connection == null ? "connect.go" : "place.go", () -> {}, "accent", "large");
        go.setId("connect-go");
        go.setDefaultButton(true);
        if (connection == null) {
            row(form, "connect.name", field(model.nameProperty(), "connect-name", "connect.name.prompt", false));
            row(
                    form,
                    "connect.address",
                    field(model.addressProperty(), "connect-address", "connect.address.prompt", false));
            row(form, "connect.token", field(model.tokenProperty(), "connect-token", "connect.token.prompt", true));
            CheckBox plain = new CheckBox(Words.of("connect.plainAnyway"));
            plain.setId("connect-plain");
            plain.setWrapText(true);
            plain.selectedProperty().bindBidirectional(model.plainProperty());
            form.add(plain, 1, form.getRowCount());
            Ui.visible(plain, false);
            model.addressProperty().addListener((o, a, b) -> Ui.visible(plain, model.isPlain()));
            go.setOnAction(e -> model.connect(back));
            go.disableProperty()
                    .bind(model.nameProperty()
                            .isEmpty()
                            .or(model.addressProperty().isEmpty())
                            .or(model.busyProperty()));
        } else {
            place(form, connection);
            go.setOnAction(e -> model.create(connection, back));
            go.disableProperty().bind(model.placeProperty().isEmpty().or(model.busyProperty()));
        }
        Label problem = Ui.label("", "error-text");
        problem.setId("connect-problem");
        problem.setWrapText(true);
        problem.textProperty().bind(model.problemProperty());
        CheckBox trusted = new CheckBox(Words.of("connect.trust"));
        trusted.setId("connect-trust");
        trusted.setWrapText(true);
        trusted.selectedProperty().bindBidirectional(model.trustedProperty());
        Ui.visible(trusted, false);
        model.certificateProperty().addListener((o, a, shown) -> Ui.visible(trusted, !shown.isEmpty()));
        outlook.getStyleClass().add("outlook");
        Ui.visible(outlook, connection != null);
        HBox buttons = new HBox(8, go, Ui.button("protect.back", back, "flat"));
        buttons.setAlignment(Pos.CENTER_LEFT);
        sheet.getChildren().addAll(head, text, form, outlook, problem, trusted, buttons);
        StackPane middle = new StackPane(sheet);
        middle.getStyleClass().add("protect-middle");
        getChildren().add(middle);
    }

    private void place(GridPane form, Connection c) {
        row(form, "place.name", field(model.placeProperty(), "place-name", "place.name.prompt", false));
        for (Setting s : c.kind().settings()) {
            row(form, "setting." + s.text(), SettingField.of(c.kind(), s, s.standard(), value -> {
                model.choose(s, value);
                showOutlook(c);
            }));
        }
        if (c.kind().can(Capability.MEMBERS)) {
            row(form, "place.members", field(model.membersProperty(), "place-members", "place.members.prompt", false));
            model.membersProperty().addListener((o, a, b) -> showOutlook(c));
        }
        showOutlook(c);
    }

    private void showOutlook(Connection c) {
        outlook.getChildren()
                .setAll(model.outlook(c).stream()
                        .map(w -> {
                            Label label = Ui.label(w);
                            label.setWrapText(true);
                            return label;
                        })
                        .toList());
    }

    private static void row(GridPane form, String key, javafx.scene.Node control) {
        Label label = Ui.label(Words.of(key), "form-name");
        label.setMinWidth(USE_PREF_SIZE);
        form.addRow(form.getRowCount(), label, control);
        GridPane.setHgrow(control, Priority.ALWAYS);
    }

    private static TextField field(StringProperty value, String id, String prompt, boolean secret) {
        TextField field = secret ? new PasswordField() : new TextField();
        field.setId(id);
        field.setPromptText(Words.of(prompt));
        field.setAccessibleText(Words.of(prompt));
        field.textProperty().bindBidirectional(value);
        return field;
    }
}
