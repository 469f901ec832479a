package org.mendedleaf.desktop.recovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.desktop.context.AppContextTest;

/** A folder at two moments. */
class CompareModelTest extends AppContextTest {

    private CompareModel model;

    @BeforeEach
    void compare() throws Exception {
        model = new CompareModel(context, openPlace, "");
        model.fromProperty().set(between());
        model.toProperty().set(later.plusSeconds(60));
        until(() -> model.wholeProperty().get() != null);
    }

    private List<String> shown() {
        return model.shownProperty().get().stream()
                .map(c -> c.kind() + " " + c.path())
                .sorted()
                .toList();
    }

    private TwoMoments.Change change(String path) {
        return model.shownProperty().get().stream()
                .filter(c -> c.path().equals(path))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatCameWentAndChangedBetweenTheTwoIsListed() {
        assertThat(shown()).containsExactly("ADDED sub/new.txt", "CHANGED ledger.csv", "REMOVED sub/deep/note.txt");
    }

    @Test
    void theListIsNarrowedByKindAndByWordsOfThePath() {
        model.kindsProperty().set(Set.of(TwoMoments.Kind.ADDED, TwoMoments.Kind.REMOVED));
        assertThat(shown()).containsExactly("ADDED sub/new.txt", "REMOVED sub/deep/note.txt");
        model.filterProperty().set(" NOTE ");
        assertThat(shown()).containsExactly("REMOVED sub/deep/note.txt");
        model.filterProperty().set("nothing like it");
        assertThat(shown()).isEmpty();
        model.filterProperty().set("");
        model.kindsProperty().set(Set.of());
        assertThat(shown()).hasSize(3);
    }

    @Test
    void momentsInTheWrongOrderAreSaidAndShowNothing() throws Exception {
        model.fromProperty().set(later.plusSeconds(120));
        until(() -> !model.problemProperty().get().isEmpty());
        assertThat(shown()).isEmpty();
        model.fromProperty().set(between());
        until(() -> model.problemProperty().get().isEmpty() && shown().size() == 3);
    }

    @Test
    void theSameMomentTwiceHasNoDifference() throws Exception {
        model.toProperty().set(between());
        until(() -> shown().isEmpty());
        assertThat(Objects.requireNonNull(model.wholeProperty().get()).changes())
                .isEmpty();
        assertThat(model.problemProperty().get()).isEmpty();
    }

    @Test
    void aRowLeadsToTheFileAtBothMoments() throws Exception {
        Pair changed = model.pair(change("ledger.csv"));
        assertThat(changed.before()).isPresent();
        assertThat(changed.after()).isPresent();
        assertThat(model.pair(change("sub/new.txt")).before()).isEmpty();
        assertThat(model.pair(change("sub/deep/note.txt")).after()).isEmpty();
    }

    @Test
    void whatIsShownIsWrittenAndWhatCannotBeWrittenIsSaid() throws Exception {
        model.filterProperty().set("ledger");
        Path file = temp.resolve("changes.csv");
        boolean[] done = {false};
        model.save(file, () -> done[0] = true);
        until(() -> done[0]);
        assertThat(Files.readAllLines(file)).hasSize(2).anyMatch(l -> l.contains("ledger.csv"));
        model.save(temp.resolve("no/such/folder/changes.csv"), () -> done[0] = false);
        until(() -> !model.problemProperty().get().isEmpty());
        assertThat(done[0]).isTrue();
    }

    @Test
    void momentsAreUnderstoodAsTheyAreTyped() throws Exception {
        assertThat(model.understand(between().toString())).isEqualTo(between());
        assertThatThrownBy(() -> model.understand("2020-01-02T03:04:05Z"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("before anything is known");
        assertThat(model.folder()).isEmpty();
        assertThat(model.openPlace()).isEqualTo(openPlace);
    }
}
