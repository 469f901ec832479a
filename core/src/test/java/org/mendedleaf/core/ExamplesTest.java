package org.mendedleaf.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.snapshots.Snapshots;

/** What stands as an example beside the types that others start from does what it says. */
class ExamplesTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void fill() throws Exception {
        p = new TestPlace(temp);
        p.save("notes.txt", "the orchard gate is shut\n");
        p.capture();
        p.save("notes.txt", "the gate is open\n");
        p.capture();
    }

    @AfterEach
    void end() throws Exception {
        p.close();
    }

    private WorkContext context() {
        return new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada");
    }

    private Line line() throws Exception {
        try (Reading reading = p.vault().read()) {
            return reading.line(p.place(), "notes.txt").orElseThrow();
        }
    }

    @Test
    void aVaultIsOpenedAndAsked() throws Exception {
        List<Place> places = new ArrayList<>();
        List<String> paths = new ArrayList<>();
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "command line", Duration.ofSeconds(5));
                Reading reading = vault.read()) {
            reading.places().forEach(places::add);
            for (Place place : reading.places()) {
                reading.folders().liveFiles(place).forEach(f -> paths.add(f.path()));
            }
        }
        assertThat(places).extracting(Place::root).containsExactly(p.folder());
        assertThat(paths).containsExactly("notes.txt");
    }

    @Test
    void aFolderIsCaptured() throws Exception {
        p.save("more.txt", "more");
        CaptureResult result =
                new Capture(p.vault(), p.place(), p.clock(), p.authors()).run(CaptureScope.WHOLE, Progress.NONE);
        assertThat(result.cancelled()).isFalse();
        try (Reading reading = p.vault().read()) {
            assertThat(reading.line(p.place(), "more.txt")).isPresent();
        }
    }

    @Test
    void aVersionIsRestored() throws Exception {
        Line line = line();
        RestoreItem item = new RestoreItem(line.version(1).orElseThrow(), line.path());
        RestoreRequest request = RestoreRequest.restore(List.of(item), Collisions.all(Collision.REPLACE));
        RestoreResult result = new Recovery(context()).restore(request, Progress.NONE);
        assertThat(result.items())
                .singleElement()
                .satisfies(i -> assertThat(i.outcome()).isEqualTo(RestoreResult.Outcome.DONE));
        assertThat(p.path("notes.txt")).hasContent("the orchard gate is shut\n");
    }

    @Test
    void aSnapshotIsTakenAndChangedInASession() throws Exception {
        Snapshot taken = new Snapshots(context()).take("", "before the audit", Progress.NONE);
        try (WriteSession session = p.vault().write()) {
            SnapshotStore.put(session, taken.held("the audit", Optional.empty()));
            session.commit();
        }
        try (Reading reading = p.vault().read()) {
            assertThat(SnapshotStore.of(reading).all(p.place())).singleElement().satisfies(s -> {
                assertThat(s.label()).isEqualTo("before the audit");
                assertThat(s.isHeld(p.now())).isTrue();
            });
        }
    }

    @Test
    void verdictsSayWhetherAVersionGoes() throws Exception {
        try (Reading reading = p.vault().read()) {
            VersionTable table = VersionTable.of(reading);
            Verdicts verdicts = Verdicts.of(
                    table,
                    List.of(),
                    RuleSet.NONE,
                    p.now(),
                    new Calendar(java.time.ZoneOffset.UTC, java.time.DayOfWeek.MONDAY));
            assertThat(verdicts.goes(table.row(line().id(), 2))).isFalse();
        }
    }

    @Test
    void documentsAreReadAndCompared() throws Exception {
        byte[] before = "kind,kilos\nKaty,412\n".getBytes(StandardCharsets.UTF_8);
        byte[] after = "kind,kilos\nKaty,421\n".getBytes(StandardCharsets.UTF_8);
        assertThat(Documents.read("notes.txt", "a\nb\n".getBytes(StandardCharsets.UTF_8), false))
                .isInstanceOfSatisfying(
                        Document.Text.class, text -> assertThat(text.lines()).startsWith("a", "b"));
        Comparison comparison = Compare.compare("fees.csv", before, after);
        assertThat(comparison.words()).isEqualTo("1 cell");
    }

    @Test
    void wordsAreFoundInTheVersionThatHeldThem() throws Exception {
        new Indexer(p.vault(), false).run(Progress.NONE);
        Finder.Found found =
                new Finder(p.vault(), "Ada").find(Wanted.parse("orchard gate", false, Wanted.Narrow.NOT), 20);
        assertThat(found.files())
                .extracting(hit -> hit.line().path())
                .as("only the first version says that")
                .containsExactly("notes.txt");
    }

    @Test
    void aDutyIsDoneAgainAndAgainUntilTheEnd() throws Exception {
        CountDownLatch thrice = new CountDownLatch(3);
        Supervisor.Duty duty = new Supervisor.Duty() {
            @Override
            public String name() {
                return "counting";
            }

            @Override
            public Duration round(Supervisor.Breath breath) {
                thrice.countDown();
                return Duration.ofMillis(1);
            }
        };
        Supervisor.Hearer nobody = new Supervisor.Hearer() {
            @Override
            public void failed(Supervisor.Duty of, Throwable why, int failures, Duration again) {
                throw new AssertionError(why);
            }

            @Override
            public void recovered(Supervisor.Duty of) {
                throw new AssertionError("expected no failure");
            }
        };
        try (Supervisor supervisor = new Supervisor(Supervisor.Backoff.DEFAULT, nobody)) {
            supervisor.add(duty);
            assertThat(thrice.await(30, TimeUnit.SECONDS)).isTrue();
        }
    }

    @Test
    void aTableIsWritten() throws Exception {
        CsvTable table = new CsvTable(CsvTable.Cells.TEXT, "path", "bytes");
        table.row("notes.txt", 120);
        Path file = Files.writeString(temp.resolve("table.csv"), table.text());
        assertThat(file).hasContent("path,bytes\r\nnotes.txt,120\r\n");
    }
}
