package org.mendedleaf.desktop.protection;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.words.Words;

/** How often a folder is captured, and what is left out; each change counts at once. */
final class FolderForm extends GridPane {

    private final ProtectionModel model;
    private final RhythmField rhythm;

    /** The model outlives this form, and knows of it by this only. */
    private final ChangeListener<AheadModel.@Nullable Ahead> costs;

    private Coverage.Row row;

    /**
     * The settings of a folder.
     *
     * @param trouble is told what was wrong with what was typed; empty when nothing is
     */
    FolderForm(ProtectionModel model, Coverage.Row row, Consumer<String> trouble) {
        this.model = model;
        this.row = row;
        getStyleClass().add("form");
        Place p = row.place().orElseThrow();
        rhythm = new RhythmField("place-rhythm", p.rhythm(), this::choice);
        TextField out = new TextField(String.join(", ", p.exclusions()));
        out.setId("place-exclusions");
        out.setPromptText(Words.of("protect.exclusions.prompt"));
        out.setAccessibleText(Words.of("protect.exclusions"));
        Runnable apply = () -> model.settings(this.row, rhythm.valueProperty().get(), patterns(out.getText()), trouble);
        rhythm.valueProperty().addListener((o, a, b) -> apply.run());
        out.setOnAction(e -> apply.run());
        out.focusedProperty().addListener((o, was, is) -> {
            if (!is && !patterns(out.getText()).equals(p.exclusions())) {
                apply.run();
            }
        });
        costs = (o, a, b) -> rhythm.wordsChanged();
        model.ahead().aheadProperty().addListener(new WeakChangeListener<>(costs));
        addRow(0, PlacePane.name("protect.rhythm"), rhythm);
        addRow(1, PlacePane.name("protect.exclusions"), out);
        setHgrow(out, javafx.scene.layout.Priority.ALWAYS);
    }

    /**
     * Shows the same folder as it stands now. What somebody is typing stays, with the mark on what is wrong.
     *
     * @return false when it is another folder, or its settings are others by now
     */
    boolean show(Coverage.Row now) {
        if (!now.where().equals(row.where()) || !now.place().equals(row.place())) {
            return false;
        }
        row = now;
        return true;
    }

    /** The intervals that can be chosen. */
    RhythmField rhythm() {
        return rhythm;
    }

    private static List<String> patterns(String text) {
        List<String> patterns = new ArrayList<>();
        for (String each : text.split(",")) {
            if (!each.isBlank()) {
                patterns.add(each.strip());
            }
        }
        return patterns;
    }

    /** An interval to choose, with what it costs beside the present one. */
    private String choice(Rhythm r) {
        String words = r.longWords();
        return model.ahead()
                .cost(r)
                .map(cost -> Words.of("ahead.choice", words, cost))
                .orElse(words);
    }
}
