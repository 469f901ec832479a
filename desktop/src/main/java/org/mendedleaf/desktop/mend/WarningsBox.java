package org.mendedleaf.desktop.mend;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.KeptChildren;
import org.mendedleaf.desktop.widgets.KeptChildren.Child;
import org.mendedleaf.desktop.widgets.Ui;

/** Above the findings: what is late, away, full or failing. It is mended on another screen, or dismissed with a reason here. */
final class WarningsBox extends VBox {

    /** So many are shown, that the findings keep their place; Protection has all. */
    private static final int MOST = 3;

    private final MendModel model;
    private final Runnable protection;
    private final KeptChildren kept = new KeptChildren(this);
    private List<MendModel.Warned> all = List.of();
    /** The id of what is about to be dismissed; empty when nothing is. */
    private String asked = "";

    private boolean showsDismissed;

    WarningsBox(MendModel model, Runnable protection) {
        super(4);
        this.model = model;
        this.protection = protection;
        setId("mend-warnings");
    }

    void show(List<MendModel.Warned> warnings) {
        all = List.copyOf(warnings);
        draw();
    }

    private void draw() {
        List<Child<?>> children = new ArrayList<>();
        List<MendModel.Warned> open =
                all.stream().filter(w -> w.dismissed().isEmpty()).toList();
        List<MendModel.Warned> dismissed =
                all.stream().filter(w -> w.dismissed().isPresent()).toList();
        for (MendModel.Warned w : open.subList(0, Math.min(MOST, open.size()))) {
            children.add(Child.of(w, () -> warning(w)));
            String id = w.concern().id();
            if (id.equals(asked)) {
                // What is typed stays when the words of the warning change meanwhile.
                children.add(Child.of(List.of("question", w.vault(), id), () -> question(w)));
            }
        }
        if (!dismissed.isEmpty()) {
            children.add(Child.of(dismissed.size(), () -> {
                Hyperlink link = new Hyperlink(Words.of("mend.dismissed", dismissed.size()));
                link.setId("mend-dismissed");
                link.setOnAction(e -> {
                    showsDismissed = !showsDismissed;
                    draw();
                });
                return link;
            }));
        }
        if (showsDismissed) {
            dismissed.forEach(w -> children.add(Child.of(
                    List.of("dismissed", w),
                    () -> row(w, "dim", Ui.button("mend.reopen", () -> model.reopen(w), "small")))));
        }
        kept.show(children);
        Ui.visible(this, !children.isEmpty());
    }

    private HBox warning(MendModel.Warned w) {
        Button dismiss = Ui.button("mend.dismiss", () -> ask(w.concern().id()), "small");
        dismiss.setId("mend-dismiss");
        return row(w, "clay-text", Ui.button("mend.protection", protection, "small"), dismiss);
    }

    private static HBox row(MendModel.Warned w, String style, Button... buttons) {
        Label label = Ui.label(w.words(), style);
        label.setMinWidth(0);
        Ui.tooltip(label, w.words());
        HBox row = new HBox(12, label);
        for (Button b : buttons) {
            b.setMinWidth(USE_PREF_SIZE);
            row.getChildren().add(b);
        }
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private void ask(String id) {
        asked = id;
        draw();
        Node reason = lookup("#mend-dismiss-reason");
        if (reason != null) {
            reason.requestFocus();
        }
    }

    private HBox question(MendModel.Warned w) {
        TextField reason = new TextField();
        reason.setId("mend-dismiss-reason");
        reason.setPromptText(Words.of("mend.reason"));
        reason.setAccessibleText(Words.of("mend.dismissWhy"));
        HBox.setHgrow(reason, Priority.ALWAYS);
        Runnable go = () -> {
            if (!reason.getText().isBlank()) {
                asked = "";
                draw();
                model.dismiss(w, reason.getText().strip());
            }
        };
        reason.setOnAction(e -> go.run());
        Button sure = Ui.button("mend.dismissSure", go, "small");
        sure.setId("mend-dismiss-sure");
        sure.disableProperty().bind(reason.textProperty().map(String::isBlank));
        Button leave = Ui.button("mend.leave", () -> ask(""), "small");
        HBox row = new HBox(12, Ui.label(Words.of("mend.dismissWhy"), "dim"), reason, sure, leave);
        row.getChildren().forEach(n -> {
            if (n != reason && n instanceof javafx.scene.layout.Region r) {
                r.setMinWidth(USE_PREF_SIZE);
            }
        });
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }
}
