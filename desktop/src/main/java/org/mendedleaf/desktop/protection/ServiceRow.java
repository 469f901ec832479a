package org.mendedleaf.desktop.protection;

import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** One line: whether files are kept when this window is closed, and the switch for it. */
final class ServiceRow extends HBox {

    private final Label words = Ui.label("", "dim");
    private final Button on;
    private final Button off;

    ServiceRow(ServiceModel model, TraySwitchModel traySwitch) {
        super(10);
        setId("service-row");
        setAlignment(Pos.CENTER_LEFT);
        FontIcon icon = new FontIcon(Feather.POWER);
        icon.getStyleClass().add("service-icon");
        words.setId("service-words");
        words.setMinWidth(0);
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        on = Ui.button("service.on", () -> ask(model::install), "small");
        on.setId("service-on");
        off = Ui.button("service.off", () -> ask(model::remove), "small", "flat");
        off.setId("service-off");
        on.setMinWidth(USE_PREF_SIZE);
        off.setMinWidth(USE_PREF_SIZE);
        CheckBox tray = new CheckBox(Words.of("service.tray"));
        tray.setId("service-tray");
        tray.setMinWidth(USE_PREF_SIZE);
        Ui.tooltip(tray, Words.of("service.tray.help"));
        tray.setOnAction(e -> traySwitch.set(tray.isSelected()));
        traySwitch.onProperty().subscribe(shown -> tray.setSelected(shown));
        getChildren().addAll(icon, words, on, off, tray);
        model.stateProperty().subscribe(this::show);
    }

    /** Until it is answered there is nothing to press. */
    private void ask(Runnable what) {
        on.setDisable(true);
        off.setDisable(true);
        words.setText(Words.of("service.changing"));
        what.run();
    }

    private void show(ServiceModel.State state) {
        on.setDisable(false);
        off.setDisable(false);
        boolean known = state != ServiceModel.State.UNKNOWN;
        Ui.visible(this, known);
        if (!known) {
            return;
        }
        words.setText(Words.of("service." + state.name().toLowerCase(Locale.ROOT)));
        Ui.visible(on, state != ServiceModel.State.ALWAYS);
        Ui.visible(off, state != ServiceModel.State.NONE);
    }
}
