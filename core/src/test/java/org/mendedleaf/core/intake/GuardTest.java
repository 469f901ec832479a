package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.intake.Judgement.Aspect;
import static org.mendedleaf.core.intake.Judgement.Outcome;

import java.awt.Color;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;

/** The guard on real files and the real vault. */
class GuardTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private Path incoming(String name, byte[] content) throws IOException {
        Path file = Files.createDirectories(temp.resolve("in")).resolve(name);
        Files.write(file, content);
        Files.setLastModifiedTime(file, FileTime.from(p.later(5)));
        return file;
    }

    private Judgement judge(Path file, String path) throws IOException {
        return new Evidence(p.vault(), p.place(), p.clock(), VersionBytes.VAULT_ONLY).judge(file, path);
    }

    private static List<String> edited(List<String> paragraphs) {
        List<String> edited = new ArrayList<>(paragraphs);
        edited.set(1, edited.get(1).replace(" ", " and "));
        edited.add("a paragraph more");
        return edited;
    }

    @Test
    void anEditOfTheSameDocumentGoesThrough() throws IOException {
        List<String> letter = Documents.paragraphs(1, 12);
        p.save("letter.odt", Documents.openDocument("text", letter));
        p.capture();
        Judgement j = judge(incoming("letter (1).odt", Documents.openDocument("text", edited(letter))), "letter.odt");
        assertThat(j.outcome()).isEqualTo(Outcome.SURE);
        assertThat(j.shared()).isGreaterThan(70);
        assertThat(j.belongsTo()).isEmpty();
    }

    @Test
    void anotherDocumentOfTheSameKindIsUnlikely() throws IOException {
        p.save("letter.odt", Documents.odt(1, 12));
        p.capture();
        Judgement j = judge(incoming("letter.odt", Documents.odt(2, 12)), "letter.odt");
        assertThat(j.outcome()).isEqualTo(Outcome.UNLIKELY);
        assertThat(j.isAgainst(Aspect.COMMON)).isTrue();
        assertThat(j.why()).contains("Next to nothing in common with version 1");
    }

    @Test
    void aFormOfTheSameKindIsNotTakenForThisOne() throws IOException {
        List<String> form = Documents.paragraphs(9, 8);
        for (int i = 1; i <= 4; i++) {
            List<String> filled = new ArrayList<>(form);
            filled.addAll(Documents.paragraphs(100 + i, 1));
            p.save("Invoice " + i + ".odt", Documents.openDocument("text", filled));
        }
        p.capture();
        List<String> next = new ArrayList<>(form);
        next.addAll(Documents.paragraphs(200, 1));
        Judgement foreign = judge(incoming("x.odt", Documents.openDocument("text", next)), "Invoice 2.odt");
        assertThat(foreign.outcome()).isNotEqualTo(Outcome.SURE);
        List<String> own = new ArrayList<>(form);
        own.addAll(Documents.paragraphs(102, 1));
        own.set(8, own.get(8) + " paid on Tuesday");
        Judgement edit = judge(incoming("y.odt", Documents.openDocument("text", own)), "Invoice 2.odt");
        assertThat(edit.outcome()).isEqualTo(Outcome.SURE);
    }

    @Test
    void anotherKindUnderTheSameNameIsUnlikely() throws IOException {
        p.save("ledger.ods", Documents.openDocument("spreadsheet", Documents.paragraphs(1, 8)));
        p.capture();
        Judgement j = judge(incoming("ledger.ods", Documents.odt(1, 8)), "ledger.ods");
        assertThat(j.outcome()).isEqualTo(Outcome.UNLIKELY);
        assertThat(j.isAgainst(Aspect.KIND)).isTrue();
        assertThat(j.why()).isEqualTo("It is a word-processor document; this file has been a spreadsheet.");
    }

    @Test
    void theNewestVersionOfAnotherFileIsToldAsSuch() throws IOException {
        p.save("a.odt", Documents.odt(1, 6));
        p.save("b.odt", Documents.odt(2, 6));
        p.capture();
        Judgement j = judge(incoming("a.odt", Documents.odt(2, 6)), "a.odt");
        assertThat(j.outcome()).isEqualTo(Outcome.UNLIKELY);
        assertThat(j.belongsTo()).contains("b.odt");
        assertThat(j.why()).isEqualTo("It is the newest version of b.odt.");
    }

    @Test
    void whatIsThereAlreadyAndWhatWasThereBeforeAreTold() throws IOException {
        byte[] first = Documents.odt(1, 6);
        List<String> second = edited(Documents.paragraphs(1, 6));
        p.save("a.odt", first);
        p.capture();
        p.save("a.odt", Documents.openDocument("text", second));
        p.capture();
        Judgement same = judge(incoming("a.odt", Documents.openDocument("text", second)), "a.odt");
        assertThat(same.isSame()).isTrue();
        assertThat(same.outcome()).isEqualTo(Outcome.SURE);
        Judgement earlier = judge(incoming("a.odt", first), "a.odt");
        assertThat(earlier.outcome()).isEqualTo(Outcome.LOOK);
        assertThat(earlier.identicalTo()).isEqualTo(1);
    }

    @Test
    void theEmptiedTheSuddenlySmallAndTheOlderAreLookedAt() throws IOException {
        List<String> text = Documents.paragraphs(1, 40);
        p.save("a.txt", Documents.text(text));
        p.capture();
        assertThat(judge(incoming("a.txt", new byte[0]), "a.txt").outcome()).isEqualTo(Outcome.UNLIKELY);
        Judgement small = judge(incoming("b.txt", Documents.text(text.subList(0, 4))), "a.txt");
        assertThat(small.outcome()).isEqualTo(Outcome.LOOK);
        assertThat(small.isAgainst(Aspect.SIZE)).isTrue();
        Path older = incoming("c.txt", Documents.text(edited(text)));
        Files.setLastModifiedTime(older, FileTime.from(p.now().minus(Duration.ofDays(30))));
        Judgement old = judge(older, "a.txt");
        assertThat(old.outcome()).isEqualTo(Outcome.LOOK);
        assertThat(old.isAgainst(Aspect.AGE)).isTrue();
        assertThat(old.isAgainst(Aspect.COMMON)).isFalse();
    }

    @Test
    void picturesAreComparedByHowTheyLook() throws IOException {
        p.save("map.png", Documents.picture(1, Color.RED));
        p.capture();
        Judgement edit = judge(incoming("map.png", Documents.picture(1, Color.BLUE)), "map.png");
        assertThat(edit.outcome()).isEqualTo(Outcome.SURE);
        Judgement other = judge(incoming("map2.png", Documents.picture(7, Color.RED)), "map.png");
        assertThat(other.outcome()).isNotEqualTo(Outcome.SURE);
    }

    @Test
    void aNewFileIsNoDoubtUnlessItsNameSaysSomethingElse() throws IOException {
        p.save("a.txt", "x");
        p.capture();
        assertThat(judge(incoming("n.odt", Documents.odt(5, 3)), "n.odt").outcome())
                .isEqualTo(Outcome.SURE);
        Judgement j = judge(incoming("n.png", Documents.odt(5, 4)), "n.png");
        assertThat(j.outcome()).isEqualTo(Outcome.LOOK);
        assertThat(j.isAgainst(Aspect.NAME)).isTrue();
    }

    @Test
    void whatCannotBeReadIsSaidSo() throws IOException {
        p.save("a.txt", "x");
        p.capture();
        assertThatThrownBy(() -> judge(temp.resolve("nowhere"), "a.txt")).isInstanceOf(IOException.class);
        assertThatThrownBy(() -> judge(temp, "a.txt")).hasMessageContaining("is not a file");
    }

    @Test
    void aDamagedDocumentIsComparedByWhatThereIs() throws IOException {
        byte[] whole = Documents.odt(1, 60);
        p.save("a.odt", whole);
        p.capture();
        Judgement j = judge(incoming("a.odt", java.util.Arrays.copyOf(whole, whole.length / 2)), "a.odt");
        assertThat(j.outcome()).isNotEqualTo(Outcome.SURE);
    }
}
