package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.desktop.context.AppContextTest;

/** What the large view shows, takes out and takes back, without its scene. */
class ReadingModelsTest extends AppContextTest {

    private FilesModel ledger() throws Exception {
        return open("ledger.csv");
    }

    private FilesModel open(String name) throws Exception {
        FilesModel files = new FilesModel(context);
        files.open(openPlace, "");
        until(() -> files.listingProperty().get().top().stream()
                .anyMatch(r -> r.entry().name().equals(name)));
        files.select(files.listingProperty().get().top().stream()
                .filter(r -> r.entry().name().equals(name))
                .findFirst()
                .orElseThrow());
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared
                || files.line().detailProperty().get() instanceof Detail.Seen);
        return files;
    }

    private Detail.Compared compared(FilesModel files) throws Exception {
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared);
        return (Detail.Compared) files.line().detailProperty().get();
    }

    private void choose(FilesModel files, int number) {
        Version v = files.line().lineProperty().get().version(number).orElseThrow();
        files.line().choose(v);
    }

    @Test
    void aVersionIsComparedWithWhateverIsChosenAndItsContentsCanBeHad() throws Exception {
        FilesModel files = ledger();
        Detail.Compared first = compared(files);
        assertThat(first.before()).isEqualTo("version 1");
        assertThat(first.after()).isEqualTo("version 2");
        assertThat(first.contents().get().before().orElseThrow().content())
                .asString(StandardCharsets.UTF_8)
                .isEqualTo("kind,kilos\nKaty,412\n");
        Path other = Files.writeString(temp.resolve("other.csv"), "kind,kilos\nKaty,413\n");
        choose(files, 1);
        files.line().againstProperty().set(new CompareTarget.OfFile(other));
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared c
                && c.after().equals("other.csv"));
        assertThat(compared(files).comparison().words()).isEqualTo("1 cell");
        Files.delete(other);
        files.line().againstProperty().set(new CompareTarget.OfFile(other));
        files.line().againstProperty().set(new CompareTarget.Before());
        until(() -> files.line().detailProperty().get() instanceof Detail.Seen);
        files.line().againstProperty().set(new CompareTarget.OfFile(other));
        until(() -> files.line().detailProperty().get() instanceof Detail.Failed);
        assertThat(((Detail.Failed) files.line().detailProperty().get()).words())
                .contains("is not there");
        files.line().againstProperty().set(new CompareTarget.Now());
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared);
        assertThat(compared(files).after()).isEqualTo("what the folder holds now");
    }

    @Test
    void whatTheFolderHoldsNowIsReadWhenItIsLookedAtAndNotBefore() throws Exception {
        FilesModel files = ledger();
        Files.writeString(folder.resolve("ledger.csv"), "kind,kilos\nKaty,500\n");
        choose(files, 1);
        files.line().againstProperty().set(new CompareTarget.Now());
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared c
                && c.comparison().words().equals("1 cell"));
        assertThat(compared(files).contents().get().after().orElseThrow().content())
                .asString(StandardCharsets.UTF_8)
                .contains("500");
        Files.delete(folder.resolve("ledger.csv"));
        files.line().againstProperty().set(new CompareTarget.Before());
        files.line().againstProperty().set(new CompareTarget.Now());
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared c
                && c.after().equals("version 2"));
    }

    private void export(FilesModel files, Path to, List<String> said) throws Exception {
        int before = said.size();
        files.reading().export(compared(files), to, (words, trouble) -> said.add((trouble ? "! " : "") + words));
        until(() -> said.size() > before);
    }

    @Test
    void anExportIsWhatItsNameSaysAndOneThatCannotBeWrittenSaysWhy() throws Exception {
        FilesModel files = ledger();
        List<String> said = new ArrayList<>();
        assertThat(files.reading().exportName(compared(files), "csv")).isEqualTo("ledger, changes of version 2.csv");
        export(files, temp.resolve("a.html"), said);
        assertThat(temp.resolve("a.html")).content().contains("</html>");
        export(files, temp.resolve("a.DIFF"), said);
        assertThat(temp.resolve("a.DIFF")).content().startsWith("--- ledger.csv");
        export(files, temp.resolve("a.csv"), said);
        assertThat(temp.resolve("a.csv")).content().startsWith("number,change");
        assertThat(said).hasSize(3).allSatisfy(s -> assertThat(s).doesNotStartWith("!"));
        export(files, temp.resolve("no such folder/a.html"), said);
        assertThat(said.get(3)).startsWith("! The comparison could not be written");
    }

    @Test
    void changesAreTakenBackOfWhatIsThereNowOnlyAndOnlyAfterTheOutcomeIsKnown() throws Exception {
        save("ledger.csv", "kind,kilos\nKaty,412\nBramley,7\n", later.plusSeconds(60));
        boolean[] done = {false};
        context.captures().capture(openPlace, r -> done[0] = true);
        until(() -> done[0]);
        save("ledger.csv", "kind,kilos\nKaty,421\nBramley,7\nPerry,1\n", later.plusSeconds(120));
        done[0] = false;
        context.captures().capture(openPlace, r -> done[0] = true);
        until(() -> done[0]);
        FilesModel files = ledger();
        until(() -> files.line().lineProperty().get().versions().size() == 4);
        choose(files, 3);
        until(() -> !files.picking().offerProperty().get().why().isEmpty());
        assertThat(files.picking().offerProperty().get().why()).contains("what the folder holds now");
        choose(files, 4);
        until(() -> files.picking().offerProperty().get().changes().size() == 2);
        assertThat(files.picking().planProperty().get().known()).isFalse();
        files.picking().tick(1, true);
        until(() -> files.picking().planProperty().get().known());
        assertThat(files.picking().planProperty().get().refused()).isEmpty();
        files.picking().tick(1, false);
        assertThat(files.picking().planProperty().get().known())
                .as("nothing is ticked")
                .isFalse();
        files.picking().tick(2, true);
        until(() -> files.picking().planProperty().get().known());
        // Somebody saves while it is looked at: nothing is taken back of what was not seen.
        save("ledger.csv", "kind,kilos\nKaty,1\n", later.plusSeconds(180));
        files.picking().take();
        until(() -> files.messageProperty().get().failed());
        assertThat(files.messageProperty().get().words()).contains("was saved since");
        assertThat(folder.resolve("ledger.csv")).content().contains("Katy,1");
    }

    @Test
    void aMemberOfAnArchiveIsComparedAndOneThatIsOnlyInOneOfThemIsShown() throws Exception {
        archive("plan.txt", "one\n", "old.txt", "gone");
        capture();
        archive("plan.txt", "two\n", "new.txt", "came");
        capture();
        FilesModel files = open("bundle.zip");
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared c
                && c.comparison() instanceof Comparison.ArchiveChanges);
        files.line().memberProperty().set("plan.txt");
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared c
                && c.member().equals("plan.txt"));
        assertThat(compared(files).comparison().words()).isEqualTo("+1 line, −1 line");
        files.line().memberProperty().set("new.txt");
        until(() -> files.line().detailProperty().get() instanceof Detail.Seen s
                && s.member().equals("new.txt"));
        assertThat(Document.words(((Detail.Seen) files.line().detailProperty().get()).document()))
                .containsExactly("came");
        assertThat(((Detail.Seen) files.line().detailProperty().get()).said())
                .isEqualTo("Only in version 2; there is nothing before it.");
        files.line().memberProperty().set("never.txt");
        until(() -> files.line().detailProperty().get() instanceof Detail.Failed);
    }

    @Test
    void aTextThatIsTooLongToBeShownWholeIsReadPartByPart() throws Exception {
        StringBuilder text = new StringBuilder();
        for (int i = 1; i <= 210_000; i++) {
            text.append("line ").append(i).append('\n');
        }
        Files.writeString(folder.resolve("long.txt"), text);
        capture();
        FilesModel files = open("long.txt");
        files.line().modeProperty().set(Detail.Mode.CONTENT);
        until(() -> files.line().detailProperty().get() instanceof Detail.Seen s && s.parts() > 1);
        Detail.Seen first = (Detail.Seen) files.line().detailProperty().get();
        assertThat(Document.words(first.document()).get(0)).isEqualTo("line 1");
        files.line().partProperty().set(first.parts() - 1);
        until(() -> files.line().detailProperty().get() instanceof Detail.Seen s && s.part() == first.parts() - 1);
        List<String> last =
                Document.words(((Detail.Seen) files.line().detailProperty().get()).document());
        assertThat(last.get(last.size() - 1)).isEqualTo("line 210000");
        choose(files, 1);
        assertThat(files.line().partProperty().get())
                .as("the next version begins at its beginning")
                .isZero();
    }

    private void capture() throws Exception {
        boolean[] done = {false};
        context.captures().capture(openPlace, r -> done[0] = true);
        until(() -> done[0]);
    }

    private void archive(String... namesAndTexts) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(folder.resolve("bundle.zip")))) {
            for (int i = 0; i < namesAndTexts.length; i += 2) {
                zip.putNextEntry(new ZipEntry(namesAndTexts[i]));
                zip.write(namesAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
            }
        }
    }

    @Test
    void whatSomebodyIsAtStaysWhenSomethingElseChanges() throws Exception {
        archive("plan.txt", "one\n", "old.txt", "gone");
        capture();
        archive("plan.txt", "two\n", "new.txt", "came");
        capture();
        FilesModel files = open("bundle.zip");
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared);
        files.line().memberProperty().set("plan.txt");
        until(() -> files.line().detailProperty().get() instanceof Detail.Compared c
                && c.member().equals("plan.txt"));
        Detail before = files.line().detailProperty().get();
        context.changed();
        until(() -> files.line().detailProperty().get() != before);
        assertThat(files.line().memberProperty().get()).isEqualTo("plan.txt");
        assertThat(compared(files).member()).isEqualTo("plan.txt");
    }

    @Test
    void whatIsTickedStaysTickedWhenSomethingElseChanges() throws Exception {
        save("ledger.csv", "kind,kilos\nKaty,412\nBramley,7\n", later.plusSeconds(60));
        capture();
        save("ledger.csv", "kind,kilos\nKaty,421\nBramley,7\n", later.plusSeconds(120));
        capture();
        FilesModel files = ledger();
        until(() -> !files.picking().offerProperty().get().changes().isEmpty());
        files.picking().tick(1, true);
        until(() -> files.picking().planProperty().get().known());
        Detail before = files.line().detailProperty().get();
        context.changed();
        until(() -> files.line().detailProperty().get() != before);
        assertThat(files.picking().ticks()).isEqualTo(1);
        assertThat(files.picking().planProperty().get().known()).isTrue();
        choose(files, 1);
        until(() -> files.picking().ticks() == 0);
    }
}
