package org.mendedleaf.desktop.protection;

import java.util.List;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Ui;

/** Snapshots and runs that another system holds of a place, with when they end. */
final class CutsBox extends VBox {

    private static final int SHOWN = 6;

    private final AppContext context;

    CutsBox(AppContext context) {
        super(2);
        this.context = context;
        setId("cuts");
    }

    /** Shows the newest of them. */
    void show(List<RemoteSnapshot> list) {
        getChildren().clear();
        for (RemoteSnapshot c : list.stream().limit(SHOWN).toList()) {
            String when = Formats.moment(c.at(), context.clock().instant(), context.zone());
            String until = c.expires()
                    .map(e -> Words.of(
                            "holders.until", Formats.moment(e, context.clock().instant(), context.zone())))
                    .orElse("");
            HBox line = new HBox(10, Ui.label(when), Ui.label(c.label(), "dim"), Ui.spacer(), Ui.label(until, "dim"));
            getChildren().add(line);
        }
        if (list.isEmpty()) {
            getChildren().add(Ui.label(Words.of("protection.noCuts"), "dim"));
        }
        if (list.size() > SHOWN) {
            getChildren().add(Ui.label(Words.of("protection.moreCuts", list.size() - SHOWN), "dim"));
        }
    }
}
