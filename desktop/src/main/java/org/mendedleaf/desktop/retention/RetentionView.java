package org.mendedleaf.desktop.retention;

import java.io.File;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;

/** The Retention screen: what the vault takes, and its parts: space, rules, what is held, removed, and waits. */
public final class RetentionView extends BorderPane {

    private final RetentionModel model;
    private final StackPane middle = new StackPane();
    private final Label message = Ui.label("", "dim");
    private final ComboBox<OpenVault> vaults;
    private final Map<String, ToggleButton> tabs = new LinkedHashMap<>();
    private final Map<String, Node> parts = new LinkedHashMap<>();
    private Function<String, Optional<File>> saveAsk = name -> Optional.empty();
    private Supplier<Optional<String>> dayAsk = Optional::empty;

    /** The screen over this model. */
    public RetentionView(RetentionModel model) {
        this.model = model;
        getStyleClass().addAll("files", "retention");
        Label title = Ui.label(Words.of("retention.title"), "big-title");
        vaults = Choices.of(model.vaults(), v -> v.folder().root().toString());
        vaults.setId("retention-vault");
        vaults.setAccessibleText(Words.of("retention.vault"));
        vaults.valueProperty().addListener((o, a, v) -> {
            if (v != null) {
                model.vaultProperty().set(v);
            }
        });
        model.vaultProperty().addListener((o, a, v) -> vaults.setValue(v));
        parts.put("space", new SpacePane(model, (system, within) -> preview("space", system, within)));
        parts.put("rules", new RulesPane(model, (system, within) -> preview("rules", system, within)));
        parts.put("holds", new HoldsPane(model));
        parts.put("removed", new RemovedPane(model));
        parts.put("waiting", new WaitingPane(model));
        MenuButton report = new MenuButton(Words.of("retention.report"));
        report.setId("retention-report");
        report.getStyleClass().add("flat");
        report.getItems().setAll(reportItems(0, ""));
        report.setOnShowing(e -> fill(report));
        HBox head = new HBox(12, title, vaults, Ui.spacer(), report, bar());
        head.setAlignment(Pos.CENTER_LEFT);
        message.setId("retention-message");
        message.setWrapText(true);
        message.textProperty().bind(model.messageProperty());
        message.visibleProperty().bind(message.textProperty().isNotEmpty());
        message.managedProperty().bind(message.visibleProperty());
        VBox top = new VBox(10, head, new SpaceBar(model), message);
        top.getStyleClass().add("protection-top");
        setTop(top);
        setCenter(middle);
        middle.getStyleClass().add("retention-middle");
        show("space");
    }

    private HBox bar() {
        ToggleGroup group = new ToggleGroup();
        HBox bar = new HBox();
        bar.getStyleClass().add("filters-bare");
        for (String part : parts.keySet()) {
            ToggleButton tab = new ToggleButton(Words.of("retention.part." + part));
            tab.setId("retention-" + part);
            tab.setToggleGroup(group);
            tab.setOnAction(e -> show(part));
            tabs.put(part, tab);
            bar.getChildren().add(tab);
        }
        bar.setSpacing(2);
        bar.setAlignment(Pos.CENTER_LEFT);
        return bar;
    }

    /** Reports of the whole vault, and where it has several places, of each. */
    private void fill(MenuButton report) {
        report.getItems().setAll(reportItems(0, ""));
        List<Place> places = model.places();
        if (places.size() > 1) {
            report.getItems().add(new SeparatorMenuItem());
            for (Place place : places) {
                Menu menu = new Menu(place.label());
                menu.setId("retention-report-place-" + place.id());
                menu.getItems().setAll(reportItems(place.id(), "-" + place.id()));
                report.getItems().add(menu);
            }
        }
    }

    private List<MenuItem> reportItems(long place, String ending) {
        MenuItem now = new MenuItem(Words.of("keeps.reportNow"));
        now.setId("retention-report-now" + ending);
        now.setOnAction(e -> report(place, ""));
        MenuItem then = new MenuItem(Words.of("keeps.reportThen"));
        then.setId("retention-report-then" + ending);
        then.setOnAction(
                e -> dayAsk.get().map(String::strip).filter(d -> !d.isEmpty()).ifPresent(day -> report(place, day)));
        return List.of(now, then);
    }

    /** What is kept and until when, now or on a day that was typed, as a file. */
    private void report(long place, String day) {
        saveAsk.apply(Words.of("keeps.reportName")).ifPresent(f -> model.report(place, day, f.toPath()));
    }

    /** Puts a way to ask for a day in place. */
    public void setDayAsk(Supplier<Optional<String>> ask) {
        dayAsk = ask;
    }

    /** Puts a way to ask for a file to write in place; it is given a name to begin with. */
    public void setSaveAsk(Function<String, Optional<File>> ask) {
        saveAsk = ask;
    }

    /** Looks again, also which vaults there are. */
    public void reload() {
        vaults.getItems().setAll(model.vaults());
        Ui.visible(vaults, model.vaults().size() > 1);
        vaults.setValue(model.vaultProperty().get());
        model.reload();
    }

    /** Whether what takes the space is shown. */
    public boolean isSpace() {
        return middle.getChildren().contains(parts.get("space"));
    }

    private void show(String part) {
        ToggleButton tab = tabs.get(part);
        if (tab != null) {
            tab.setSelected(true);
        }
        Node node = parts.get(part);
        if (node != null) {
            middle.getChildren().setAll(node);
        }
    }

    /** What a thinning would let go, before it does. */
    private void preview(String from, Optional<Place> system, ThinPlan.Limits within) {
        middle.getChildren()
                .setAll(new ThinView(
                        new ThinModel(model, system, within), name -> saveAsk.apply(name), () -> show(from)));
    }
}
