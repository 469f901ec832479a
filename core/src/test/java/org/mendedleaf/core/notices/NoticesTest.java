package org.mendedleaf.core.notices;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.JournalQuery;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.findings.HealthCheck;
import org.mendedleaf.core.jobs.Breathing;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.settings.UserSettings;

/** What needs attention is told once, together, not in quiet hours, and again when it comes back. */
class NoticesTest {

    private static final String ROTA = "Monday Ada, Tuesday Tomas, Wednesday Wilma. ".repeat(40);

    @TempDir
    Path temp;

    private TestPlace p;
    private UserSettings home;
    private final List<String> shown = new ArrayList<>();
    private final List<String> came = new ArrayList<>();

    @BeforeEach
    void start() throws IOException {
        p = new TestPlace(temp);
        home = UserSettings.open(temp.resolve("home"));
        p.save("rota.txt", ROTA);
        p.capture();
    }

    @AfterEach
    void end() throws IOException {
        p.close();
    }

    private NoticeKeeper keeper() {
        return new NoticeKeeper(
                p.vault(),
                home,
                p.clock(),
                (title, words) -> shown.add(title + ": " + words),
                all -> all.forEach(c -> came.add(c.words())));
    }

    private void harm() throws IOException {
        p.later(10);
        p.save("rota.txt", "");
        p.capture();
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
    }

    private Path copy() throws IOException {
        Path copy = temp.toRealPath().resolve("drive");
        Copies copies = new Copies(p.vault(), p.clock(), "Ines");
        copies.run(copies.add(copy).copy(), Progress.NONE);
        return copy;
    }

    @Test
    void aFindingIsToldOnce() throws IOException {
        NoticeKeeper keeper = keeper();
        keeper.round(Breathing.on());
        assertThat(shown).isEmpty();
        harm();
        keeper.round(Breathing.on());
        assertThat(shown).hasSize(1);
        assertThat(shown.get(0)).startsWith("A file looks harmed: ").contains("rota.txt was emptied");
        assertThat(came).hasSize(1);
        p.later(20);
        keeper.round(Breathing.on());
        keeper().round(Breathing.on());
        assertThat(shown).as("not again, by no other program either").hasSize(1);
    }

    @Test
    void whatIsMendedAndComesBackIsToldAgain() throws IOException {
        Path copy = copy();
        NoticeKeeper keeper = keeper();
        p.later(10);
        p.save("new.txt", "captured since");
        p.capture();
        Path away = temp.resolve("away");
        Files.move(copy, away);
        keeper.round(Breathing.on());
        assertThat(shown).hasSize(1);
        assertThat(shown.get(0)).contains("Its drive is away");
        Files.move(away, copy);
        p.later(11);
        keeper.round(Breathing.on());
        Files.move(copy, away);
        p.later(11);
        keeper.round(Breathing.on());
        assertThat(shown).hasSize(2);
    }

    private List<Concern> warnings() throws IOException {
        return Concern.warnings(p.vault(), "Ines", p.now(), java.time.ZoneOffset.UTC);
    }

    @Test
    void whatIsDismissedIsToldNoMoreUntilItHasGoneAndComesBack() throws Exception {
        Path copy = copy();
        p.later(10);
        p.save("new.txt", "captured since");
        p.capture();
        Path away = temp.resolve("away");
        Files.move(copy, away);
        Dismissals dismissals = new Dismissals(p.vault());
        dismissals.dismiss(warnings().get(0), p.now(), "Ines", "the drive is in the safe");
        assertThat(Concern.of(p.vault(), "Ines", p.now(), java.time.ZoneOffset.UTC))
                .isEmpty();
        NoticeKeeper keeper = keeper();
        keeper.round(Breathing.on());
        assertThat(shown).isEmpty();
        assertThat(warnings()).as("it is so all the same").hasSize(1);
        Files.move(away, copy);
        p.later(11);
        keeper.round(Breathing.on());
        assertThat(dismissals.all()).isEmpty();
        Files.move(copy, away);
        p.later(11);
        keeper.round(Breathing.on());
        assertThat(shown).hasSize(1);
        assertThat(shown.get(0)).contains("Its drive is away");
    }

