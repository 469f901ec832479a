package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

class LineRowsTest {

    private static final Instant DAY = Instant.parse("2026-05-04T08:00:00Z");

    private static Version version(int number, Instant saved, Origin origin, int source, int content) {
        byte[] digest = new byte[32];
        digest[0] = (byte) content;
        return new Version(
                1,
                number,
                saved,
                saved,
                "Ines",
                origin,
                source,
                new FileState(EntryKind.FILE, 100 + content, 0, 0, Digest.of(digest), Optional.empty(), Recipe.EMPTY),
                "",
                "a.txt");
    }

    private static List<LineRow> rows(List<Version> oldestFirst, Set<String> unfolded) {
        List<LinePoint> points = new ArrayList<>(oldestFirst);
        java.util.Collections.reverse(points);
        Place place = new Place(1, Path.of("/desk"), "desk", Rhythm.ON_SAVE, List.of(), DAY);
        Line line = new Line(1, place, "a.txt", Optional.empty(), 0, points);
        return new LineRows(
                        org.mendedleaf.core.systems.MergedLine.alone(line),
                        Optional.empty(),
                        DAY.plus(Duration.ofDays(9)),
                        ZoneOffset.UTC)
                .rows(unfolded, Map.of());
    }

    @Test
    void aThreadLeadsFromARestoredVersionToTheOneItCameFrom() {
        List<LineRow> rows = rows(
                List.of(
                        version(1, DAY, Origin.SAVED, 0, 1),
                        version(2, DAY.plusSeconds(60), Origin.SAVED, 0, 2),
                        version(3, DAY.plusSeconds(120), Origin.RESTORED, 1, 1)),
                Set.of());
        assertThat(rows)
                .extracting(LineRow::lane)
                .containsExactly(LineRow.Lane.FROM, LineRow.Lane.PAST, LineRow.Lane.TO);
    }

    @Test
    void equalContentsAreMarkedAsEqual() {
        List<LineRow> rows = rows(
                List.of(
                        version(1, DAY, Origin.SAVED, 0, 1),
                        version(2, DAY.plusSeconds(60), Origin.SAVED, 0, 2),
                        version(3, DAY.plusSeconds(120), Origin.SAVED, 0, 1)),
                Set.of());
        assertThat(((LineRow.OfVersion) rows.get(0)).equalTo()).isEqualTo(1);
        assertThat(((LineRow.OfVersion) rows.get(1)).equalTo()).isZero();
    }

    @Test
    void manyVersionsOfOneDayAreFoldedButTheNewestAreNot() {
        List<Version> versions = new ArrayList<>();
        for (int i = 1; i <= 30; i++) {
            versions.add(version(i, DAY.plusSeconds(60L * i), Origin.SAVED, 0, i));
        }
        List<LineRow> rows = rows(versions, Set.of());
        assertThat(rows).hasSize(14);
        assertThat(rows.get(13)).isInstanceOfSatisfying(LineRow.Folded.class, f -> {
            assertThat(f.count()).isEqualTo(17);
            assertThat(rows(versions, Set.of(f.key()))).hasSize(30);
        });
    }
}
