package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.TreeTableView;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.PatientRobot;
import org.mendedleaf.desktop.files.FileRow;
import org.mendedleaf.desktop.files.LineRow;
import org.testfx.api.FxToolkit;
import org.testfx.service.query.EmptyNodeQueryException;
import org.testfx.util.WaitForAsyncUtils;

/** The real window over real folders, and ways to look at it and to use it. */
@SuppressWarnings("unchecked")
abstract class WindowTest {

    @TempDir
    Path temp;

    final PatientRobot robot = new PatientRobot();
    Path desk;
    Path home;
    App app;

    @BeforeAll
    static void toolkit() throws TimeoutException {
        FxToolkit.registerPrimaryStage();
    }

    @BeforeEach
    void folders() throws IOException {
        desk = Files.createDirectories(temp.resolve("Front desk")).toRealPath();
        home = temp.resolve("home");
    }

    @AfterEach
    void end() throws Exception {
        App running = app;
        // The caret of a text field that has the keys goes on blinking in a window that is closed, and keeps all others
        // awake.
        robot.interact(() -> javafx.stage.Window.getWindows().stream()
                .map(javafx.stage.Window::getScene)
                .filter(scene -> scene != null)
                .forEach(scene -> scene.getRoot().requestFocus()));
        if (running != null) {
            running.stop();
        }
        FxToolkit.cleanupStages();
    }