    @Test
    void whatIsDismissedIsInTheJournalWithItsReasonAndOutlivesTheCatalogue() throws Exception {
        Path copy = copy();
        p.later(10);
        p.save("new.txt", "captured since");
        p.capture();
        Files.move(copy, temp.resolve("away"));
        Concern concern = warnings().get(0);
        new Dismissals(p.vault()).dismiss(concern, p.now(), "Ines", "the drive is in the safe");
        try (Reading reading = p.vault().read()) {
            assertThat(JournalQuery.of(reading).entries(JournalQuery.Wanted.ALL, 1))
                    .singleElement()
                    .satisfies(e -> assertThat(e.words()).contains("dismissed", "the drive is in the safe"));
        }
        p.close();
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(1))) {
            assertThat(new Dismissals(vault).all()).containsOnlyKeys(concern.id());
            new Dismissals(vault).takeBack(concern);
            assertThat(Concern.of(vault, "Ines", p.now(), java.time.ZoneOffset.UTC))
                    .extracting(Concern::id)
                    .contains(concern.id());
        }
    }

    @Test
    void inQuietHoursNothingIsShownAndAfterThemWhatIsStillSo() throws IOException {
        new NoticeSettings(true, QuietHours.parse("08:00-09:00")).save(home);
        NoticeKeeper keeper = keeper();
        keeper.round(Breathing.on());
        harm();
        keeper.round(Breathing.on());
        assertThat(shown).isEmpty();
        assertThat(came).as("in the program it stands at once").hasSize(1);
        p.later(60);
        keeper.round(Breathing.on());
        assertThat(shown).hasSize(1);
    }

    @Test
    void whoWantsNoNoticesGetsNone() throws IOException {
        new NoticeSettings(false, QuietHours.NONE).save(home);
        harm();
        keeper().round(Breathing.on());
        assertThat(shown).isEmpty();
        NoticeSettings read = NoticeSettings.of(UserSettings.open(temp.resolve("home")));
        assertThat(read).isEqualTo(new NoticeSettings(false, QuietHours.NONE));
    }

    @Test
    void severalThingsAreOneNotice() throws IOException {
        Path copy = copy();
        harm();
        Files.move(copy, temp.resolve("away"));
        keeper().round(Breathing.on());
        assertThat(shown).hasSize(1);
        assertThat(shown.get(0)).startsWith("2 things need attention: ");
    }

    @Test
    void quietHoursAreTypedAndRead() {
        assertThat(QuietHours.parse("20:00-07:00").text()).isEqualTo("20:00-07:00");
        assertThat(QuietHours.parse("8:30 – 9:00").from()).isEqualTo(LocalTime.of(8, 30));
        assertThat(QuietHours.parse("off")).isEqualTo(QuietHours.NONE);
        for (String wrong : List.of("", "at night", "25:00-07:00", "20:00", "20:00-07:00-08:00")) {
            assertThatThrownBy(() -> QuietHours.parse(wrong))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("expected quiet hours");
        }
    }

    /** Of each minute of a day, exactly those between the two times are quiet, over midnight too. */
    @Property(tries = 50)
    void quietHoursHoldFromTheirFirstMinuteToTheirLast(
            @ForAll @IntRange(max = 1439) int from, @ForAll @IntRange(max = 1439) int to) {
        QuietHours hours = new QuietHours(LocalTime.ofSecondOfDay(from * 60L), LocalTime.ofSecondOfDay(to * 60L));
        int quiet = 0;
        for (int m = 0; m < 1440; m++) {
            quiet += hours.hold(LocalTime.ofSecondOfDay(m * 60L)) ? 1 : 0;
        }
        assertThat(quiet).isEqualTo(Math.floorMod(to - from, 1440));
        assertThat(hours.hold(hours.from())).isEqualTo(from != to);
        assertThat(hours.hold(hours.to())).isFalse();
        assertThat(QuietHours.parse(hours.text()).isNone()).isEqualTo(from == to);
    }

    @Test
    void whatANoticeSaysIsNoMarkupAndNoCommand() {
        assertThat(DesktopNotice.notifySend("Title", "a <b> & --urgent"))
                .containsSubsequence("--", "Title", "a &lt;b&gt; &amp; --urgent");
        assertThat(DesktopNotice.gdbus("It's", "two\nlines \\ and 'more'"))
                .contains("'It\\'s'", "'two\\nlines \\\\ and \\'more\\''");
    }

    @Test
    void twoProgramsAtOnceTellItBetweenThem() throws Exception {
        harm();
        List<String> both = java.util.Collections.synchronizedList(new ArrayList<>());
        List<Thread> threads = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            NoticeKeeper keeper =
                    new NoticeKeeper(p.vault(), home, p.clock(), (title, words) -> both.add(words), all -> {});
            threads.add(new Thread(() -> {
                try {
                    keeper.round(Breathing.on());
                } catch (IOException | RuntimeException e) {
                    both.add(e.toString());
                }
            }));
        }
        threads.forEach(Thread::start);
        for (Thread thread : threads) {
            thread.join();
        }
        assertThat(both).hasSize(1);
        assertThat(both.get(0)).contains("rota.txt was emptied");
    }

    @Test
    void whatWasToldSurvivesAFileThatCannotBeRead() throws Exception {
        harm();
        keeper().round(Breathing.on());
        Files.writeString(temp.resolve("home/notices.json"), "{ not a settings file");
        keeper().round(Breathing.on());
        assertThat(shown).as("told once more, and then not").hasSize(2);
        keeper().round(Breathing.on());
        assertThat(shown).hasSize(2);
    }
}
