package org.mendedleaf.desktop.context;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.desktop.files.FilesModel;
import org.mendedleaf.desktop.retention.EraseModel;

/** Copies for other programs go with the window, and with what was erased. */
class OpenedCopiesTest extends AppContextTest {

    private Line ledger() throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            return reading.line(openPlace.place(), "ledger.csv").orElseThrow();
        }
    }

    private Path opened(int number) throws Exception {
        FilesModel files = new FilesModel(context);
        files.open(openPlace, "");
        Version version = ledger().version(number).orElseThrow();
        List<Path> copies = new ArrayList<>();
        files.openCopy(version, copies::add);
        until(() -> !copies.isEmpty());
        return copies.get(0);
    }

    @Test
    void aCopyHasTheContentOfItsVersionAndCannotBeWrittenTo() throws Exception {
        Path copy = opened(1);
        assertThat(copy).content().contains("Katy");
        assertThat(copy.getParent()).isEqualTo(context.openedCopies().folder());
        assertThat(Files.getPosixFilePermissions(copy)).noneMatch(p -> p.name().endsWith("_WRITE"));
    }

    @Test
    void copiesGoWhenTheWindowEndsButOneThatSomebodyMadeWritableStays() throws Exception {
        Path copy = opened(1);
        Path theirs = opened(2);
        assertThat(theirs.toFile().setWritable(true)).isTrue();
        Files.writeString(theirs, "what somebody wrote into it");
        context.close();
        assertThat(copy).doesNotExist();
        assertThat(theirs).hasContent("what somebody wrote into it");
    }

    @Test
    void whatAnEarlierWindowLeftGoesWhenTheNextOneOpens() throws Exception {
        Path left = Files.createDirectories(context.openedCopies().folder()).resolve("left.csv");
        Files.writeString(left, "left");
        assertThat(left.toFile().setReadOnly()).isTrue();
        boolean[] ready = {false};
        context.open(() -> ready[0] = true);
        until(() -> ready[0]);
        assertThat(left).doesNotExist();
    }

    @Test
    void anErasedVersionLeavesNoCopyAndTheOthersStay() throws Exception {
        Path erased = opened(1);
        Path kept = opened(2);
        EraseModel model = new EraseModel(context, openPlace, ledger(), Erasing.What.VERSION, 1);
        List<String> said = new ArrayList<>();
        model.erase(said::add);
        until(() -> !said.isEmpty());
        assertThat(erased).doesNotExist();
        assertThat(kept).exists();
    }
}