    void save(String name, String text, Instant at) throws IOException {
        Path file = desk.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(at));
    }

    /** A place with a ledger of three versions, a removed file and a folder. */
    void fill() throws IOException {
        Instant day = Instant.now().minus(Duration.ofDays(5));
        save("ledger.csv", "kind,kilos\nKaty,412\nBramley,1204\n", day);
        save("gone.txt", "was here", day);
        save("sub/plan.txt", "plan", day);
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), at(day), "Ines");
            capture(vault, place, day);
            save("ledger.csv", "kind,kilos\nKaty,421\nBramley,1204\n", day.plusSeconds(90_000));
            Files.delete(desk.resolve("gone.txt"));
            capture(vault, place, day.plusSeconds(90_100));
            save("ledger.csv", "saved over by a letter", day.plusSeconds(180_000));
            capture(vault, place, day.plusSeconds(180_100));
        }
        UserSettings settings = UserSettings.open(home);
        settings.addVault(temp.resolve("vault").toRealPath());
        settings.who("Ines");
    }

    static Clock at(Instant moment) {
        return Clock.fixed(moment, ZoneOffset.UTC);
    }

    static void capture(OpenVault vault, Place place, Instant when) throws IOException {
        new Capture(vault, place, at(when), (p, o) -> "Tomas").run(CaptureScope.WHOLE, Progress.NONE);
    }

    void show() throws Exception {
        FxToolkit.registerStage(() -> {
            App shown = new App();
            Stage stage = new Stage();
            try {
                stage.setX(0);
                stage.setY(0);
                shown.show(stage, UserSettings.open(home), Clock.system(ZoneOffset.UTC));
            } catch (IOException e) {
                throw new IllegalStateException(e);
            }
            app = shown;
            return stage;
        });
        PatientRobot.settle();
    }

    /** Does something again and again until it is so, as who sees that a click led nowhere clicks again. */
    void again(String what, Runnable hand, Callable<Boolean> condition) {
        for (int i = 0; i < 60; i++) {
            hand.run();
            try {
                until(1, condition);
                return;
            } catch (TimeoutException e) {
                // Once more.
            }
        }
        eventually(what, condition);
    }

    private static void until(long seconds, Callable<Boolean> condition) throws TimeoutException {
        WaitForAsyncUtils.waitFor(seconds, TimeUnit.SECONDS, () -> {
            try {
                return PatientRobot.onScreen(condition);
            } catch (EmptyNodeQueryException | IndexOutOfBoundsException e) {
                // What is looked at is not shown yet.
                return false;
            }
        });
    }

    void eventually(String what, Callable<Boolean> condition) {
        try {
            until(60, condition);
        } catch (TimeoutException e) {
            throw new AssertionError("expected " + what + "; " + onScreenNow() + "\nmeanwhile" + atWork(), e);
        }
    }

    /** What has the keys, and what stands on the screen, for the words of a failure. */
    private static String screen() {
        StringBuilder all = new StringBuilder();
        for (javafx.stage.Window window : javafx.stage.Window.getWindows()) {
            Scene scene = window.getScene();
            all.append("the keys are with ").append(scene == null ? null : scene.getFocusOwner());
            if (scene != null) {
                scene.getRoot().lookupAll(".label").stream()
                        .filter(n -> n instanceof Labeled l && !l.getText().isBlank() && shown(n))
                        .limit(150)
                        .forEach(n -> all.append(" | ").append(((Labeled) n).getText()));
            }
            all.append('\n');
        }
        return all.toString();
    }

    private static String onScreenNow() {
        try {
            return PatientRobot.onScreen(WindowTest::screen);
        } catch (Exception e) {
            return "the screen does not answer: " + e;
        }
    }

    static boolean shown(Node node) {
        for (Node at = node; at != null; at = at.getParent()) {
            if (!at.isVisible()) {
                return false;
            }
        }
        return node.getScene() != null;
    }

    /** What the threads of the program are doing, for the words of a failure. */
    private static String atWork() {
        StringBuilder all = new StringBuilder();
        Thread.getAllStackTraces().forEach((thread, stack) -> {
            List<String> ours = java.util.Arrays.stream(stack)
                    .limit(40)
                    .map(StackTraceElement::toString)
                    .toList();
            if (ours.stream().anyMatch(l -> l.contains("mendedleaf"))) {
                all.append("\n  ").append(thread.getName()).append("\n    ").append(String.join("\n    ", ours));
            }
        });
        return all.toString();
    }

    String text(String id) {
        return robot.lookup(id).queryAs(Node.class) instanceof Labeled l ? l.getText() : "";
    }

    /** What is shown now, as a screen reader finds it. */
    NamedControls controls() {
        NamedControls[] all = new NamedControls[1];
        robot.interact(() -> all[0] = NamedControls.of(app.shell().getScene().getRoot()));
        return all[0];
    }

    /** Fails where something on the sheet that is shown takes the keys and has no name. */
    void everythingHasAName(String sheet) {
        assertThat(controls().nameless()).as(sheet).isEmpty();
    }

    /** All that is said within something, a line for each label. */
    String said(String id) {
        StringBuilder all = new StringBuilder();
        robot.lookup(id + " .label")
                .queryAllAs(Labeled.class)
                .forEach(l -> all.append(l.getText()).append('\n'));
        return all.toString();
    }

    boolean visible(String id) {
        return robot.lookup(id).tryQuery().map(Node::isVisible).orElse(false);
    }

    /** The rows of the listing; none while it is not shown. */
    List<FileRow> rows() {
        Optional<Node> shown = robot.lookup("#listing").tryQuery();
        if (shown.isEmpty() || ((TreeTableView<FileRow>) shown.get()).getRoot() == null) {
            return List.of();
        }
        return ((TreeTableView<FileRow>) shown.get())
                .getRoot().getChildren().stream().map(i -> i.getValue()).toList();
    }

    List<LineRow> points() {
        ListView<LineRow> list = robot.lookup("#points").queryListView();
        return List.copyOf(list.getItems());
    }

    /** What shows the name of a file in the listing. */
    Node inListing(String name) {
        return robot.from(robot.lookup("#listing").queryAll()).lookup(name).query();
    }

    void select(String name) {
        eventually(
                "the row " + name,
                () -> rows().stream().anyMatch(r -> r.entry().name().equals(name)));
        robot.clickOnFound(() -> inListing(name));
        eventually("its line", () -> text("#line-title").equals(name) && !points().isEmpty());
    }

    void choosePoint(int index) {
        ListView<LineRow> list = robot.lookup("#points").queryListView();
        robot.interact(() -> {
            list.requestFocus();
            list.getSelectionModel().select(index);
        });
    }

    String live() throws IOException {
        return Files.readString(desk.resolve("ledger.csv"));
    }
}
