package org.mendedleaf.desktop.document;

import java.io.ByteArrayInputStream;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import org.mendedleaf.core.compare.Comparison.PictureChanges;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** A picture, or two: side by side, one over the other with a divider that moves, or what differs. */
final class PictureView implements DocumentView {

    private final Node node;

    private PictureView(Node node) {
        this.node = node;
    }

    @Override
    public Node node() {
        return node;
    }

    static Image image(byte[] png) {
        return new Image(new ByteArrayInputStream(png));
    }

    /** A picture as large as there is space, and no larger than it is. */
    static Region fitted(Image image) {
        ImageView view = new ImageView(image);
        view.setPreserveRatio(true);
        view.setSmooth(true);
        StackPane pane = new StackPane(view);
        pane.getStyleClass().add("detail-picture");
        pane.setMinSize(0, 0);
        pane.setPrefSize(100, 100);
        view.fitWidthProperty()
                .bind(Bindings.max(
                        1, Bindings.min(image.getWidth(), pane.widthProperty().subtract(24))));
        view.fitHeightProperty()
                .bind(Bindings.max(
                        1, Bindings.min(image.getHeight(), pane.heightProperty().subtract(16))));
        return pane;
    }

    static PictureView of(Document.Picture picture) {
        BorderPane pane = new BorderPane(fitted(image(picture.png())));
        HBox facts = new HBox(16);
        facts.getStyleClass().add("look-facts");
        picture.facts().forEach(f -> facts.getChildren().add(Ui.label(f.name() + "  " + f.value(), "dim")));
        pane.setBottom(facts);
        return new PictureView(pane);
    }

    static PictureView of(PictureChanges pictures) {
        BorderPane pane = new BorderPane();
        Image before = image(pictures.before().png());
        Image after = image(pictures.after().png());
        Image difference = image(pictures.difference());
        ToggleGroup group = new ToggleGroup();
        HBox modes = new HBox(
                toggle(group, "look.beside", "left-pill", () -> pane.setCenter(beside(before, after))),
                toggle(group, "look.over", "center-pill", () -> pane.setCenter(over(before, after))),
                toggle(group, "look.differs", "right-pill", () -> pane.setCenter(fitted(difference))));
        modes.setAlignment(Pos.CENTER);
        modes.getStyleClass().add("look-facts");
        pane.setBottom(modes);
        ((ToggleButton) group.getToggles().get(0)).setSelected(true);
        pane.setCenter(beside(before, after));
        return new PictureView(pane);
    }

    private static ToggleButton toggle(ToggleGroup group, String key, String style, Runnable show) {
        ToggleButton button = new ToggleButton(Words.of(key));
        button.setId(key.replace('.', '-'));
        button.setToggleGroup(group);
        button.getStyleClass().addAll("small", style);
        button.setOnAction(e -> {
            button.setSelected(true);
            show.run();
        });
        return button;
    }

    private static Node beside(Image before, Image after) {
        HBox both = new HBox(8);
        for (Image image : new Image[] {before, after}) {
            Region pane = fitted(image);
            HBox.setHgrow(pane, Priority.ALWAYS);
            VBox titled = new VBox(pane);
            VBox.setVgrow(pane, Priority.ALWAYS);
            HBox.setHgrow(titled, Priority.ALWAYS);
            both.getChildren().add(titled);
        }
        return both;
    }

    private static Node over(Image before, Image after) {
        Region below = fitted(before);
        Region above = fitted(after);
        Rectangle clip = new Rectangle();
        Slider slider = new Slider(0, 1, 0.5);
        slider.setId("look-divider");
        slider.setAccessibleText(Words.of("look.divider"));
        Region divider = new Region();
        divider.getStyleClass().add("look-divider");
        divider.setManaged(false);
        divider.setMouseTransparent(true);
        StackPane stack = new StackPane(below, above, divider);
        clip.heightProperty().bind(stack.heightProperty());
        clip.xProperty().bind(stack.widthProperty().multiply(slider.valueProperty()));
        clip.widthProperty().bind(stack.widthProperty());
        above.setClip(clip);
        clip.xProperty().addListener((o, a, x) -> divider.resizeRelocate(x.doubleValue() - 1, 0, 2, stack.getHeight()));
        stack.heightProperty().addListener((o, a, h) -> divider.resizeRelocate(clip.getX() - 1, 0, 2, h.doubleValue()));
        stack.setOnMouseDragged(e ->
                slider.setValue(Math.max(0, Math.min(1, e.getX() / Math.max(1, stack.getWidth())))));
        stack.setMinSize(0, 0);
        VBox box = new VBox(stack, slider);
        VBox.setVgrow(stack, Priority.ALWAYS);
        return box;
    }
}
