package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import javafx.beans.binding.Bindings;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Polygon;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.Ui;

/**
 * The time ruler: a bar for each step of time, as high as there were changes, and a marker for the moment that is looked
 * at. The marker is dragged, or moved with the arrow keys; a click on a bar goes to just before its first change.
 */
final class RulerView extends Pane {

    /** So small a part of a step before now is taken for now. */
    private static final int ALMOST = 20;

    private static final double HEIGHT = 64;
    private static final double BARS = 46;
    private static final double AXIS = 48;
    private static final double LABEL_SPACE = 92;
    private static final int FEW = 36;

    private final FilesModel model;
    private final Region marker = new Region();
    private final Polygon handle = new Polygon(-6, 0, 6, 0, 0, 9);
    private boolean dragged;

    RulerView(FilesModel model) {
        this.model = model;
        getStyleClass().add("ruler");
        setMinHeight(HEIGHT);
        setPrefHeight(HEIGHT);
        setFocusTraversable(true);
        setId("ruler");
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText(Words.of("ruler.name"));
        marker.getStyleClass().add("ruler-marker");
        handle.getStyleClass().add("ruler-handle");
        marker.setMouseTransparent(true);
        handle.setMouseTransparent(true);
        // What the pointer is over is said instead as soon as it moves.
        Ui.tooltip(this, Words.of("ruler.name"));
        widthProperty().addListener((o, a, b) -> draw());
        // How wide words are is known only where the stylesheet is.
        sceneProperty().addListener((o, a, b) -> draw());
        model.ruler().stretchProperty().addListener((o, a, b) -> draw());
        model.momentProperty().addListener((o, a, b) -> placeMarker());
        setOnMousePressed(this::pressed);
        setOnMouseDragged(this::drag);
        setOnMouseReleased(this::released);
        setOnMouseMoved(this::hover);
        setOnKeyPressed(this::key);
        setOnScroll(e -> {
            if (e.isControlDown() && e.getDeltaY() != 0) {
                model.ruler().zoom(e.getDeltaY() > 0 ? -1 : 1);
                e.consume();
            }
        });
    }

    private ZoneId zone() {
        return model.context().zone();
    }

    private RulerModel.Stretch stretch() {
        return model.ruler().stretchProperty().get();
    }

    private void draw() {
        RulerModel.Stretch s = stretch();
        double width = getWidth();
        getChildren().clear();
        if (getScene() == null || width <= 0 || s.steps().isEmpty()) {
            return;
        }
        double step = width / s.steps().size();
        shadeBefore(s, width);
        Region axis = box("ruler-axis", 0, AXIS, width, 1);
        getChildren().add(axis);
        // One bar that towers above the rest must not flatten them: heights follow the square root.
        double most = Math.sqrt(Math.max(
                1, s.steps().stream().mapToInt(RulerModel.Step::changes).max().orElse(1)));
        double lastLabel = -LABEL_SPACE;
        for (int i = 0; i < s.steps().size(); i++) {
            RulerModel.Step at = s.steps().get(i);
            double x = i * step;
            if (at.changes() > 0) {
                double height = Math.max(2, Math.sqrt(at.changes()) / most * (BARS - 12));
                String style = at.burst() > 0 ? "ruler-burst" : "ruler-bar";
                getChildren().add(box(style, x + 1, AXIS - height, Math.max(1, step - 2), height));
                if (at.burst() > 0) {
                    burst(at, x, step);
                }
            }
            if (labelled(at, i) && x - lastLabel >= LABEL_SPACE && x + LABEL_SPACE / 2 < width) {
                text(axisWords(at), x, AXIS + 2, "ruler-label");
                lastLabel = x;
            }
        }
        for (RulerModel.Peg peg : s.shown()) {
            getChildren().add(peg(peg, s.position(peg.at()) * width));
        }
        getChildren().addAll(marker, handle);
        placeMarker();
    }

    /** A peg in the axis; a click on it goes to exactly its moment. */
    private Polygon peg(RulerModel.Peg peg, double x) {
        Polygon shape = new Polygon(-4, 0, 4, 0, 4, 5, 0, 11, -4, 5);
        shape.getStyleClass().add("ruler-peg");
        shape.setManaged(false);
        shape.setLayoutX(Math.max(5, Math.min(getWidth() - 5, x)));
        shape.setLayoutY(AXIS - 5);
        Ui.tooltip(shape, peg.words(zone()));
        shape.setOnMousePressed(MouseEvent::consume);
        shape.setOnMouseReleased(e -> {
            model.momentProperty().set(peg.at());
            e.consume();
        });
        return shape;
    }

    private void shadeBefore(RulerModel.Stretch s, double width) {
        if (s.beginning().isPresent()) {
            double end = s.position(s.beginning().get()) * width;
            if (end > 2) {
                getChildren().add(box("ruler-before", 0, 2, end, AXIS - 2));
                if (end > 150) {
                    text(Words.of("ruler.before"), 8, 6, "ruler-label");
                }
            }
        }
    }

    /** Beside its bar, on the side where there is space; how wide it is shows when it is laid out. */
    private void burst(RulerModel.Step at, double x, double step) {
        Label label = text(Words.of("ruler.burst", at.burst()), 0, 0, "ruler-burst-label");
        label.layoutXProperty()
                .bind(Bindings.createDoubleBinding(
                        () -> x > label.getWidth() + 8 ? x - label.getWidth() - 6 : x + step + 6,
                        label.widthProperty()));
    }

