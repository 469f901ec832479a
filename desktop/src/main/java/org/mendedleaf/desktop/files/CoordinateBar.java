package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.Ui;

/** The two coordinates of everything on screen: where, and when. */
final class CoordinateBar extends HBox {

    private static final int SNAPSHOTS_SHOWN = 6;

    private final FilesModel model;
    private final MenuButton places = new MenuButton();
    private final HBox crumbs = new HBox();
    private final Button now = new Button();
    private final Button back;
    private final MenuButton snapshots = new MenuButton(Words.of("when.snapshots"));
    private final Runnable protect;

    CoordinateBar(FilesModel model, Runnable protect) {
        this.model = model;
        this.protect = protect;
        getStyleClass().add("coordinates");
        setAlignment(Pos.CENTER_LEFT);
        places.getStyleClass().addAll("place-button", "flat");
        places.setId("places");
        crumbs.setAlignment(Pos.CENTER_LEFT);
        crumbs.getStyleClass().add("crumbs");
        now.getStyleClass().add("moment-pill");
        now.setId("moment");
        now.setOnAction(e -> model.momentProperty().set(null));
        Button earlier = Ui.iconButton(Feather.CHEVRON_LEFT, "when.earlier", model.steps()::earlier);
        earlier.setId("earlier");
        Button later = Ui.iconButton(Feather.CHEVRON_RIGHT, "when.later", model.steps()::later);
        later.setId("later");
        // After now there is nothing yet.
        later.disableProperty().bind(model.momentProperty().isNull());
        earlier.getStyleClass().add("step-button");
        later.getStyleClass().add("step-button");
        PickMoment pick = new PickMoment(model);
        Button choose = Ui.button("when.pick", () -> {}, "flat", "text-button");
        choose.setId("pick");
        choose.setOnAction(e -> pick.show(choose));
        back = Ui.button("when.back", () -> model.momentProperty().set(null), "flat", "text-button", "back-button");
        back.setId("back-to-now");
        getChildren()
                .addAll(
                        Ui.label(Words.of("where"), "coordinate-name"),
                        places,
                        crumbs,
                        Ui.spacer(),
                        Ui.label(Words.of("when"), "coordinate-name"),
                        now,
                        earlier,
                        later,
                        choose,
                        snapshots,
                        back);
        snapshots.setId("snapshots");
        snapshots.getStyleClass().addAll("flat", "text-button");
        model.ruler().stretchProperty().addListener((o, a, s) -> Ui.refill(snapshots, this::pegs));
        pegs();
        model.placeProperty().addListener((o, a, b) -> where());
        model.folderProperty().addListener((o, a, b) -> where());
        model.context().places().addListener((javafx.collections.ListChangeListener<OpenPlace>) c -> where());
        model.momentProperty().addListener((o, a, b) -> when());
        where();
        when();
    }

    private void where() {
        @Nullable OpenPlace openPlace = model.placeProperty().get();
        places.setText(openPlace == null ? "" : label(openPlace));
        Ui.tooltip(places, openPlace == null ? null : openPlace.place().where());
        Ui.refill(places, this::fillPlaces);
        where(model.folderProperty().get());
    }

    private void fillPlaces() {
        places.getItems().clear();
        boolean systems = false;
        for (OpenPlace each : model.context()
                .places()
                .sorted(Comparator.comparing((OpenPlace h) -> h.place().isOutside()))) {
            if (each.place().isOutside() && !systems) {
                places.getItems().add(new SeparatorMenuItem());
                systems = true;
            }
            MenuItem item = new MenuItem(label(each));
            item.setOnAction(e -> model.open(each, ""));
            places.getItems().add(item);
        }
        MenuItem top = new MenuItem(Words.of("where.top"));
        top.setOnAction(e -> model.enter(""));
        MenuItem look = new MenuItem(Words.of("where.look"));
        look.setOnAction(e -> {
            OpenPlace of = model.placeProperty().get();
            if (of != null) {
                model.context().captures().capture(of, r -> {});
            }
        });
        MenuItem hold = new MenuItem(Words.of("where.hold"));
        hold.setId("where-hold");
        hold.setOnAction(e -> model.routes().holdFolder());
        MenuItem more = new MenuItem(Words.of("where.protect"));
        more.setOnAction(e -> protect.run());
        places.getItems().addAll(new SeparatorMenuItem(), top, look, hold, more);
    }

    private void where(String folder) {
        crumbs.getChildren().clear();
        List<String> names = RelativePath.names(folder);
        String path = "";
        for (int i = 0; i < names.size(); i++) {
            path = RelativePath.child(path, names.get(i));
            crumbs.getChildren().add(Ui.label("›", "crumb-separator"));
            if (i == names.size() - 1) {
                Label last = Ui.label(names.get(i), "crumb-last");
                crumbs.getChildren().add(last);
            } else {
                String to = path;
                Button crumb = new Button(names.get(i));
                crumb.getStyleClass().addAll("flat", "crumb");
                crumb.setOnAction(e -> model.enter(to));
                crumbs.getChildren().add(crumb);
            }
        }
        Ui.style(places, "crumb-here", names.isEmpty());
    }

    /** The newest snapshots lead to their moments. */
    private void pegs() {
        snapshots.getItems().clear();
        List<RulerModel.Peg> all = model.ruler().stretchProperty().get().pegs();
        // Those that somebody took for a reason first: there are few of them, and they are looked for.
        pegs(all.stream().filter(RulerModel.Peg::byHand).toList());
        if (!snapshots.getItems().isEmpty()) {
            snapshots.getItems().add(new SeparatorMenuItem());
        }
        pegs(all.stream().filter(p -> !p.byHand()).toList());
        if (all.isEmpty()) {
            MenuItem none = new MenuItem(Words.of("when.noSnapshots"));
            none.setDisable(true);
            snapshots.getItems().add(none);
        }
        MenuItem every = new MenuItem(Words.of("when.allSnapshots"));
        every.setId("all-snapshots");
        every.setOnAction(e -> model.routes().snapshots());
        snapshots.getItems().addAll(new SeparatorMenuItem(), every);
    }

    private void pegs(List<RulerModel.Peg> some) {
        for (int i = some.size() - 1; i >= Math.max(0, some.size() - SNAPSHOTS_SHOWN); i--) {
            RulerModel.Peg peg = some.get(i);
            MenuItem item = new MenuItem(peg.words(model.context().zone()));
            item.setOnAction(e -> model.momentProperty().set(peg.at()));
            snapshots.getItems().add(item);
        }
    }

    /** A place in another system goes with that system's name. */
    private static String label(OpenPlace openPlace) {
        return openPlace
                .place()
                .outside()
                .map(o -> Words.of("where.outside", o.place(), o.system()))
                .orElse(openPlace.place().name());
    }

    private void when() {
        @Nullable Instant at = model.momentProperty().get();
        boolean past = at != null;
        now.setText(
                at == null
                        ? Words.of("when.now")
                        : Formats.full(at, model.context().zone()));
        Ui.tooltip(now, at == null ? null : Formats.exact(at, model.context().zone()));
        Ui.style(now, "moment-past", past);
        Ui.visible(back, past);
    }
}
