package org.mendedleaf.desktop.files;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.KeptChildren;
import org.mendedleaf.desktop.widgets.KeptChildren.Child;
import org.mendedleaf.desktop.widgets.Ui;

/** How the work on the selected file stands: who has it checked out, whether there is a draft, what looks wrong. */
final class WorkBar extends VBox {

    private final LineModel line;
    private final LineActions actions;
    private final Runnable toStrays;
    private final KeptChildren kept = new KeptChildren(this);
    private final List<Child<?>> all = new ArrayList<>();
    private Function<String, Optional<String>> noteAsk = words -> Optional.of("");

    WorkBar(LineModel line, LineActions actions, Runnable toStrays) {
        super(6);
        this.line = line;
        this.toStrays = toStrays;
        this.actions = actions;
        setId("work-bar");
        line.saidProperty().addListener((o, a, s) -> show());
        line.mergedProperty().addListener((o, a, m) -> show());
        line.straysProperty().addListener((o, a, m) -> show());
        show();
    }

    void setNoteAsk(Function<String, Optional<String>> ask) {
        noteAsk = ask;
    }

    private void show() {
        all.clear();
        LineRemarks said = line.saidProperty().get();
        Line l = line.lineProperty().get();
        if (said != null && l != null && l.removed().isEmpty()) {
            findings(said, l);
            said.out().ifPresentOrElse(out -> out(said, out), () -> takeable(said));
            draft(said, l);
        }
        if (l != null) {
            strays(l);
        }
        kept.show(all);
        Ui.visible(this, !all.isEmpty());
    }

    private static HBox row(Label words, Button... buttons) {
        words.setMinWidth(0);
        HBox row = new HBox(8, words, Ui.spacer());
        row.getChildren().addAll(buttons);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("work-row");
        return row;
    }

    private static Button button(String key, Runnable action, String... styles) {
        Button button = Ui.button(key, action, styles);
        button.getStyleClass().add("small");
        button.setId(key.replace('.', '-'));
        button.setMinWidth(USE_PREF_SIZE);
        return button;
    }

    private void findings(LineRemarks said, Line l) {
        for (StoredFinding f : said.findings()) {
            String text = f.words(l.name(), l.label(f.number()));
            all.add(Child.of(List.of(f, text), () -> {
                Label words = Ui.label(text, "warning-words");
                words.setWrapText(true);
                HBox row = row(words, button("work.seen", () -> actions.settle(f)));
                row.getStyleClass().add("warning");
                return row;
            }));
        }
    }

    private void out(LineRemarks said, CheckOut out) {
        boolean mine = out.who().equalsIgnoreCase(said.rights().who());
        boolean mayEnd = said.rights().may(Permission.END_CHECK_OUT);
        String text = Words.of(mine ? "work.mine" : "work.others", out.who(), actions.moment(out.since()));
        all.add(Child.of(List.of(text, mine, mayEnd), () -> {
            Label words = Ui.label(text, "work-words");
            words.setId("work-out");
            if (mine) {
                Button in = button(
                        "work.checkIn",
                        () -> noteAsk.apply(Words.of("work.checkInNote")).ifPresent(actions::checkIn));
                return row(words, in, button("work.giveUp", actions::giveUp, "flat"));
            }
            return mayEnd ? row(words, button("work.end", actions::endCheckOut, "danger-text")) : row(words);
        }));
    }

    /** Where a check-out is needed before a file can be changed, it is offered; elsewhere it is in the menu. */
    private void takeable(LineRemarks said) {
        boolean needed = said.rights().settings().get(Setting.CHECK_OUT).equals("needed");
        if (needed && said.rights().may(Permission.CHECK_OUT)) {
            String text = Words.of("work.needed");
            all.add(Child.of(
                    text, () -> row(Ui.label(text, "work-words"), button("work.checkOut", actions::checkOut))));
        }
    }

    /** Copies that programs left of this file. */
    private void strays(Line l) {
        List<Stray> found = line.straysProperty().get();
        if (!found.isEmpty()) {
            String text = Words.of(
                    l.removed().isEmpty() ? "work.strays" : "work.straysGone",
                    found.size(),
                    actions.moment(found.get(0).modified()));
            all.add(Child.of(text, () -> {
                Label words = Ui.label(text, "work-words");
                words.setId("work-strays-words");
                return row(words, button("work.straysLook", toStrays));
            }));
        }
    }

    private void draft(LineRemarks said, Line l) {
        @Nullable Version newest = l.newest().orElse(null);
        if (newest == null) {
            return;
        }
        String label = line.labelOf(newest);
        boolean draft = label.contains(".");
        boolean mayNow = said.out().isEmpty()
                || said.out().get().who().equalsIgnoreCase(said.rights().who());
        if (draft && mayNow && said.rights().may(Permission.PUBLISH)) {
            all.add(Child.of(List.of("draft", label), () -> {
                int next = Integer.parseInt(label.substring(0, label.indexOf('.'))) + 1;
                Button publish = button(
                        "work.publish",
                        () -> noteAsk.apply(Words.of("work.publishNote")).ifPresent(actions::publish),
                        "accent");
                publish.setText(Words.of("work.publish", next));
                return row(Ui.label(Words.of("work.draft", label), "work-words"), publish);
            }));
        }
    }
}
