package org.mendedleaf.desktop.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.intake.Family;
import org.mendedleaf.core.intake.IntakePlan;
import org.mendedleaf.core.intake.IntakeRow;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.intake.NameTaken;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.context.PutOptions;
import org.mendedleaf.desktop.context.PutService;
import org.mendedleaf.desktop.files.PutModel;

/** What comes in, without its scene: the guard, the table of many, copies, safety copies, what just arrived. */
public class IntakeModelsTest extends AppContextTest {

    /** Hears how putting in went. */
    static final class Heard implements PutService.Hearer {
        final List<PutService.Doubt> doubts = new ArrayList<>();
        final List<String> said = new ArrayList<>();
        final List<Exception> failed = new ArrayList<>();

        @Override
        public void doubtful(PutService.Doubt doubt) {
            doubts.add(doubt);
        }

        @Override
        public void done(String words, boolean undo) {
            said.add(words);
        }

        @Override
        public void failed(Exception e) {
            failed.add(e);
        }

        boolean any() {
            return doubts.size() + said.size() + failed.size() > 0;
        }
    }

    /** Lines of words that only this seed has. */
    public static String words(int seed, int lines) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < lines; i++) {
            for (int k = 0; k < 8; k++) {
                text.append("w").append(seed * 1009 + i * 31 + k * 7).append(' ');
            }
            text.append('\n');
        }
        return text.toString();
    }

    private final Heard heard = new Heard();

    private Path incoming(String name, String text) throws IOException {
        Path file = temp.resolve("in").resolve(name);
        Files.createDirectories(file.getParent());
        return Files.writeString(file, text);
    }

    private void kept(String name, String text) throws Exception {
        save(name, text, Instant.now().minusSeconds(600));
        boolean[] done = {false};
        context.captures().capture(openPlace, r -> done[0] = true);
        until(() -> done[0]);
    }

    private Line line(String path) {
        try (Reading reading = openPlace.vault().read()) {
            return reading.line(openPlace.place(), path).orElseThrow();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private void put(Path file, String target, PutOptions options) throws Exception {
        new PutService(context).put(openPlace, file, target, options, heard);
        until(heard::any);
    }

    @Test
    void whatFitsGoesInAtOnceWithItsNote() throws Exception {
        kept("plan.txt", words(1, 20));
        put(
                incoming("plan (1).txt", words(1, 20) + "more"),
                "plan.txt",
                new PutOptions("as agreed", org.mendedleaf.core.line.DraftChoice.BY_RULE, true, List.of(), "Jory"));
        assertThat(heard.said).containsExactly("plan.txt is now version 2.");
        assertThat(folder.resolve("plan.txt")).hasContent(words(1, 20) + "more");
        assertThat(line("plan.txt").newest().orElseThrow().note()).isEqualTo("as agreed");
        assertThat(line("plan.txt").newest().orElseThrow().who()).isEqualTo("Jory");
        assertThat(temp.resolve("in/plan (1).txt")).doesNotExist();
    }

    @Test
    void whatIsDoubtfulWaitsAndCanGoWhereItBelongs() throws Exception {
        kept("plan.txt", words(1, 20));
        kept("list.txt", words(2, 20));
        put(
                incoming("x.txt", words(2, 20)),
                "plan.txt",
                new PutOptions("", org.mendedleaf.core.line.DraftChoice.BY_RULE, false, List.of(), "Wilma"));
        GuardModel guard = new GuardModel(context, heard.doubts.get(0));
        until(() -> guard.currentProperty().get() != null
                && guard.incomingProperty().get() != null);
        assertThat(guard.heading()).isEqualTo("Is this the next version of plan.txt?");
        assertThat(guard.doubt().judgement().outcome()).isEqualTo(Judgement.Outcome.UNLIKELY);
        assertThat(guard.belongsTo()).contains("list.txt");
        assertThat(folder.resolve("plan.txt")).hasContent(words(1, 20));
        Heard there = new Heard();
        guard.putThere(there);
        until(there::any);
        assertThat(there.said.get(0)).contains("list.txt is the same as version 1");
        Heard anyway = new Heard();
        guard.noteProperty().set("on purpose");
        guard.putAnyway(anyway);
        until(anyway::any);
        assertThat(line("plan.txt").newest().orElseThrow().note()).isEqualTo("on purpose");
        assertThat(line("plan.txt").newest().orElseThrow().who())
                .as("who wrote it, also when somebody had to look first")
                .isEqualTo("Wilma");
    }

    @Test
    void anEarlierVersionIsRestoredInsteadOfPutIn() throws Exception {
        kept("plan.txt", words(1, 20));
        kept("plan.txt", words(1, 22));
        put(incoming("plan.txt", words(1, 20)), "plan.txt", PutOptions.PLAIN);
        GuardModel guard = new GuardModel(context, heard.doubts.get(0));
        assertThat(guard.canRestore()).isTrue();
        Heard restored = new Heard();
        guard.restore(restored);
        until(restored::any);
        assertThat(restored.said.get(0)).contains("version 1 is current again");
        assertThat(line("plan.txt").newest().orElseThrow().source()).isEqualTo(1);
    }

    @Test
    void whatCannotBePutInIsSaid() throws Exception {
        put(temp.resolve("nowhere"), "ledger.csv", PutOptions.PLAIN);
        assertThat(heard.failed).hasSize(1);
    }

    private static String fates(IntakeModel model) {
        IntakePlan plan = Objects.requireNonNull(model.planProperty().get());
        return String.join(
                ", ",
                plan.rows().stream()
                        .map(r -> r.incoming().relative() + " " + r.fate())
                        .toList());
    }

    @Test
    void manyFilesAreMatchedChangedPutInAndUndone() throws Exception {
        kept("sub/a.txt", words(1, 20));
        kept("sub/b.txt", words(2, 20));
        incoming("drop/a.txt", words(1, 20) + "more");
        incoming("drop/b.txt", words(7, 20));
        incoming("drop/c.txt", "new");
        IntakeModel model = new IntakeModel(context, openPlace, List.of(temp.resolve("in/drop")), "sub");
        until(() -> model.stepProperty().get() == IntakeModel.Step.TABLE);
        assertThat(fates(model)).isEqualTo("a.txt NEW_VERSION, b.txt UNSURE, c.txt NEW_FILE");
        model.choose(2, IntakeRow.Fate.NEW_FILE, "sub/a.txt");
        assertThat(model.canRun()).as("two for one").isFalse();
        assertThat(model.problemProperty().get()).contains("sub/a.txt");
        model.choose(2, IntakeRow.Fate.NEW_FILE, "sub/c.txt");
        model.choose(1, IntakeRow.Fate.NEW_VERSION, "sub/b.txt");
        model.note(1, "its own");
        model.noteProperty().set("for all");
        model.run();
        until(() -> model.stepProperty().get() == IntakeModel.Step.DONE);
        assertThat(folder.resolve("sub/b.txt")).hasContent(words(7, 20));
        assertThat(line("sub/a.txt").newest().orElseThrow().note()).isEqualTo("for all");
        assertThat(line("sub/b.txt").newest().orElseThrow().note()).isEqualTo("its own");
        assertThat(model.canRetry()).isFalse();
        boolean[] undone = {false};
        model.undo(() -> undone[0] = true);
        until(() -> undone[0]);
        assertThat(folder.resolve("sub/b.txt")).hasContent(words(2, 20));
        assertThat(folder.resolve("sub/c.txt")).doesNotExist();
    }

    @Test
    void theRuleForTakenNamesIsRememberedForTheFolder() throws Exception {
        incoming("drop/ledger.csv", "kind,kilos\nother,1\n");
        IntakeModel model = new IntakeModel(context, openPlace, List.of(temp.resolve("in/drop")), "");
        until(() -> model.stepProperty().get() == IntakeModel.Step.TABLE);
        model.takenProperty().set(NameTaken.KEEP_BOTH);
        until(() -> model.stepProperty().get() == IntakeModel.Step.TABLE
                && fates(model).equals("ledger.csv NEW_FILE"));
        model.rememberRule();
        until(() -> {
            try (Reading reading = openPlace.vault().read()) {
                return PlaceRules.of(reading, openPlace.place())
                        .settings()
                        .get(Setting.COLLISION)
                        .equals("keep-both");
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        });
        IntakeModel again = new IntakeModel(context, openPlace, List.of(temp.resolve("in/drop")), "");
        until(() -> again.stepProperty().get() == IntakeModel.Step.TABLE);
        assertThat(again.takenProperty().get()).isEqualTo(NameTaken.KEEP_BOTH);
        assertThat(fates(again)).isEqualTo("ledger.csv NEW_FILE");
    }

    @Test
    void nothingThatIsThereBlocksTheTable() throws Exception {
        IntakeModel model = new IntakeModel(context, openPlace, List.of(temp.resolve("nowhere")), "");
        until(() -> model.stepProperty().get() == IntakeModel.Step.BLOCKED);
        assertThat(model.problemProperty().get()).contains("nowhere");
        Path empty = Files.createDirectories(temp.resolve("empty"));
        IntakeModel none = new IntakeModel(context, openPlace, List.of(empty), "");
        until(() -> none.stepProperty().get() == IntakeModel.Step.TABLE);
        assertThat(none.canRun()).isFalse();
    }

    @Test
    void aFamilyIsReorderedAndFoldedAsOneStep() throws Exception {
        save("plan v1.txt", words(1, 20), Instant.now().minusSeconds(3000));
        save("plan v2.txt", words(1, 20) + "two", Instant.now().minusSeconds(2000));
        kept("plan (1).txt", words(1, 20) + "two\nthree");
        FoldModel model = new FoldModel(context, openPlace, "");
        until(() -> model.familiesProperty().get() != null);
        List<Family> families = Objects.requireNonNull(model.familiesProperty().get());
        assertThat(families).hasSize(1);
        assertThat(families.get(0).keep()).isEqualTo("plan.txt");
        model.move(0, 2, 0);
        model.move(0, 0, 9);
        model.keep(0, "The plan.txt");
        model.keep(0, "no/name");
        assertThat(model.problemProperty().get()).isNotEmpty();
        model.include(0, false);
        assertThat(model.foldings()).isEmpty();
        model.include(0, true);
        List<String> said = new ArrayList<>();
        model.run(said::add);
        until(() -> !said.isEmpty());
        assertThat(said.get(0)).contains("3 copies are removed");
        assertThat(folder.resolve("The plan.txt")).hasContent(words(1, 20) + "two");
        assertThat(folder.resolve("plan v1.txt")).doesNotExist();
    }

    @Test
    void safetyCopiesAreFoundAndTakenIn() throws Exception {
        kept("plan.txt", words(1, 20));
        Files.writeString(folder.resolve("plan.txt.bak"), words(1, 20) + "kept by a program");
        StraysModel model = new StraysModel(context, openPlace, "");
        until(() -> model.straysProperty().get() != null);
        Stray stray = Objects.requireNonNull(model.straysProperty().get()).get(0);
        model.adopt(stray);
        until(() -> !model.messageProperty().get().isEmpty());
        assertThat(model.messageProperty().get()).isEqualTo("plan.txt is now version 2, from plan.txt.bak.");
        until(() -> !Objects.requireNonNull(model.straysProperty().get()).get(0).isNews());
    }

    @Test
    void whatJustArrivedIsShownWhileItIsOpen() throws Exception {
        kept("plan.txt", words(1, 20));
        Path downloads = Files.createDirectories(temp.resolve("downloads"));
        context.settings().arrivals(List.of(downloads));
        context.settings().address("Tomas", "tomas@orchard.example");
        Files.writeString(downloads.resolve("other.txt"), "x");
        PutModel model = new PutModel(context);
        model.open(openPlace, line("plan.txt"));
        until(() -> model.arrivalsProperty().get().size() == 1
                && !model.peopleProperty().get().isEmpty());
        assertThat(model.peopleProperty().get()).containsExactly("Tomas");
        Path came = Files.writeString(downloads.resolve("plan (2).txt"), words(1, 20) + "more");
        Files.setLastModifiedTime(came, FileTime.from(Instant.now()));
        model.look();
        until(() -> model.arrivalsProperty().get().size() == 2);
        assertThat(model.arrivalsProperty().get().get(0).likely()).isTrue();
        model.noteProperty().set("from Tomas");
        model.tell("Tomas", true);
        model.put(came, heard);
        until(heard::any);
        assertThat(heard.said.get(0)).contains("now version 2").contains("A message is in the outbox");
        assertThat(context.settings().outbox())
                .isDirectoryContaining(f -> f.toString().endsWith(".eml"));
        model.close();
    }
}
