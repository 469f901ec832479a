package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

class PlannerPropertyTest {

    private static Digest digest(int n) {
        byte[] bytes = new byte[32];
        bytes[0] = (byte) n;
        return Digest.of(bytes);
    }

    private static Version version(int n) {
        return new Version(
                1,
                n + 1,
                Instant.EPOCH,
                Instant.EPOCH,
                "",
                Origin.SAVED,
                0,
                new FileState(EntryKind.FILE, 10, 0, 0, digest(n), Optional.empty(), Recipe.EMPTY),
                "",
                "x");
    }

    @Property
    void noPlanWritesTwiceToOnePathNorOverWhatNobodyKeeps(
            @ForAll @Size(max = 12) List<@IntRange(max = 3) Integer> targets,
            @ForAll @Size(max = 4) Set<@IntRange(max = 3) Integer> kept,
            @ForAll @Size(max = 4) Set<@IntRange(max = 3) Integer> foreign,
            @ForAll Collision rule)
            throws IOException {
        List<RestoreItem> requested = new ArrayList<>();
        for (int i = 0; i < targets.size(); i++) {
            requested.add(new RestoreItem(version(i % 5), "f" + targets.get(i) + ".txt"));
        }
        RestorePlan plan = RestorePlanner.plan(
                RestoreRequest.restore(requested, Collisions.all(rule)),
                path -> {
                    int n = path.matches("f\\d\\.txt") ? path.charAt(1) - '0' : -1;
                    if (kept.contains(n)) {
                        return Optional.of(new Existing(EntryKind.FILE, Optional.of(digest(n)), 7));
                    }
                    return foreign.contains(n)
                            ? Optional.of(new Existing(EntryKind.FILE, Optional.empty(), 0))
                            : Optional.empty();
                },
                Progress.NONE);
        assertThat(plan.items()).hasSameSizeAs(requested);
        Set<String> written = new HashSet<>();
        for (RestorePlan.Item item : plan.items()) {
            if (item.writes()) {
                assertThat(written.add(item.target()))
                        .as("written once: %s", item.target())
                        .isTrue();
                int n = item.target().matches("f\\d\\.txt") ? item.target().charAt(1) - '0' : -1;
                boolean onlyForeign = foreign.contains(n) && !kept.contains(n);
                assertThat(onlyForeign).as("over what nobody keeps").isFalse();
                if (item.step() == RestorePlan.Step.CREATE) {
                    assertThat(kept.contains(n)).isFalse();
                }
            }
        }
    }
}
