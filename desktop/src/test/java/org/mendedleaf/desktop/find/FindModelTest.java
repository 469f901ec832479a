package org.mendedleaf.desktop.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.desktop.context.AppContextTest;

/** Finding words in every past, and narrowing what is found. */
class FindModelTest extends AppContextTest {

    private FindModel model;

    @BeforeEach
    void index() throws IOException {
        new Indexer(openPlace.vault(), false).run(Progress.NONE);
        model = new FindModel(context);
    }

    private List<String> paths() {
        return model.answerProperty().get().hits().stream()
                .filter(FindModel.OfFile.class::isInstance)
                .map(h -> ((FindModel.OfFile) h).file().line().path())
                .sorted()
                .toList();
    }

    private void type(String words) {
        model.typedProperty().set(words);
    }

    @Test
    void aWordIsFoundInAnOldVersionToo() throws Exception {
        type("katy");
        until(() -> paths().equals(List.of("ledger.csv")));
        assertThat(model.answerProperty().get().words()).isEqualTo("1 file");
        type("letter");
        until(() -> paths().equals(List.of("ledger.csv")));
        type("nowhere");
        until(() -> paths().isEmpty() && !model.answerProperty().get().words().isEmpty());
    }

    @Test
    void namesAreFoundAndRemovedFilesAsWell() throws Exception {
        type("note");
        until(() -> paths().equals(List.of("sub/deep/note.txt")));
        model.presenceProperty().set(Wanted.Presence.PRESENT);
        until(() -> paths().isEmpty());
        model.presenceProperty().set(Wanted.Presence.REMOVED);
        until(() -> paths().equals(List.of("sub/deep/note.txt")));
    }

    @Test
    void whatIsFoundIsNarrowedByFolderKindAndPerson() throws Exception {
        type("plan");
        until(() -> paths().equals(List.of("sub/plan.txt")));
        model.folderProperty().set("/sub/");
        until(() -> paths().equals(List.of("sub/plan.txt")));
        model.folderProperty().set("elsewhere");
        until(() -> paths().isEmpty());
        model.folderProperty().set("");
        model.kindProperty().set(".txt");
        until(() -> paths().equals(List.of("sub/plan.txt")));
        model.kindProperty().set("odt");
        until(() -> paths().isEmpty());
        model.kindProperty().set("");
        model.whoProperty().set("Tomas");
        until(() -> paths().equals(List.of("sub/plan.txt")));
        model.whoProperty().set("Nobody");
        until(() -> paths().isEmpty());
    }

    @Test
    void onlyVersionsOfATimeCanBeAskedFor() throws Exception {
        type("katy");
        until(() -> paths().size() == 1);
        model.toProperty().set("1900-01-02");
        until(() -> paths().isEmpty());
        model.toProperty().set("");
        until(() -> paths().size() == 1);
        model.fromProperty().set("the day after never");
        until(() -> paths().isEmpty() && model.answerProperty().get().words().contains("the day after never"));
        model.fromProperty().set("now");
        until(() -> paths().size() == 1);
    }

    @Test
    void anEmptyBoxFindsNothingAndSaysNothing() throws Exception {
        type("katy");
        until(() -> paths().size() == 1);
        type("  ");
        until(() -> paths().isEmpty());
        assertThat(model.answerProperty().get().words()).isEmpty();
    }
}
