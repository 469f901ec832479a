package org.mendedleaf.desktop.retention;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.control.Button;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** What was let go and waits for the end of its grace, by what let it go; it can be taken back, or ended now. */
final class WaitingPane extends ListPane<WaitingPane.Batch> {

    private final Button back;
    private final Button now;
    private final Button leave;
    private final Button sure;

    /** What one action let go. */
    record Batch(long action, Instant at, Instant due, String who, boolean erased, int versions, int files) {}

    WaitingPane(RetentionModel model) {
        super(model, "waiting", "waiting-effect", "waiting.none");
        table.getColumns()
                .add(Tables.words("waiting.when", Ui.moment(150), this::when, Comparator.comparing(Batch::at)));
        table.getColumns()
                .add(Tables.words(
                        "waiting.what",
                        380,
                        b -> Words.of(b.erased() ? "waiting.erased" : "waiting.thinned", b.versions(), b.files()),
                        Comparator.comparing(Batch::versions)));
        table.getColumns().add(Tables.words("waiting.who", 120, Batch::who, Comparator.comparing(Batch::who)));
        table.getColumns()
                .add(Tables.words("waiting.due", Ui.moment(200), this::due, Comparator.comparing(Batch::due)));
        back = Ui.button(
                "waiting.back",
                () -> {
                    Batch b = table.getSelectionModel().getSelectedItem();
                    if (b != null) {
                        model.takeBack(b.action());
                    }
                },
                "accent");
        back.setId("waiting-back");
        now = Ui.button("waiting.now", this::askFirst, "danger-text");
        now.setId("waiting-now");
        leave = Ui.button("waiting.leave", () -> show(model.pictureProperty().get()));
        leave.setId("waiting-leave");
        sure = Ui.button("waiting.leave", () -> model.reclaim(true), "danger-text");
        sure.setId("waiting-sure");
        table.getSelectionModel().selectedItemProperty().addListener((o, a, b) -> back.setDisable(b == null));
        finish(back, now, sure, leave);
        show(null);
    }

    /** What can still be taken back goes for good: that is asked, with the answer in another place than the question. */
    private void askFirst() {
        RetentionModel.Picture p = model.pictureProperty().get();
        if (p == null || p.waiting().isEmpty()) {
            model.reclaim(false);
        } else {
            // As wide as the button that was there: a second click of the same kind leaves it.
            leave.setPrefWidth(Math.max(now.getWidth(), leave.getWidth()));
            asking(true);
            int n = p.waiting().size();
            sure.setText(Words.of("waiting.sure", n));
            effect.setText(Words.of("waiting.ask", n, Formats.size(p.report().waiting())));
        }
    }

    private void asking(boolean is) {
        Ui.visible(now, !is);
        Ui.visible(back, !is);
        Ui.visible(leave, is);
        Ui.visible(sure, is);
    }

    private String when(Batch b) {
        return Formats.moment(
                b.at(), model.context().clock().instant(), model.context().zone());
    }

    private String due(Batch b) {
        return Formats.full(b.due(), model.context().zone());
    }

    @Override
    void show(RetentionModel.@Nullable Picture p) {
        asking(false);
        if (p == null) {
            return;
        }
        Map<Long, List<PendingDeletion>> byAction = new LinkedHashMap<>();
        p.waiting()
                .forEach(l -> byAction.computeIfAbsent(l.journal(), x -> new ArrayList<>())
                        .add(l));
        List<Batch> all = new ArrayList<>();
        byAction.forEach((action, list) -> all.add(new Batch(
                action,
                list.get(0).at(),
                list.get(0).due(),
                list.get(0).who(),
                list.get(0).reason().equals("ERASED"),
                list.size(),
                (int) list.stream().map(PendingDeletion::line).distinct().count())));
        table.getItems().setAll(all);
        table.getSelectionModel().selectFirst();
        back.setDisable(all.isEmpty());
        long unused = p.report().unused();
        now.setDisable(p.waiting().isEmpty() && unused == 0);
        now.setText(Words.of(p.waiting().isEmpty() ? "waiting.reclaim" : "waiting.now"));
        effect.setText(
                p.waiting().isEmpty()
                        ? Words.of("waiting.nothing", Formats.size(unused))
                        : Words.of(
                                "waiting.effect",
                                p.waiting().size(),
                                Formats.size(p.report().waiting())));
    }
}
