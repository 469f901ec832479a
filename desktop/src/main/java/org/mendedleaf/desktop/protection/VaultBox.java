package org.mendedleaf.desktop.protection;

import java.io.File;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.check.CheckSchedule;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.KeptChildren;
import org.mendedleaf.desktop.widgets.KeptChildren.Child;
import org.mendedleaf.desktop.widgets.Ui;

/** Below the table of what is protected: the vault itself, whether every byte of it is whole, and its copies. */
final class VaultBox extends VBox {

    private static final int LOST_SHOWN = 3;
    private static final List<Integer> EVERY = List.of(7, 30, 90, CheckSchedule.BY_HAND);

    private static final Map<CopyStatus.Standing, String> BADGES = Map.of(
            CopyStatus.Standing.IN_STEP, "badge-moss",
            CopyStatus.Standing.FAILING, "badge-clay");

    private final VaultModel model;
    private final KeptChildren kept = new KeptChildren(this);
    private final Function<File, Optional<File>> folderAsk;
    private final BiConsumer<OpenPlace, VaultModel.Lost> show;

    VaultBox(VaultModel model, Function<File, Optional<File>> folderAsk, BiConsumer<OpenPlace, VaultModel.Lost> show) {
        super(6);
        this.model = model;
        this.folderAsk = folderAsk;
        this.show = show;
        setId("vault-box");
        getStyleClass().add("vault-box");
        model.rowsProperty().addListener((o, a, b) -> draw());
        model.closedProperty().addListener((o, a, b) -> draw());
        model.saidProperty().addListener((o, a, b) -> draw());
        model.askedProperty().addListener((o, a, b) -> draw());
        draw();
    }

    private Instant now() {
        return model.context().clock().instant();
    }

    private void draw() {
        List<Child<?>> all = new ArrayList<>();
        model.closedProperty().get().forEach(c -> all.add(Child.of(c, () -> closed(c))));
        for (VaultModel.Row row : model.rowsProperty().get()) {
            all.add(vault(row));
            row.lost().stream().limit(LOST_SHOWN).forEach(l -> all.add(Child.of(l, () -> lost(l))));
            if (row.lost().size() > LOST_SHOWN) {
                String more = Words.of("vaultBox.moreLost", row.lost().size() - LOST_SHOWN);
                all.add(Child.of(more, () -> Ui.label(more, "dim", "small-words")));
            }
            row.copies().forEach(c -> all.add(copy(row, c)));
            if (row.copies().isEmpty()) {
                all.add(Child.of(List.of("none", row.vault()), () -> none(row.vault())));
            }
        }
        VaultModel.Asked asked = model.askedProperty().get();
        if (asked != null) {
            all.add(Child.of(asked, () -> question(asked)));
        }
        String said = model.saidProperty().get();
        if (!said.isEmpty()) {
            all.add(Child.of(List.of("said", said), () -> said(said)));
        }
        kept.show(all);
        Ui.visible(this, !all.isEmpty());
    }

    private static Label said(String words) {
        Label said = Ui.label(words, "small-words");
        said.setId("vault-said");
        said.setWrapText(true);
        return said;
    }

    /** A line about a vault or a copy. Its words change while it is read; its controls stay. */
    private static final class VaultLine extends HBox {
        private final HBox first = new HBox(8);
        private final Label second = Ui.label("", "dim", "small-words");
        private final String name;
        private final String where;

        VaultLine(String name, String where, javafx.scene.Node... controls) {
            super(10);
            this.name = name;
            this.where = where;
            Label title = Ui.label(name, "row-name");
            title.setMinWidth(USE_PREF_SIZE);
            Label path = Ui.label(where, "dim", "small-words");
            Ui.tooltip(path, where);
            first.getChildren().addAll(title, path);
            first.setAlignment(Pos.CENTER_LEFT);
            second.setWrapText(true);
            VBox text = new VBox(1, first, second);
            HBox.setHgrow(text, Priority.ALWAYS);
            text.setMinWidth(0);
            getChildren().add(text);
            getChildren().addAll(controls);
            setAlignment(Pos.CENTER_LEFT);
            getStyleClass().add("vault-line");
        }

