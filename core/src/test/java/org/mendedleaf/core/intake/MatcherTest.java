package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.intake.Matcher.How;
import org.mendedleaf.core.intake.Matcher.Kind;
import org.mendedleaf.core.vault.Digest;

class MatcherTest {

    private static Digest digest(int content) {
        byte[] bytes = new byte[32];
        bytes[0] = (byte) content;
        bytes[1] = (byte) (content >> 8);
        return Digest.of(bytes);
    }

    private static Matcher.Incoming in(String relative, int content) {
        return new Matcher.Incoming(Path.of("/in", relative), relative, 10, Instant.EPOCH, digest(content));
    }

    private static LineIndex index(String... paths) {
        List<LineIndex.Entry> entries = new ArrayList<>();
        for (int i = 0; i < paths.length; i++) {
            entries.add(new LineIndex.Entry(i + 1, paths[i], 1, 10, digest(1000 + i), Instant.EPOCH));
        }
        return new LineIndex(entries);
    }

    private static List<String> said(List<Matcher.Proposal> all) {
        return all.stream()
                .map(p -> p.kind() + " " + p.target() + " " + p.how())
                .toList();
    }

    @Test
    void aFileWithTheNameOfOneAndTheContentOfAnotherIsForItsOwnerToDecide() {
        LineIndex index = index("lease.odt", "minutes.odt");
        assertThat(said(Matcher.match(List.of(in("lease.odt", 1001), in("minutes.odt", 1001)), index, "")))
                .containsExactly("UNSURE lease.odt PATH", "IDENTICAL minutes.odt PATH");
    }

    @Test
    void theVeryPathComesBeforeTheNameAndTheNameBeforeItsDecorations() {
        LineIndex index = index("d/plan.odt", "d/sub/plan.odt", "d/notes.md", "other/list.csv");
        assertThat(said(Matcher.match(
                        List.of(
                                in("plan.odt", 1),
                                in("sub/plan.odt", 2),
                                in("x/notes.md", 3),
                                in("notes final.md", 4),
                                in("brand new.txt", 5),
                                in("list.csv", 6)),
                        index,
                        "d")))
                .containsExactly(
                        "NEW_VERSION d/plan.odt PATH",
                        "NEW_VERSION d/sub/plan.odt PATH",
                        "NEW_VERSION d/notes.md NAME",
                        // The file of that very name has it already.
                        "UNSURE d/notes.md STEM",
                        "NEW_FILE d/brand new.txt NONE",
                        // A file elsewhere in the place is not meant by a drop into this folder.
                        "NEW_FILE d/list.csv NONE");
    }

    @Test
    void ofTwoThatCouldBeMeantForOneNoneIsTaken() {
        List<Matcher.Proposal> all =
                Matcher.match(List.of(in("plan v2.odt", 1), in("plan v3.odt", 2)), index("plan.odt"), "");
        assertThat(said(all)).containsExactly("UNSURE plan.odt STEM", "UNSURE plan.odt STEM");
        assertThat(all.get(0).candidates()).containsExactly("plan.odt");
    }

    @Test
    void aNameThatSeveralFilesHaveIsUnsureWithAllOfThem() {
        List<Matcher.Proposal> all = Matcher.match(List.of(in("plan.odt", 1)), index("a/plan.odt", "b/Plan.odt"), "");
        assertThat(all.get(0).kind()).isEqualTo(Kind.UNSURE);
        assertThat(all.get(0).candidates()).containsExactly("a/plan.odt", "b/Plan.odt");
    }

    @Test
    void whatIsThereAlreadyIsIdenticalWhateverItsName() {
        LineIndex index = index("a.txt", "b.txt");
        List<Matcher.Proposal> all = Matcher.match(List.of(in("a.txt", 1000), in("z.txt", 1001)), index, "");
        assertThat(said(all)).containsExactly("IDENTICAL a.txt PATH", "IDENTICAL b.txt CONTENT");
    }

    @Test
    void newFilesOfOneNameGetNumbers() {
        List<Matcher.Incoming> two = List.of(in("n.txt", 1), in("n.txt", 2));
        assertThat(said(Matcher.match(two, index("n (2).txt"), "")))
                .containsExactly("UNSURE n (2).txt STEM", "UNSURE n (2).txt STEM");
        assertThat(said(Matcher.match(two, index(), "")))
                .containsExactly("NEW_FILE n.txt NONE", "NEW_FILE n (2).txt NONE");
    }

    @Provide
    Arbitrary<String> paths() {
        Arbitrary<String> name = Arbitraries.of(
                "plan.odt",
                "plan (1).odt",
                "plan v2.odt",
                "Plan final.odt",
                "notes.md",
                "notes old.md",
                "x.csv",
                "y.csv");
        Arbitrary<String> folder = Arbitraries.of("", "a/", "b/", "a/c/");
        return Combinators.combine(folder, name).as((f, n) -> f + n);
    }

    @Property
    void noTwoFilesGoIntoOneTargetUnaskedAndNoneIsLost(
            @ForAll("files") List<String> incoming,
            @ForAll("files") List<String> there,
            @ForAll("folders") String folder) {
        List<Matcher.Incoming> files = new ArrayList<>();
        for (int i = 0; i < incoming.size(); i++) {
            files.add(in(incoming.get(i), i % 7 == 3 ? 1000 : i));
        }
        LineIndex index = index(new HashSet<>(there).toArray(new String[0]));
        List<Matcher.Proposal> proposals = Matcher.match(files, index, folder);
        assertThat(proposals.stream().map(Matcher.Proposal::incoming)).containsExactlyElementsOf(files);
        Set<String> targets = new HashSet<>();
        for (Matcher.Proposal p : proposals) {
            if (p.kind() == Kind.NEW_VERSION || p.kind() == Kind.NEW_FILE) {
                assertThat(targets.add(p.target()))
                        .as("%s twice in %s", p.target(), proposals)
                        .isTrue();
            }
            if (p.kind() == Kind.NEW_FILE) {
                assertThat(index.at(p.target())).isEmpty();
                assertThat(p.how()).isEqualTo(How.NONE);
            }
            if (p.kind() == Kind.NEW_VERSION) {
                assertThat(index.at(p.target())).isPresent();
                assertThat(p.target()).startsWith(folder);
            }
        }
        // The order in which files come in decides nothing.
        List<Matcher.Incoming> reversed = new ArrayList<>(files);
        java.util.Collections.reverse(reversed);
        long versions =
                proposals.stream().filter(p -> p.kind() == Kind.NEW_VERSION).count();
        assertThat(Matcher.match(reversed, index, folder).stream()
                        .filter(p -> p.kind() == Kind.NEW_VERSION)
                        .count())
                .isEqualTo(versions);
    }

    @Provide
    Arbitrary<List<String>> files() {
        return paths().list().uniqueElements().ofMaxSize(14);
    }

    @Provide
    Arbitrary<String> folders() {
        return Arbitraries.of(Arrays.asList("", "a", "b"));
    }
}
