package org.mendedleaf.desktop.widgets;

import java.io.IOException;
import java.time.Instant;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;

/** A field for a typed moment. Below it stands the moment as it was understood, or why it was not. */
public final class MomentField extends VBox {

    private final AppContext context;
    private final Reader reader;
    private final Background.Newest question;
    private final TextField text = new TextField();
    private final Label understood = Ui.label("", "small-words");
    private final ReadOnlyObjectWrapper<@Nullable Instant> moment = new ReadOnlyObjectWrapper<>();

    /** Reads a typed moment, off the screen's thread; refuses in words. */
    @FunctionalInterface
    public interface Reader {
        Instant read(String typed) throws IOException;
    }

    /**
     * A field.
     *
     * @param id of the text; what is understood has the same with {@code -understood}
     */
    public MomentField(AppContext context, String id, Reader reader) {
        super(3);
        this.context = context;
        this.reader = reader;
        this.question = context.background().new Newest();
        text.setId(id);
        text.setPromptText(Words.of("pick.prompt"));
        text.setAccessibleText(Words.of("pick.prompt"));
        understood.setId(id + "-understood");
        understood.setWrapText(true);
        understood.setMinHeight(USE_PREF_SIZE);
        getChildren().addAll(text, understood);
        text.textProperty().addListener((o, a, typed) -> read(typed));
        say(Words.of("pick.hint"), false);
    }

    private void say(String words, boolean wrong) {
        understood.setText(words);
        Ui.style(understood, "error-text", wrong);
        Ui.style(understood, "dim", !wrong);
    }

    private void read(String typed) {
        moment.set(null);
        if (typed.isBlank()) {
            question.drop();
            say(Words.of("pick.hint"), false);
            return;
        }
        question.ask(
                () -> reader.read(typed),
                at -> {
                    moment.set(at);
                    Instant now = context.clock().instant();
                    say(
                            MomentText.isNow(typed)
                                    ? Words.of("when.now")
                                    : Words.of("pick.understood", Formats.zoned(at, context.zone()), ago(at, now)),
                            false);
                },
                e -> say(Failures.named(e), true));
    }

    private String ago(Instant at, Instant now) {
        long days = java.time.Duration.between(at, now).toDays();
        return days > 0 ? Words.of("pick.daysAgo", days) : Formats.ago(at, now, context.zone());
    }

    /** What is typed. */
    public TextField text() {
        return text;
    }

    /** The moment that is typed; null while it is none. */
    public ReadOnlyObjectProperty<@Nullable Instant> momentProperty() {
        return moment.getReadOnlyProperty();
    }

    /** Whether the present was typed. */
    public boolean isNow() {
        return MomentText.isNow(text.getText());
    }
}
