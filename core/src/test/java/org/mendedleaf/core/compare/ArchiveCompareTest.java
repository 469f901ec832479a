package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Comparison.ArchiveChanges;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Member;

/** Archives are compared by what is in them. */
class ArchiveCompareTest {

    private static Member file(String path, String content) {
        return new Member(path, false, content.length(), 0, Integer.toHexString(content.hashCode()));
    }

    private static Document.Archive archive(List<Member> members) {
        return new Document.Archive("zip", members, false);
    }

    private static ArchiveChanges compare(List<Member> a, List<Member> b) {
        return (ArchiveChanges) ArchiveCompare.compare(archive(a), archive(b));
    }

    private static List<String> said(ArchiveChanges c) {
        return c.members().stream().map(m -> m.mark() + " " + m.path()).toList();
    }

    @Test
    void whatCameWentChangedAndMovedIsToldApart() {
        ArchiveChanges c = compare(
                List.of(file("a", "1"), file("b", "2"), file("c", "3"), file("old/d", "4")),
                List.of(file("a", "1"), file("b", "two"), file("e", "5"), file("new/d", "4")));
        assertThat(said(c)).containsExactlyInAnyOrder("SAME a", "CHANGED b", "REMOVED c", "ADDED e", "MOVED new/d");
        assertThat(c.words()).isEqualTo("2 members, +1 member, −1 member");
        assertThat(c.changes()).extracting(Comparison.Change::number).containsExactly(1, 2, 3, 4);
        assertThat(c.changes().stream().filter(x -> x.mark() == Mark.MOVED))
                .singleElement()
                .satisfies(x -> {
                    assertThat(x.before()).isEqualTo("old/d");
                    assertThat(x.after()).isEqualTo("new/d");
                });
    }

    @Test
    void theSameMembersInAnotherOrderArePackedAnew() {
        List<Member> members = Arrays.asList(file("a", "1"), file("b", "2"), file("c", "3"));
        List<Member> turned = new ArrayList<>(members);
        Collections.reverse(turned);
        assertThat(compare(members, turned).words()).isEqualTo("the same members, packed anew");
        assertThat(compare(members, turned).changes()).isEmpty();
        assertThat(compare(List.of(), List.of()).words()).isEqualTo("the same members, packed anew");
    }

    @Test
    void twoWithOneContentAreMovedOnceEach() {
        ArchiveChanges c = compare(
                List.of(file("x/a", "same"), file("x/b", "same")), List.of(file("y/a", "same"), file("y/b", "same")));
        assertThat(said(c).stream().filter(s -> s.startsWith("MOVED"))).hasSize(1);
        assertThat(said(c)).hasSize(3).anyMatch(s -> s.startsWith("ADDED")).anyMatch(s -> s.startsWith("REMOVED"));
    }

    /** Without a checksum nobody knows that a content is the same elsewhere; there its time tells whether it changed. */
    @Test
    void withoutChecksumsNothingIsTakenForMoved() {
        Member was = new Member("a.txt", false, 5, 1000, "");
        Member now = new Member("b.txt", false, 5, 1000, "");
        assertThat(said(compare(List.of(was), List.of(now)))).containsExactly("ADDED b.txt", "REMOVED a.txt");
        Member later = new Member("a.txt", false, 5, 2000, "");
        assertThat(said(compare(List.of(was), List.of(later)))).containsExactly("CHANGED a.txt");
        assertThat(said(compare(List.of(was), List.of(was)))).containsExactly("SAME a.txt");
    }

    @Test
    void foldersAreNeverMoved() {
        Member was = new Member("a/", true, 0, 0, "0");
        Member now = new Member("b/", true, 0, 0, "0");
        assertThat(said(compare(List.of(was), List.of(now)))).containsExactly("ADDED b/", "REMOVED a/");
    }

    /** Whatever happened, the earlier and the later archive can be read from the comparison. */
    @Property(tries = 80)
    void bothCanBeReadFromTheComparison(@ForAll @IntRange(max = 12) int size, @ForAll long seed) {
        Random random = new Random(seed);
        List<Member> a = new ArrayList<>();
        for (int i = 0; i < size; i++) {
            a.add(file("m" + i, "content " + random.nextInt(6)));
        }
        List<Member> b = new ArrayList<>();
        for (Member m : a) {
            switch (random.nextInt(5)) {
                case 0 -> b.add(file(m.path(), "other " + random.nextInt(3)));
                case 1 -> b.add(new Member("to/" + m.path(), false, m.size(), 0, m.check()));
                case 2 -> {
                    // It went.
                }
                default -> b.add(m);
            }
        }
        b.add(file("new", "new"));
        ArchiveChanges c = compare(a, b);
        assertThat(c.members().stream().map(m -> m.after()).flatMap(Optional::stream))
                .containsExactlyInAnyOrderElementsOf(b);
        assertThat(c.members().stream().map(m -> m.before()).flatMap(Optional::stream))
                .containsExactlyInAnyOrderElementsOf(a);
        assertThat(c.members()).allSatisfy(m -> assertThat(m.change() == 0).isEqualTo(m.mark() == Mark.SAME));
    }
}
