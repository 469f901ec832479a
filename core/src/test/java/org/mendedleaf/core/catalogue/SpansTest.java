package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.LineVerdicts;
import org.mendedleaf.core.snapshots.Snapshots;
import org.sqlite.ProgressHandler;

class SpansTest {

    private static final int STEPS = 5;
    private static final Calendar CALENDAR = new Calendar(ZoneOffset.UTC, DayOfWeek.MONDAY);

    @TempDir
    Path temp;

    private interface Asked {
        void run() throws IOException;
    }

    /** How many steps of the database's machine a question takes, by fives. */
    private static long cost(Sql sql, Asked asked) throws IOException {
        // It is prepared once.
        asked.run();
        long[] counted = {0};
        try {
            ProgressHandler.setHandler(sql.connection(), STEPS, new ProgressHandler() {
                @Override
                protected int progress() {
                    counted[0] += STEPS;
                    return 0;
                }
            });
            asked.run();
            ProgressHandler.clearHandler(sql.connection());
        } catch (SQLException e) {
            throw new IOException(e);
        }
        return counted[0];
    }

    /** A file that was saved twice and moved, beside so many that were saved twice, of which half and some folders were removed. */
    private Map<String, Long> costs(int beside) throws Exception {
        try (TestPlace p = new TestPlace(Files.createDirectory(temp.resolve("of " + beside)))) {
            for (int saved = 0; saved < 2; saved++) {
                for (int i = 0; i < beside; i++) {
                    p.save("f/file " + i, saved + " of " + i);
                }
                p.save("f/then.txt", "text " + saved);
                Files.createDirectories(p.path("f/folder " + saved));
                p.capture();
            }
            Instant then = p.now();
            for (int i = 0; i < beside / 2; i++) {
                Files.delete(p.path("f/file " + i));
            }
            Files.move(p.path("f/then.txt"), p.path("f/now.txt"));
            Files.delete(p.path("f/folder 0"));
            Files.delete(p.path("f/folder 1"));
            p.capture();
            new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                    .take("", "", Progress.NONE);
            Map<String, Long> costs = new LinkedHashMap<>();
            Place place = p.place();
            try (Reading r = p.vault().read()) {
                Line line = r.line(place, "f/now.txt").orElseThrow();
                assertThat(r.lines().pathAt(line.id(), then)).contains("f/then.txt");
                assertThat(r.lines().pathAt(line.id(), p.now())).contains("f/now.txt");
                assertThat(r.lines()
                                .numberAt(
                                        line.id(), line.version(1).orElseThrow().captured()))
                        .contains(1);
                costs.put("what is there", cost(r.sql(), () -> r.folders().live(place, "f/now.txt")));
                costs.put("where it is", cost(r.sql(), () -> r.lines().pathAt(line.id(), p.now())));
                costs.put("where it was", cost(r.sql(), () -> r.lines().pathAt(line.id(), then)));
                costs.put("which version it was", cost(r.sql(), () -> r.lines().numberAt(line.id(), then)));
                HistoryQuery history = HistoryQuery.of(r);
                List<Long> some = List.of(line.id());
                List<String> paths = new ArrayList<>();
                history.versions(place, some, row -> paths.add(row.path()));
                assertThat(paths).containsExactly("f/then.txt", "f/then.txt");
                costs.put("versions of some files", cost(r.sql(), () -> history.versions(place, some, row -> {})));
                costs.put("what keeps it", cost(r.sql(), () -> LineVerdicts.of(r, line.id(), p.now(), CALENDAR)));
            }
            try (WriteSession session = p.vault().write()) {
                LineWriter lines = new LineWriter(session);
                long folder = lines.folder(place, "f");
                long line = lines.live(folder, "now.txt").orElseThrow().line();
                FileAttributes of = new FileAttributes(EntryKind.FOLDER, 0, 0, 0755, "Ines");
                assertThat(lines.look(folder, "then.txt", line, 1)).isPresent();
                assertThat(lines.look(folder, "then.txt", line, 9)).isEmpty();
                costs.put("how it looked", cost(session.sql(), () -> lines.look(folder, "then.txt", line, 1)));
                costs.put("what is written under a name", cost(session.sql(), () -> lines.live(folder, "now.txt")));
                int[] again = {0};
                costs.put(
                        "a folder is there again",
                        cost(
                                session.sql(),
                                () -> lines.folderAppears(place, folder, "f", "folder " + again[0]++, of, p.now())));
            }
            return costs;
        }
    }

    @Test
    void whatAQuestionAboutOneFileCostsDoesNotDependOnHowManyAreInItsFolder() throws Exception {
        Map<String, Long> few = costs(10);
        Map<String, Long> many = costs(300);
        SoftAssertions.assertSoftly(all -> few.forEach((asked, cost) -> all.assertThat(many.get(asked))
                .as(asked + ", " + cost + " steps beside ten others")
                .isLessThan(cost + 150)));
    }
}