        void say(Label badge, String words) {
            badge.setMinWidth(USE_PREF_SIZE);
            if (first.getChildren().size() > 2) {
                first.getChildren().remove(1);
            }
            first.getChildren().add(1, badge);
            second.setText(words);
            setAccessibleText(name + " " + where + ". " + badge.getText() + ". " + words);
        }
    }

    private static Label badge(String words, String style) {
        return Ui.label(words, "badge", style);
    }

    /** A vault that cannot be opened; as long as its packs are there, its catalogue can be made anew. */
    private VaultLine closed(VaultModel.Closed vault) {
        Button rebuild = Ui.button("vaultBox.rebuild", () -> model.rebuild(vault.folder()), "small");
        rebuild.setId("vault-rebuild-closed");
        rebuild.setMinWidth(USE_PREF_SIZE);
        Ui.visible(rebuild, vault.packs());
        VaultLine line =
                new VaultLine(Words.of("vaultBox.vault"), vault.folder().toString(), rebuild);
        line.say(badge(Words.of("vaultBox.closed"), "badge-clay"), vault.why());
        return line;
    }

    private Child<VaultLine> vault(VaultModel.Row row) {
        Label badge = row.reading().isPresent()
                ? badge(Words.of("vaultBox.reading", share(row)), "badge-slate")
                : !row.lost().isEmpty()
                        ? badge(Words.of("vaultBox.lost", row.lost().size()), "badge-clay")
                        : row.check().isEmpty()
                                ? badge(Words.of("vaultBox.unread"), "badge-slate")
                                : badge(Words.of("vaultBox.whole"), "badge-moss");
        String words = String.join(
                " ",
                LastCheck.words(row.check(), now(), model.context().zone()),
                next(row),
                Words.of("copies.space", Formats.size(row.storedBytes()), Formats.size(row.freeBytes())));
        return new Child<>(
                List.of(row.vault(), row.days()),
                () -> vaultLine(row.vault(), row.days()),
                line -> line.say(badge, words));
    }

    private VaultLine vaultLine(OpenVault vault, int every) {
        Button read = Ui.button("vaultBox.readNow", () -> model.check(vault), "small");
        read.setId("vault-read");
        read.setMinWidth(USE_PREF_SIZE);
        MenuButton more = more("vault-more");
        for (int days : EVERY) {
            RadioMenuItem item = new RadioMenuItem(Words.of("vaultBox.every", days));
            item.setSelected(every == days);
            item.setOnAction(e -> model.every(vault, days));
            more.getItems().add(item);
        }
        Path folder = vault.folder().root();
        MenuItem another = new MenuItem(Words.of("vaultBox.add"));
        another.setOnAction(e -> add(vault));
        MenuItem rebuild = new MenuItem(Words.of("vaultBox.rebuild"));
        rebuild.setId("vault-rebuild");
        rebuild.setOnAction(e -> model.rebuild(folder));
        more.getItems().addAll(new SeparatorMenuItem(), another, rebuild);
        return new VaultLine(Words.of("vaultBox.vault"), folder.toString(), read, more);
    }

    private static int share(VaultModel.Row row) {
        return row.reading()
                .filter(s -> s.allBytes() > 0)
                .map(s -> (int) (100 * s.readBytes() / s.allBytes()))
                .orElse(0);
    }

    private String next(VaultModel.Row row) {
        if (row.days() == CheckSchedule.BY_HAND) {
            return Words.of("vaultBox.byHand");
        }
        Optional<Instant> due = row.check().map(c -> c.at().plus(Duration.ofDays(row.days())));
        boolean soon = row.reading().isPresent() || due.isEmpty() || !due.get().isAfter(now());
        return soon
                ? Words.of("vaultBox.next.soon")
                : Words.of(
                        "vaultBox.next",
                        Formats.day(due.get(), now(), model.context().zone()));
    }

    private static MenuButton more(String id) {
        MenuButton more = new MenuButton();
        more.setId(id);
        more.setGraphic(new FontIcon(Feather.MORE_HORIZONTAL));
        more.getStyleClass().addAll("icon-button", "flat");
        Ui.name(more, Words.of("vaultBox.more"));
        return more;
    }

