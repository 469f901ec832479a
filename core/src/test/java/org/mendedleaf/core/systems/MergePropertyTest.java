package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

/** Merging lines of the same file, for random lines. */
class MergePropertyTest {

    private static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    private static Digest content(int n) {
        return Rig.sha(new byte[] {(byte) n});
    }

    /** A line with random contents out of a few, each held somewhere or nowhere. */
    private static MergedLine.Part part(long id, Random random, int versions, int contents) {
        Place place = new Place(
                id,
                id == 1 ? new Source.Folder(java.nio.file.Path.of("/desk")) : new Source.Outside("s" + id, "p"),
                "p" + id,
                Rhythm.BY_HAND,
                List.of(),
                START);
        List<LinePoint> points = new ArrayList<>();
        Map<Integer, List<Holder>> holders = new HashMap<>();
        Instant at = START;
        for (int n = 1; n <= versions; n++) {
            at = at.plusSeconds(1 + random.nextInt(10_000));
            Digest digest = content(random.nextInt(contents));
            boolean elsewhere = id != 1;
            points.add(
                    0,
                    new Version(
                            id,
                            n,
                            at,
                            at,
                            "",
                            elsewhere ? Origin.UPLOADED : Origin.SAVED,
                            0,
                            new FileState(
                                    EntryKind.FILE,
                                    1,
                                    0,
                                    0644,
                                    digest,
                                    Optional.of(digest),
                                    elsewhere ? Recipe.ELSEWHERE : Recipe.EMPTY),
                            "",
                            "a.txt"));
            if (random.nextInt(4) > 0) {
                Holder.Kind kind = elsewhere ? Holder.Kind.POINT : Holder.Kind.VAULT;
                Optional<Instant> expires =
                        random.nextBoolean() ? Optional.of(at.plusSeconds(1_000_000)) : Optional.empty();
                holders.put(n, List.of(new Holder(kind, place, "p" + n, "", expires)));
            }
        }
        return new MergedLine.Part(new Line(id, place, "a.txt", Optional.empty(), versions, points), holders, Map.of());
    }

    @Property(tries = 200)
    void eachContentIsShownOnceWithAllWhoHoldItAndNoOwnPointIsLost(
            @ForAll long seed, @ForAll @IntRange(min = 0, max = 4) int others) {
        Random random = new Random(seed);
        MergedLine.Part own = part(1, random, 1 + random.nextInt(8), 6);
        List<MergedLine.Part> parts = new ArrayList<>();
        for (int i = 0; i < others; i++) {
            parts.add(part(2 + i, random, random.nextInt(8), 6));
        }
        MergedLine merged = MergedLine.merge(own, parts, Comparator.comparing(Place::id));

        assertThat(merged.points().stream().filter(p -> p.line().id() == 1).map(MergedPoint::point))
                .containsExactlyElementsOf(own.line().points());
        Set<Digest> foreign = new HashSet<>();
        for (MergedPoint p : merged.points()) {
            Version v = p.version().orElseThrow();
            if (v.line() != 1) {
                assertThat(foreign.add(v.digest())).as("shown once").isTrue();
                assertThat(own.line().versions()).noneMatch(o -> o.digest().equals(v.digest()));
                assertThat(p.copies()).as("what nobody holds is not shown").isNotEmpty();
            }
            assertThat(p.copies()).allMatch(c -> c.version().digest().equals(v.digest()));
        }
        List<MergedLine.Part> all = new ArrayList<>(parts);
        all.add(own);
        long held = 0;
        for (MergedLine.Part part : all) {
            for (Version v : part.line().versions()) {
                List<Holder> holders = part.holders().getOrDefault(v.number(), List.of());
                held += holders.size();
                for (Holder h : holders) {
                    assertThat(merged.points())
                            .anyMatch(p -> p.copies().stream().anyMatch(c -> c.holder() == h));
                }
            }
        }
        assertThat(held).isGreaterThanOrEqualTo(foreign.size());
        assertThat(merged.points())
                .isSortedAccordingTo(
                        Comparator.comparing((MergedPoint p) -> p.point().at()).reversed());
    }

    @Property(tries = 100)
    void aContentIsForgottenWhenTheLastWhoHoldsItForgets(@ForAll long seed) {
        Random random = new Random(seed);
        MergedLine.Part own = part(1, random, 5, 3);
        MergedLine merged = MergedLine.merge(own, List.of(part(2, random, 5, 3)), Comparator.comparing(Place::id));
        for (MergedPoint p : merged.points()) {
            boolean kept = p.copies().isEmpty()
                    || p.copies().stream().anyMatch(c -> c.holder().expires().isEmpty());
            assertThat(p.forgottenAt().isEmpty()).isEqualTo(kept);
            p.forgottenAt()
                    .ifPresent(at -> assertThat(p.copies())
                            .allMatch(c -> !c.holder().expires().orElseThrow().isAfter(at)));
        }
    }

    @Property(tries = 200)
    void aRelationGoesThereAndBack(@ForAll("folders") String here, @ForAll("folders") String there) {
        Relation r = new Relation(1, here, 2, there);
        String file = here.isEmpty() ? "sub/a.txt" : here + "/sub/a.txt";
        String moved = r.there(1, file).orElseThrow();
        assertThat(moved).isEqualTo(there.isEmpty() ? "sub/a.txt" : there + "/sub/a.txt");
        assertThat(r.there(2, moved)).contains(file);
        assertThat(r.there(3, file)).isEmpty();
        if (!here.isEmpty()) {
            assertThat(r.there(1, here + "x/a.txt")).isEmpty();
            assertThat(r.there(1, "other")).isEmpty();
        }
    }

    @net.jqwik.api.Provide
    net.jqwik.api.Arbitrary<String> folders() {
        return net.jqwik.api.Arbitraries.of("", "a", "a/b", "Seasons/2026", "ä ö");
    }
}
