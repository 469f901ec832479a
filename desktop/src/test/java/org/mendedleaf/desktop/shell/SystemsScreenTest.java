package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TableView;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.retention.Rule;
import org.mendedleaf.core.retention.RuleScope;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsideWork;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.desktop.files.LineRow;
import org.mendedleaf.standins.StandIns;
import org.mendedleaf.standins.TlsFront;

/** Other systems in the real window: coverage, settings, connecting, a merged line, work in a system. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class SystemsScreenTest extends WindowTest {

    private StandIns outside;

    @BeforeEach
    void standIns() throws IOException {
        outside = new StandIns(temp.resolve("outside"), "Ines");
    }

    @AfterEach
    void away() throws IOException {
        outside.close();
    }

    private interface Work {
        void run(
                UserSettings settings,
                OpenVault vault,
                Place folder,
                SystemRegistry registry,
                SystemConnector connecting)
                throws IOException;
    }

    /** What was done before the window opens. */
    private void prepare(Work work) throws IOException {
        fill();
        UserSettings settings = UserSettings.open(home);
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", java.time.Duration.ofSeconds(5))) {
            var clock = java.time.Clock.systemUTC();
            SystemRegistry registry = new SystemRegistry(settings, Systems.OPENER, clock, Retry.DEFAULT);
            Place folder;
            try (Reading reading = vault.read()) {
                folder = reading.places().get(0);
            }
            for (var s : outside.all()) {
                settings.connect(new Connection(
                        s.kind(),
                        SystemKind.parse(s.kind()),
                        s.address(),
                        s.token("Ines"),
                        vault.folder().root()));
            }
            work.run(settings, vault, folder, registry, new SystemConnector(settings, registry, clock));
        }
    }

    private Place create(SystemConnector c, UserSettings h, OpenVault v, SystemKind kind, String name)
            throws IOException {
        return c.create(h.connection(kind.text()).orElseThrow(), name, kind.standardSettings(), v);
    }

    /** Cells of the table; nothing while another sheet covers it. */
    private List<Coverage.Row> coverage() {
        return robot.lookup("#coverage")
                .<TableView<Coverage.Row>>tryQuery()
                .map(table -> List.copyOf(table.getItems()))
                .orElse(List.of());
    }

    private Optional<Coverage.Row> row(String where) {
        return coverage().stream().filter(r -> r.where().equals(where)).findFirst();
    }

    private void protection() {
        robot.clickOn("#tab-protection");
        eventually("the table", () -> visible("#coverage") && !coverage().isEmpty());
    }

    private void pick(String where) {
        eventually("the row of " + where, () -> row(where).isPresent());
        TableView<Coverage.Row> table = robot.lookup("#coverage").queryTableView();
        robot.interact(() -> table.getSelectionModel().select(row(where).orElseThrow()));
        eventually(
                "its settings",
                () -> text("#place-title").equals(row(where).orElseThrow().name()));
    }

    private void type(String id, String text) {
        robot.interact(() -> robot.lookup(id).queryAs(TextInputControl.class).setText(text));
    }

    @SuppressWarnings("unchecked")
    private void choose(String id, String value) {
        robot.interact(() -> ((ComboBox<String>) robot.lookup(id).queryAs(Node.class)).setValue(value));
    }

    @Test
    void aSystemIsConnectedAndAPlaceIsMadeInItInTheWindow() throws Exception {
        fill();
        show();
        eventually("the files", () -> visible("#listing"));
        protection();
        robot.clickOn("#connect-system");
        type("#connect-name", "Archive");
        type("#connect-address", "http://archive.invalid");
        eventually("a choice", () -> visible("#connect-plain"));
        robot.clickOn("#connect-go");
        eventually("a warning", () -> text("#connect-problem").contains("without encryption"));
        type("#connect-address", outside.objects().address());
        eventually("no choice", () -> !visible("#connect-plain"));
        type("#connect-token", "wrong");
        robot.clickOn("#connect-go");
        eventually("what is wrong", () -> text("#connect-problem").contains("does not accept the token"));
        new OutsidePlaces().make();
        type("#connect-token", outside.objects().token("Ines"));
        robot.clickOn("#connect-go");
        eventually("its place in the table", () -> row("Archive:there already").isPresent());
        pick("Archive:there already");
        robot.clickOn("#new-place");
        type("#place-name", "Press logs");
        type("#setting-expire-days", "30");
        robot.clickOn("#connect-go");
        eventually("the new place", () -> row("Archive:Press logs").isPresent());
        assertThat(row("Archive:Press logs")
                        .orElseThrow()
                        .facts()
                        .orElseThrow()
                        .settings()
                        .get(Setting.EXPIRE_DAYS))
                .isEqualTo("30");
    }

    private final class OutsidePlaces {
        void make() throws IOException {
            org.mendedleaf.core.systems.wire.Systems.open(
                            "x",
                            SystemKind.OBJECT_STORE,
                            new Endpoint(
                                    outside.objects().address(),
                                    outside.objects().token("Ines")),
                            Retry.DEFAULT,
                            java.time.Clock.systemUTC())
                    .create("there already", SystemKind.OBJECT_STORE.standardSettings());
        }
    }

    @Test
    void aCertificateThatNobodySignedIsShownAndTrustedOnceItWasCompared() throws Exception {
        fill();
        show();
        eventually("the files", () -> visible("#listing"));
        protection();
        new OutsidePlaces().make();
        try (TlsFront front = new TlsFront(outside.objects().address(), "localhost", 0)) {
            robot.clickOn("#connect-system");
            type("#connect-name", "Archive");
            type("#connect-address", front.address());
            type("#connect-token", outside.objects().token("Ines"));
            assertThat(visible("#connect-trust")).isFalse();
            robot.clickOn("#connect-go");
            eventually(
                    "the certificate",
                    () -> text("#connect-problem").replace("\n", "").contains(front.fingerprint()));
            robot.clickOn("#connect-trust");
            robot.clickOn("#connect-go");
            eventually(
                    "its place in the table", () -> row("Archive:there already").isPresent());
            assertThat(UserSettings.open(home)
                            .connection("Archive")
                            .orElseThrow()
                            .certificate())
                    .isEqualTo(front.fingerprint());
        }
    }

    @Test
    void settingsSayWhatTheyMeanBeforeTheyAreSaved() throws Exception {
        prepare((settings, vault, folder, registry, c) -> {
            Place logs = create(c, settings, vault, SystemKind.OBJECT_STORE, "logs");
            OutsideWork work = new OutsideWork(vault, logs, registry, java.time.Clock.systemUTC(), "Ines");
            for (String text : List.of("one", "two", "three")) {
                Path file = Files.writeString(temp.resolve("in"), text);
                work.put(List.of(new Revision(file, "a.txt", "")), Progress.NONE);
            }
        });
        show();
        eventually("the files", () -> visible("#listing"));
        protection();
        pick("object-store:logs");
        eventually("what it forgets", () -> said("#forgets").contains("Nothing of what is there"));
        type("#setting-expire-days", "7");
        eventually("what it would forget", () -> visible("#forgets-then"));
        assertThat(text("#forgets-then")).contains("2 versions go within 30 days");
        assertThat(text("#effect-expire-days")).contains("forgotten 7 days later");
        type("#setting-expire-days", "soon");
        eventually("what is wrong", () -> text("#place-problem").contains("expire-days is a whole number"));
        type("#setting-expire-days", "7");
        robot.clickOn("#place-save");
        eventually(
                "the setting in the system",
                () -> row("object-store:logs")
                        .orElseThrow()
                        .facts()
                        .orElseThrow()
                        .settings()
                        .get(Setting.EXPIRE_DAYS)
                        .equals("7"));
        choose("#setting-versioning", "paused");
        eventually("its effect", () -> text("#effect-versioning").startsWith("What exists stays"));
    }

    @Test
    void anUnpluggedDriveIsShownWithTheNextStepAndRunsWhenItIsBack() throws Exception {
        prepare((settings, vault, folder, registry, c) -> {
            Place set = create(c, settings, vault, SystemKind.BACKUP_DRIVE, "desk");
            c.relate(vault, BackupRun.relation(folder, "", set));
            outside.drive().plug(false);
            try {
                new Mirror(vault, set, registry.system(set), java.time.Clock.systemUTC()).run(Progress.NONE);
            } catch (org.mendedleaf.core.systems.SystemException e) {
                assertThat(e.words()).contains("not plugged in");
            }
        });
        show();
        eventually("the files", () -> visible("#listing"));
        protection();
        pick("backup-drive:desk");
        assertThat(row("backup-drive:desk").orElseThrow().state()).isEqualTo(CoverageState.AWAY);
        assertThat(said("#warnings")).contains("is not plugged in").contains("Plug it in");
        assertThat(robot.lookup("#setting-backup-keep").queryAs(Node.class).isDisabled())
                .isTrue();
        outside.drive().plug(true);
        robot.clickOn("#place-run");
        eventually(
                "a run",
                () -> row("backup-drive:desk").orElseThrow().state() == CoverageState.GOOD
                        && !said("#cuts").contains("None yet"));
        assertThat(said("#related")).contains("Front desk");
    }

    @Test
    void aLineShowsWhatOtherSystemsHoldAndTakesItFromThere() throws Exception {
        prepare((settings, vault, folder, registry, c) -> {
            Place share = create(c, settings, vault, SystemKind.FILE_SERVER, "common");
            c.relate(vault, new Relation(folder.id(), "", share.id(), ""));
            OutsideWork work = new OutsideWork(vault, share, registry, java.time.Clock.systemUTC(), "Ines");
            Path file = Files.writeString(temp.resolve("in"), "kind,kilos\nKaty,500\n");
            work.put(List.of(new Revision(file, "ledger.csv", "")), Progress.NONE);
        });
        show();
        select("ledger.csv");
        eventually(
                "the version on the server",
                () -> points().stream()
                        .anyMatch(r -> r instanceof LineRow.OfVersion v
                                && v.heldBy().foreign().equals("file-server:common")));
        int at = 0;
        while (!(points().get(at) instanceof LineRow.OfVersion v)
                || v.heldBy().foreign().isEmpty()) {
            at++;
        }
        LineRow.OfVersion theirs = (LineRow.OfVersion) points().get(at);
        assertThat(theirs.heldBy().words()).isEqualTo("file-server:common only");
        assertThat(theirs.heldBy().warn()).isTrue();
        choosePoint(at);
        eventually("a way to take it", () -> visible("#take"));
        robot.clickOn("#take");
        eventually("its content", () -> !visible("#take"));
        choosePoint(at);
        eventually("the button", () -> text("#restore").equals("Restore this one"));
        robot.clickOn("#restore");
        eventually(
                "the file", () -> Files.readString(desk.resolve("ledger.csv")).contains("Katy,500"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually(
                "the file as before",
                () -> Files.readString(desk.resolve("ledger.csv")).equals("saved over by a letter"));
    }

    @Test
    void aPlaceInASystemIsWorkedInLikeAFolder() throws Exception {
        prepare((settings, vault, folder, registry, c) -> {
            Place minutes = create(c, settings, vault, SystemKind.LIBRARY, "Minutes");
            OutsideWork work = new OutsideWork(vault, minutes, registry, java.time.Clock.systemUTC(), "Ines");
            for (String text : List.of("first draft", "as approved")) {
                Path file = Files.writeString(temp.resolve("in"), text);
                work.put(List.of(new Revision(file, "march.txt", text)), Progress.NONE);
            }
        });
        show();
        eventually("the files", () -> visible("#listing"));
        protection();
        pick("library:Minutes");
        robot.clickOn("#place-open");
        select("march.txt");
        assertThat(points()).hasSize(2);
        choosePoint(1);
        eventually("the button", () -> text("#restore").equals("Restore version 1"));
        robot.clickOn("#restore");
        eventually("a third version", () -> points().size() == 3);
        Path revision = Files.writeString(temp.resolve("revision.txt"), "as printed");
        robot.interact(
                () -> java.util.Objects.requireNonNull(app.shell()).setFileAsk(() -> Optional.of(revision.toFile())));
        robot.clickOn("#put");
        eventually("the pane", () -> visible("#put-pane"));
        robot.clickOn("#put-note").write("for the printer");
        robot.clickOn("#put-choose");
        eventually("a fourth version", () -> points().size() == 4);
        assertThat(((LineRow.OfVersion) points().get(0)).version().note()).isEqualTo("for the printer");
        eventually("the message", () -> text("#message").equals("march.txt is now version 4."));
        robot.clickOn("#remove");
        eventually(
                "the removal, not " + text("#message"), () -> text("#message").startsWith("march.txt is removed"));
        eventually("a way back", () -> text("#restore").startsWith("Bring back"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually("the file is back", () -> visible("#remove"));
    }

    @Test
    void aFolderWithGapsListsThemWithReasons() throws Exception {
        fill();
        Path secret = Files.writeString(desk.resolve("secret.txt"), "x");
        org.junit.jupiter.api.Assumptions.assumeTrue(secret.toFile().setReadable(false) && !Files.isReadable(secret));
        show();
        eventually("the files", () -> visible("#listing"));
        robot.push(KeyCode.F5);
        protection();
        eventually("the gap", () -> said("#gaps").contains("secret.txt"));
    }

    @Test
    void aSystemIsThinnedFromTheRetentionTabAfterAPreview() throws Exception {
        prepare((settings, vault, folder, registry, connecting) -> {
            Place archive = create(connecting, settings, vault, SystemKind.OBJECT_STORE, "archive");
            OutsideWork work = new OutsideWork(vault, archive, registry, java.time.Clock.systemUTC(), "Ines");
            for (int i = 1; i <= 4; i++) {
                Path file = Files.writeString(temp.resolve("in.txt"), "state " + i);
                work.put(List.of(new Revision(file, "letters/offer.txt", "")), Progress.NONE);
            }
            RuleSet rules = RuleSet.NONE.with(Rule.keepAll("two", RuleScope.ALL).withCounts(1, 2));
            RuleSets.set(vault, rules, java.time.Clock.systemUTC(), "Ines");
        });
        show();
        eventually("the files", () -> visible("#listing"));
        robot.push(KeyCode.ALT, KeyCode.DIGIT4);
        eventually("the screen", () -> visible("#retention-rules"));
        robot.clickOn("#retention-rules");
        eventually("the way to the systems", () -> visible("#rules-thin-system"));
        robot.clickOn("#rules-thin-system");
        eventually(
                "the place",
                () -> !robot.lookup("object-store:archive").queryAll().isEmpty());
        robot.clickOn("object-store:archive");
        eventually("the plan", () -> text("#thin-sum").startsWith("2 versions of 1 file"));
        assertThat(text("#thin-sum")).contains("would be erased in object-store:archive");
        robot.clickOn("#thin-go");
        eventually("done", () -> text("#thin-sum").startsWith("2 versions are erased in object-store:archive"));
        assertThat(text("#thin-sum")).contains("2 versions were let go");
        robot.clickOn("#thin-leave");
        robot.clickOn("#retention-waiting");
        eventually(
                "what waits",
                () -> robot.lookup("#waiting")
                                .queryAs(TableView.class)
                                .getItems()
                                .size()
                        == 1);
    }
}
