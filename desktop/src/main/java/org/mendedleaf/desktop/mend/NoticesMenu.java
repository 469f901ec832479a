package org.mendedleaf.desktop.mend;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import org.mendedleaf.core.notices.NoticeSettings;
import org.mendedleaf.core.notices.QuietHours;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Ui;

/** How somebody is told of what needs attention: by notices of the desktop or not, and when not. */
final class NoticesMenu extends MenuButton {

    private static final List<String> HOURS = List.of("off", "18:00-08:00", "20:00-07:00", "22:00-07:00");

    private final AppContext context;

    NoticesMenu(AppContext context) {
        this.context = context;
        setId("notices-menu");
        setGraphic(new FontIcon(Feather.BELL));
        getStyleClass().addAll("icon-button", "flat");
        setMinWidth(USE_PREF_SIZE);
        Ui.name(this, Words.of("notices.menu"));
        setOnShowing(e -> fill());
        fill();
    }

    private void fill() {
        NoticeSettings now = NoticeSettings.of(context.settings());
        getItems().clear();
        CheckMenuItem desktop = new CheckMenuItem(Words.of("notices.menu.desktop"));
        desktop.setSelected(now.desktop());
        desktop.setOnAction(e -> save(new NoticeSettings(desktop.isSelected(), now.quiet())));
        getItems().addAll(desktop, new SeparatorMenuItem());
        List<QuietHours> hours =
                new ArrayList<>(HOURS.stream().map(QuietHours::parse).toList());
        if (!hours.contains(now.quiet())) {
            hours.add(now.quiet());
        }
        for (QuietHours each : hours) {
            RadioMenuItem item = new RadioMenuItem(
                    each.isNone()
                            ? Words.of("notices.menu.always")
                            : Words.of("notices.menu.quiet", each.from(), each.to()));
            item.setSelected(each.equals(now.quiet()));
            item.setOnAction(e -> save(new NoticeSettings(now.desktop(), each)));
            getItems().add(item);
        }
    }

    private void save(NoticeSettings chosen) {
        context.background()
                .run(
                        () -> {
                            chosen.save(context.settings());
                            return chosen;
                        },
                        is -> fill(),
                        e -> org.slf4j.LoggerFactory.getLogger(NoticesMenu.class)
                                .warn("the settings of notices are not kept", e));
    }
}
