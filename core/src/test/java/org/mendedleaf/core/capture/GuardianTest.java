package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;

class GuardianTest {

    @TempDir
    Path temp;

    private final BlockingQueue<CaptureResult> results = new LinkedBlockingQueue<>();
    private final BlockingQueue<CaptureScope> scopes = new LinkedBlockingQueue<>();
    private final BlockingQueue<String> failures = new LinkedBlockingQueue<>();

    private final Guardian.Listener listener = new Guardian.Listener() {
        @Override
        public Progress capturing(Place place, CaptureScope scope) {
            scopes.add(scope);
            return Progress.NONE;
        }

        @Override
        public void captured(Place place, CaptureResult result) {
            results.add(result);
        }

        @Override
        public void failed(Place place, IOException why) {
            failures.add(String.valueOf(why.getMessage()));
        }
    };

    private CaptureResult next() throws InterruptedException {
        CaptureResult result = results.poll(30, TimeUnit.SECONDS);
        assertThat(result).as("a capture within 30 seconds").isNotNull();
        return result;
    }

    @Test
    void whatIsSavedIsCapturedByItselfAlsoInNewFolders() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            try (Supervisor supervisor =
                    new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(p.vault(), p.clock(), f -> {}))) {
                supervisor.add(new Guardian(supervisor, p.vault(), p.clock(), p.authors(), listener));
                assertThat(next().added()).isEqualTo(1);
                Files.writeString(p.path("a.txt"), "two and more");
                Files.createDirectories(p.path("new/folder"));
                Files.writeString(p.path("new/folder/b.txt"), "three");
                long points = 0;
                while (points < 2) {
                    points += next().points();
                }
                assertThat(p.line("a.txt").versions()).hasSize(2);
                assertThat(p.line("new/folder/b.txt").versions()).hasSize(1);
                Files.move(p.path("a.txt"), p.path("new/a.txt"));
                assertThat(next().moved()).isEqualTo(1);
            }
        }
    }

    @Test
    void whatAnotherProcessProtectsOrChangesMeanwhileCountsFromThenOn() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            try (Supervisor supervisor =
                            new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(p.vault(), p.clock(), f -> {}));
                    OpenVault other = OpenVault.open(temp.resolve("vault"), "other", Duration.ofSeconds(5))) {
                supervisor.add(new Guardian(supervisor, p.vault(), p.clock(), p.authors(), listener));
                assertThat(next().added()).isEqualTo(1);
                Path second = Files.createDirectory(temp.resolve("second")).toRealPath();
                Files.writeString(second.resolve("b.txt"), "two");
                Protect.place(other, second, PlaceChange.to(Rhythm.ON_SAVE), p.clock(), "Ines");
                assertThat(next().added()).isEqualTo(1);
                Protect.place(other, second, new PlaceChange(null, List.of("*.txt"), List.of()), p.clock(), "Ines");
                CaptureResult withoutTexts = next();
                assertThat(withoutTexts.points()).as("the new pattern counts").isZero();
                Protect.place(other, p.folder(), PlaceChange.to(Rhythm.BY_HAND), p.clock(), "Ines");
                for (int i = 0; i < 200 && supervisor.names().size() > 2; i++) {
                    Thread.sleep(100);
                }
                assertThat(supervisor.names())
                        .noneMatch(n -> n.contains(p.folder().toString()));
            }
        }
    }

    @Test
    void aFolderThatWasAwayIsWatchedAgainWhenItIsBack() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            try (Supervisor supervisor =
                    new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(p.vault(), p.clock(), f -> {}))) {
                supervisor.add(new Guardian(supervisor, p.vault(), p.clock(), p.authors(), listener));
                assertThat(next().added()).isEqualTo(1);
                Files.delete(p.path("a.txt"));
                Files.delete(p.folder());
                assertThat(failures.poll(30, TimeUnit.SECONDS)).contains("is not there");
                assertThat(p.line("a.txt").removed())
                        .as("a folder that is away removes nothing")
                        .isEmpty();
                Files.createDirectory(p.folder());
                p.save("a.txt", "one");
                p.save("b.txt", "two");
                long added = 0;
                while (added < 1) {
                    added += next().added();
                }
                assertThat(p.names(p.now().plusSeconds(60))).contains("a.txt", "b.txt");
            }
        }
    }

    @Test
    void ofAFolderThatStaysAwayIsSaidThatItIsNotThereEachTime() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            Supervisor.Backoff soon = new Supervisor.Backoff(Duration.ofMillis(20), Duration.ofMillis(20));
            List<Duties.Failing> told = Collections.synchronizedList(new ArrayList<>());
            try (Supervisor supervisor = new Supervisor(soon, new Duties(p.vault(), p.clock(), told::add))) {
                supervisor.add(new Guardian(supervisor, p.vault(), p.clock(), p.authors(), listener));
                assertThat(next().added()).isEqualTo(1);
                Files.move(p.folder(), temp.resolve("away"));
                for (int i = 0; i < 4; i++) {
                    assertThat(failures.poll(30, TimeUnit.SECONDS))
                            .contains("The folder " + p.folder() + " is not there");
                }
            }
            assertThat(told).isNotEmpty().allMatch(f -> f.trouble().contains("is not there"));
            try (Reading reading = p.vault().read()) {
                assertThat(reading.state(p.place()).trouble()).contains("is not there");
            }
        }
    }

    @Test
    void afterTheComputerSleptAllIsLookedAtOnceThoughNobodyHeardOfAChange() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            try (Supervisor supervisor =
                    new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(p.vault(), p.clock(), f -> {}))) {
                supervisor.add(new Guardian(supervisor, p.vault(), p.clock(), p.authors(), listener));
                assertThat(next().added()).isEqualTo(1);
                assertThat(scopes.take()).isEqualTo(CaptureScope.WHOLE);
                // The time of day went on, and this program did not run meanwhile.
                p.later(90);
                next();
                assertThat(scopes.take()).isEqualTo(CaptureScope.WHOLE);
                Files.writeString(p.path("a.txt"), "two and more");
                next();
                assertThat(scopes.take()).as("once, and then folders again").isInstanceOf(CaptureScope.Folders.class);
            }
        }
    }

    @Test
    void afterAnotherFolderTookItsPlaceThatOneIsWatched() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.save("b.txt", "other");
            try (Supervisor supervisor =
                    new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(p.vault(), p.clock(), f -> {}))) {
                supervisor.add(new Guardian(supervisor, p.vault(), p.clock(), p.authors(), listener));
                assertThat(next().added()).isEqualTo(2);
                Path other = Files.createDirectory(temp.resolve("copy"));
                Files.copy(p.path("a.txt"), other.resolve("a.txt"));
                Files.copy(p.path("b.txt"), other.resolve("b.txt"));
                Files.move(p.folder(), temp.resolve("moved away"));
                Files.move(other, p.folder());
                next();
                // The first of them is found by the look that comes with the watch, the second one has to be heard of.
                Files.writeString(p.path("a.txt"), "two and more");
                long points = 0;
                while (points < 1) {
                    points += next().points();
                }
                Files.writeString(p.path("b.txt"), "three and more");
                while (points < 2) {
                    points += next().points();
                }
                assertThat(p.line("b.txt").versions()).hasSize(2);

                Path away = temp.resolve("away");
                failures.clear();
                Files.move(p.folder(), away);
                assertThat(failures.poll(30, TimeUnit.SECONDS)).contains("is not there");
                Files.writeString(away.resolve("a.txt"), "changed while it was away");
                Files.move(away, p.folder());
                while (points < 3) {
                    points += next().points();
                }
                assertThat(p.line("a.txt").versions()).hasSize(3);
            }
        }
    }
}
