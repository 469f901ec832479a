package org.mendedleaf.desktop.protection;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;

/** Who may do what in a place of another system. */
final class MembersBox extends VBox {

    private final PlaceModel place;
    private final Runnable again;

    /**
     * The members as they are being changed.
     *
     * @param away whether the system cannot be reached, so that nothing can be changed
     * @param again shows them anew
     */
    MembersBox(PlaceModel place, boolean away, Runnable again) {
        super(4);
        this.place = place;
        this.again = again;
        fill(away);
    }

    private void fill(boolean away) {
        setId("members");
        setDisable(away);
        for (Member m : place.draftProperty().get().members()) {
            ComboBox<Role> role = roles(m.role());
            role.valueProperty().addListener((o, a, r) -> place.member(m.who(), r));
            Button out = Ui.iconButton(Feather.X, "protection.removeMember", () -> {
                place.member(m.who(), null);
                again.run();
            });
            HBox line = new HBox(8, Ui.label(m.who()), Ui.spacer(), role, out);
            line.setAlignment(Pos.CENTER_LEFT);
            getChildren().add(line);
        }
        if (getChildren().isEmpty()) {
            getChildren().add(PlacePane.wrapped(Words.of("place.private"), "dim"));
        }
        TextField who = new TextField();
        who.setId("member-name");
        who.setPromptText(Words.of("protection.memberPrompt"));
        who.setAccessibleText(Words.of("protection.memberPrompt"));
        ComboBox<Role> role = roles(Role.EDITOR);
        Button add = Ui.button("protection.addMember", () -> {
            place.member(who.getText(), role.getValue());
            again.run();
        });
        who.setOnAction(e -> add.fire());
        HBox line = new HBox(8, who, role, add);
        line.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(line);
    }

    private static ComboBox<Role> roles(Role now) {
        ComboBox<Role> box = new ComboBox<>();
        box.getItems().setAll(Role.values());
        box.setValue(now);
        box.setAccessibleText(Words.of("protection.role"));
        box.setConverter(Choices.said(r -> Words.of("role." + r.text()), ""));
        return box;
    }
}