    private HBox lost(VaultModel.Lost lost) {
        String words =
                Words.of("copies.lost", lost.version().path(), lost.version().label());
        Label text = Ui.label(words, "warning-words", "small-words");
        text.setWrapText(true);
        HBox line = new HBox(10, text);
        lost.openPlace().ifPresent(openPlace -> {
            Hyperlink link = new Hyperlink(Words.of("vaultBox.showLost"));
            link.setMinWidth(USE_PREF_SIZE);
            link.setOnAction(e -> show.accept(openPlace, lost));
            line.getChildren().addAll(Ui.spacer(), link);
        });
        line.setAlignment(Pos.CENTER_LEFT);
        line.getStyleClass().addAll("warning", "lost-version");
        return line;
    }

    private Child<VaultLine> copy(VaultModel.Row row, CopyStatus status) {
        List<String> words = new ArrayList<>();
        words.add(status.sentence(now(), model.context().zone()));
        if (status.freeBytes() >= 0 && status.seen().bytes() > 0) {
            words.add(Words.of("copies.space", Formats.size(status.seen().bytes()), Formats.size(status.freeBytes())));
        }
        words.add(status.seen()
                .checked()
                .map(c -> Words.of(
                        "copies.checked",
                        Formats.moment(c, now(), model.context().zone())))
                .orElse(Words.of("copies.neverChecked")));
        if (status.sameDrive()) {
            words.add(Words.of("copies.sameDrive"));
        }
        return new Child<>(
                List.of(row.vault(), status.copy(), status.standing()),
                () -> copyLine(row.vault(), status.copy(), status.standing()),
                line -> line.say(
                        badge(status.standing().words(), BADGES.getOrDefault(status.standing(), "badge-slate")),
                        String.join(" ", words)));
    }

    private VaultLine copyLine(OpenVault vault, VaultCopy copy, CopyStatus.Standing standing) {
        Button run = Ui.button("vaultBox.run", () -> model.run(vault, copy), "small");
        run.setId("copy-run");
        run.setMinWidth(USE_PREF_SIZE);
        run.setDisable(standing == CopyStatus.Standing.AWAY);
        Ui.visible(run, standing != CopyStatus.Standing.IN_STEP);
        MenuButton more = more("copy-more");
        MenuItem read = new MenuItem(Words.of("vaultBox.readNow"));
        read.setDisable(standing == CopyStatus.Standing.AWAY);
        read.setOnAction(e -> model.check(vault, copy));
        MenuItem end = new MenuItem(Words.of("vaultBox.endMenu"));
        end.setOnAction(e -> model.end(vault, copy));
        more.getItems().addAll(read, end);
        return new VaultLine(Words.of("vaultBox.copy"), copy.folder().toString(), run, more);
    }

    private HBox none(OpenVault vault) {
        Label words = Ui.label(Words.of("vaultBox.noCopy"), "dim", "small-words");
        words.setWrapText(true);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMaxWidth(Double.MAX_VALUE);
        Button add = Ui.button("vaultBox.add", () -> add(vault), "small");
        add.setId("copy-add");
        add.setMinWidth(USE_PREF_SIZE);
        HBox line = new HBox(10, words, add);
        line.setAlignment(Pos.CENTER_LEFT);
        line.getStyleClass().add("vault-line");
        return line;
    }

    private void add(OpenVault vault) {
        folderAsk.apply(UserFolders.home().toFile()).ifPresent(f -> model.add(vault, Path.of(f.getPath())));
    }

    private HBox question(VaultModel.Asked asked) {
        Label words = Ui.label(asked.words(), "warning-words", "small-words");
        words.setId("vault-asked");
        words.setWrapText(true);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMaxWidth(Double.MAX_VALUE);
        Button go = Ui.button(asked.go(), asked.work(), "small");
        go.setId("vault-go");
        go.setMinWidth(USE_PREF_SIZE);
        Button leave = Ui.button("vaultBox.leave", model::leave, "small", "flat");
        leave.setId("vault-leave");
        leave.setMinWidth(USE_PREF_SIZE);
        HBox line = new HBox(10, words, go, leave);
        line.setAlignment(Pos.CENTER_LEFT);
        line.getStyleClass().add("warning");
        return line;
    }
}