    private static Region box(String style, double x, double y, double width, double height) {
        Region box = new Region();
        box.getStyleClass().add(style);
        box.setMouseTransparent(true);
        box.resizeRelocate(x, y, width, height);
        box.setManaged(false);
        return box;
    }

    private Label text(String words, double x, double y, String style) {
        Label label = new Label(words);
        label.getStyleClass().add(style);
        label.setMouseTransparent(true);
        label.setLayoutX(x);
        label.setLayoutY(y);
        getChildren().add(label);
        return label;
    }

    private boolean labelled(RulerModel.Step step, int index) {
        ZonedDateTime t = step.from().atZone(zone());
        return switch (stretch().zoom()) {
            case HOUR -> t.getHour() % (stretch().steps().size() <= FEW ? 3 : 12) == 0;
            case DAY ->
                stretch().steps().size() <= FEW
                        ? index % 4 == 0
                        : t.getDayOfWeek().getValue() == 1;
            case WEEK -> index % 8 == 0;
            case MONTH -> t.getMonthValue() % 12 == 1;
        };
    }

    private String axisWords(RulerModel.Step step) {
        String pattern = switch (stretch().zoom()) {
            case HOUR -> "EEE HH:mm";
            case DAY -> "d MMM";
            case WEEK -> "d MMM yyyy";
            case MONTH -> "yyyy";
        };
        return Formats.formatter(pattern).format(step.from().atZone(zone()));
    }

    private void placeMarker() {
        RulerModel.Stretch s = stretch();
        Instant at = model.momentProperty().get();
        double x = s.position(at == null ? s.now() : at) * getWidth();
        double clipped = Math.max(1, Math.min(getWidth() - 2, x));
        marker.resizeRelocate(clipped - 1, 0, 2, AXIS + 4);
        marker.setManaged(false);
        handle.setManaged(false);
        handle.setLayoutX(clipped);
        handle.setLayoutY(0);
        setAccessibleHelp(at == null ? Words.of("when.now") : Formats.full(at, zone()));
    }

    private void go(double x) {
        RulerModel.Stretch s = stretch();
        double share = x / Math.max(1, getWidth());
        // Pulled to the right end, the marker is at now.
        boolean now = share >= 1 || s.at(share).equals(s.now());
        model.momentProperty().set(now ? null : s.at(share));
    }

    private void pressed(MouseEvent e) {
        requestFocus();
        dragged = false;
    }

    private void drag(MouseEvent e) {
        if (e.getButton() == MouseButton.PRIMARY) {
            dragged = true;
            go(e.getX());
        }
    }

    private void released(MouseEvent e) {
        if (!dragged && e.getButton() == MouseButton.PRIMARY) {
            beforeFirstChange(e.getX());
        }
        dragged = false;
    }

    /** The moment before anything of this bar had happened. */
    private void beforeFirstChange(double x) {
        RulerModel.Stretch s = stretch();
        int index = (int) Math.max(
                0, Math.min(s.steps().size() - 1, x / getWidth() * s.steps().size()));
        RulerModel.Step step = s.steps().get(index);
        @Nullable OpenPlace openPlace = model.placeProperty().get();
        if (openPlace == null || step.changes() == 0) {
            go(x);
            return;
        }
        model.context()
                .background()
                .run(
                        () -> {
                            try (Reading reading = openPlace.vault().read()) {
                                return reading.changes().firstChangeFrom(openPlace.place(), step.from());
                            }
                        },
                        found -> found.ifPresent(t -> model.momentProperty().set(s.clip(t.minusNanos(1000)))),
                        failed -> go(x));
    }

    private void hover(MouseEvent e) {
        RulerModel.Stretch s = stretch();
        int index = (int) Math.max(
                0,
                Math.min(
                        s.steps().size() - 1,
                        e.getX() / Math.max(1, getWidth()) * s.steps().size()));
        RulerModel.Step step = s.steps().get(index);
        Ui.tooltip(this, Words.of("ruler.step", stepWords(step), step.changes()));
    }

    private String stepWords(RulerModel.Step step) {
        return switch (stretch().zoom()) {
            case HOUR -> Formats.full(step.from(), zone());
            case DAY -> Formats.formatter("EEE d MMM yyyy").format(step.from().atZone(zone()));
            default -> axisWords(step);
        };
    }

    private void key(KeyEvent e) {
        RulerModel.Stretch s = stretch();
        Instant at = model.momentProperty().get();
        Instant from = at == null ? s.now() : at;
        switch (e.getCode()) {
            case LEFT -> set(from.atZone(zone()).minus(1, s.zoom().unit()).toInstant());
            case RIGHT -> later(from.atZone(zone()).plus(1, s.zoom().unit()).toInstant());
            case HOME -> set(s.beginning().orElse(s.now()));
            case END -> model.momentProperty().set(null);
            case PLUS, EQUALS, ADD -> model.ruler().zoom(-1);
            case MINUS, SUBTRACT -> model.ruler().zoom(1);
            default -> {
                return;
            }
        }
        e.consume();
    }

    /** Time goes on while somebody looks at the past: whoever steps back to where they began is there again, which is now. */
    private void later(Instant at) {
        RulerModel.Stretch s = stretch();
        Instant almostNow = s.now().minus(s.zoom().unit().getDuration().dividedBy(ALMOST));
        if (at.isBefore(almostNow)) {
            set(at);
        } else {
            model.momentProperty().set(null);
        }
    }

    private void set(Instant at) {
        RulerModel.Stretch s = stretch();
        model.momentProperty().set(at.isBefore(s.now()) ? s.clip(at) : null);
    }
}
