package org.mendedleaf.desktop.mend;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.findings.Finding;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.Found;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.document.DifferenceView;
import org.mendedleaf.desktop.document.PairWork;
import org.mendedleaf.desktop.widgets.Ui;

/** What looks wrong, why, what was last good, and one action that mends it. Empty it is calm and says when it last looked. */
public final class MendView extends BorderPane {

    private static final double LIST = 392;

    private final MendModel model;
    private final MendModel.Hearer said;
    private final Label title = Ui.label("", "big-title");
    private final Label about = Ui.label("", "dim");
    private final VBox left = new VBox();
    private final ListView<@Nullable Item> list = new ListView<>();
    private final FindingPane detail;
    private final WarningsBox warnings;
    private boolean filling;

    /**
     * A row of the list.
     *
     * @param row a finding; null for the words that stand above what was dealt with
     */
    record Item(MendModel.@Nullable Row row) {}

    /**
     * The screen.
     *
     * @param said hears what was done
     * @param protection leads to the screen that has more of what is late, away, full or failing
     */
    public MendView(MendModel model, MendModel.Hearer said, Runnable protection) {
        this.model = model;
        this.warnings = new WarningsBox(model, protection);
        this.said = said;
        this.detail = new FindingPane(model, this::look, said);
        setId("mend");
        sceneProperty().addListener((o, was, now) -> {
            if (now == null) {
                model.leave();
            } else {
                model.comeBack();
            }
        });
        getStyleClass().addAll("files", "mend");
        title.setId("mend-title");
        about.setId("mend-about");
        about.setMinWidth(0);
        VBox names = new VBox(2, title, about);
        names.setMinWidth(0);
        Button look = Ui.button("mend.look", model::look, "flat");
        look.setId("mend-look");
        NoticesMenu notices = new NoticesMenu(model.context());
        HBox head = new HBox(12, names, Ui.spacer(), notices, look);
        look.setMinWidth(USE_PREF_SIZE);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox top = new VBox(8, head, warnings);
        top.getStyleClass().add("plan-top");
        setTop(top);
        list.setId("mend-list");
        list.getStyleClass().add("mend-list");
        list.setAccessibleText(Words.of("mend.list"));
        list.setCellFactory(v -> new Cell());
        list.setPrefWidth(LIST);
        left.getChildren().setAll(list);
        VBox.setVgrow(list, Priority.ALWAYS);
        left.getStyleClass().add("sheet");
        left.setMinWidth(300);
        left.setPrefWidth(LIST);
        left.setMaxWidth(LIST);
        HBox both = new HBox(16, left, detail);
        HBox.setHgrow(detail, Priority.ALWAYS);
        BorderPane.setMargin(both, new Insets(0, 24, 14, 24));
        setCenter(both);
        model.pictureProperty().addListener((o, a, p) -> show(p));
        list.getSelectionModel().selectedItemProperty().addListener((o, a, item) -> {
            if (!filling && item != null && item.row() != null) {
                model.chosenProperty().set(item.row());
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        show(model.pictureProperty().get());
        model.chosenProperty().subscribe(this::select);
    }

    /** Looks again, and gives the keys to the list. */
    public void begin() {
        model.reload();
        list.requestFocus();
    }

    /** Before the first check nobody knows that all is well. */
    private static Region unchecked() {
        Label words = Ui.label(Words.of("mend.never"), "dim", "centered");
        words.setWrapText(true);
        words.setPadding(new Insets(24));
        return words;
    }

    private static Region calm() {
        FontIcon leaf = new FontIcon(Feather.CHECK_CIRCLE);
        leaf.getStyleClass().add("mend-calm");
        Label words = Ui.label(Words.of("mend.calm"), "dim", "centered");
        words.setWrapText(true);
        VBox box = new VBox(10, leaf, words);
        box.setAlignment(Pos.CENTER);
        box.setPadding(new Insets(24));
        return box;
    }

    private void key(KeyEvent e) {
        if (getCenter() instanceof DifferenceView || model.chosenProperty().get() == null) {
            return;
        }
        if (e.getCode() == KeyCode.ENTER && e.isShortcutDown()) {
            model.mend(said);
        } else if (e.getCode() == KeyCode.ENTER && list.isFocused()) {
            look(0);
        } else if (e.getCode() == KeyCode.DELETE && !(e.getTarget() instanceof TextInputControl)) {
            detail.askFine();
        } else {
            return;
        }
        e.consume();
    }

    private void show(MendModel.Picture p) {
        int n = p.open().size();
        boolean elsewhere = p.warnings().stream().anyMatch(w -> w.dismissed().isEmpty());
        String none =
                p.looked().isEmpty() ? "mend.title.unchecked" : elsewhere ? "mend.title.elsewhere" : "mend.title.none";
        title.setText(n == 0 ? Words.of(none) : Words.of("mend.title", n));
        list.setPlaceholder(p.looked().isEmpty() ? unchecked() : calm());
        about.setText(
                p.looked().isEmpty()
                        ? Words.of("mend.never")
                        : Words.of(
                                "mend.looked",
                                Formats.ago(
                                        p.looked().get(),
                                        model.context().clock().instant(),
                                        model.context().zone())));
        if (!p.check().isEmpty()) {
            about.setText(about.getText() + " " + p.check());
        }
        if (p.pausing()) {
            about.setText(about.getText() + " " + Words.of("findings.pausing"));
        }
        warnings.show(p.warnings());
        List<Item> items = new ArrayList<>();
        p.open().forEach(r -> items.add(new Item(r)));
        if (!p.dealt().isEmpty()) {
            items.add(new Item(null));
            p.dealt().forEach(r -> items.add(new Item(r)));
        }
        filling = true;
        list.getItems().setAll(items);
        filling = false;
        select(model.chosenProperty().get());
        Ui.visible(detail, !items.isEmpty());
        left.setMaxWidth(items.isEmpty() ? Double.MAX_VALUE : LIST);
        HBox.setHgrow(left, items.isEmpty() ? Priority.ALWAYS : Priority.NEVER);
    }

    private void select(MendModel.@Nullable Row row) {
        filling = true;
        list.getSelectionModel().clearSelection();
        for (int i = 0; i < list.getItems().size(); i++) {
            Item item = list.getItems().get(i);
            if (row != null
                    && item != null
                    && item.row() != null
                    && item.row().listed().id().equals(row.listed().id())) {
                list.getSelectionModel().select(i);
                list.scrollTo(Math.max(0, i - 2));
            }
        }
        filling = false;
    }

    /** Opens what is there now beside the last good version, file by file. */
    private void look(int file) {
        MendModel.Row row = model.chosenProperty().get();
        if (row == null) {
            return;
        }
        DifferenceView.open(
                this,
                new DifferenceView.Files() {
                    @Override
                    public int size() {
                        return row.finding().marks().size();
                    }

                    @Override
                    public String path(int number) {
                        return row.finding().marks().get(number).path();
                    }

                    @Override
                    public Pair pair(int number) throws IOException {
                        return model.pair(row, number);
                    }

                    @Override
                    public void went(int number) {
                        detail.select(number);
                    }
                },
                file,
                new PairWork(model.context().background()));
    }

    /** How a finding stands, as a message. */
    static String state(Findings.Listed l) {
        return switch (l.state()) {
            case OPEN -> l.found().finding().sure().words();
            case DISMISSED ->
                Words.of(
                        "mend.state.DISMISSED",
                        l.decision().orElseThrow().reason(),
                        l.decision().orElseThrow().who());
            case MENDED ->
                Words.of("mend.state.MENDED", l.decision().orElseThrow().who());
            case FINE ->
                Words.of(
                        "mend.state.FINE",
                        l.fine().orElseThrow().reason(),
                        l.fine().orElseThrow().who());
            case CLOSED -> Words.of("findings.closed." + l.found().closed().orElse(Found.Fate.BACK));
        };
    }

    private final class Cell extends ListCell<@Nullable Item> {
        Cell() {
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable Item item, boolean empty) {
            super.updateItem(item, empty);
            setText(null);
            boolean heading = !empty && item != null && item.row() == null;
            Ui.style(this, "mend-heading", heading);
            setDisable(heading);
            if (empty || item == null) {
                setGraphic(null);
                return;
            }
            MendModel.Row row = item.row();
            setGraphic(row == null ? Ui.label(Words.of("mend.dealt"), "dim") : finding(row));
        }

        private HBox finding(MendModel.Row row) {
            Finding f = row.finding();
            boolean open = row.listed().state() == Findings.State.OPEN;
            FontIcon icon = new FontIcon(open ? Feather.ALERT_TRIANGLE : Feather.CHECK);
            icon.getStyleClass().add(open ? "mend-open" : "mend-closed");
            VBox words = new VBox(2, Ui.label(f.words(), open ? "small-title" : "dim"));
            Instant now = model.context().clock().instant();
            String when = Formats.moment(f.from(), now, model.context().zone());
            String who = f.marks().get(0).who();
            Optional<String> place = place(row);
            words.getChildren()
                    .add(Ui.label(
                            String.join(
                                    " · ",
                                    java.util.stream.Stream.of(place.orElse(""), when, who)
                                            .filter(s -> !s.isEmpty())
                                            .toList()),
                            "dim"));
            Label state = Ui.label(open ? good(row) : state(row.listed()), "dim");
            words.getChildren().add(state);
            for (var line : words.getChildren()) {
                ((Label) line).setMinWidth(0);
            }
            HBox.setHgrow(words, Priority.ALWAYS);
            words.setMinWidth(0);
            HBox box = new HBox(12, icon, words);
            box.setAlignment(Pos.TOP_LEFT);
            return box;
        }

        private static Optional<String> place(MendModel.Row row) {
            String path = row.finding().marks().get(0).path();
            int slash = path.lastIndexOf('/');
            return slash < 0
                    ? Optional.empty()
                    : Optional.of(path.substring(path.lastIndexOf('/', slash - 1) + 1, slash));
        }

        private static String good(MendModel.Row row) {
            Finding f = row.finding();
            String sure = f.sure().words();
            if (f.marks().size() > 1) {
                return sure + " · "
                        + Words.of("mend.toMend", row.listed().found().count(Found.Fate.TO_MEND));
            }
            int good = f.marks().get(0).good();
            String last = good == 0
                    ? Words.of("mend.noGood")
                    : Words.of(
                            "mend.lastGood",
                            good,
                            row.listed().found().files().get(0).proof());
            return sure + " · " + last;
        }
    }
}
