package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.jobs.Progress;

/** Several jobs in the window. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class JobsScreenTest extends WindowTest {

    private final CountDownLatch go = new CountDownLatch(1);

    private void start(String title) {
        robot.interact(() -> app.shell().context().jobs().start(title, this::work, x -> {}, e -> {}));
    }

    private boolean work(Progress progress) throws InterruptedException {
        while (!progress.isCancelled() && !go.await(20, TimeUnit.MILLISECONDS)) {
            Thread.onSpinWait();
        }
        return true;
    }

    private List<String> shown() {
        return robot.lookup(".job-row").queryAll().stream()
                .filter(Node::isVisible)
                .map(row -> ((Label) row.lookup(".job-words")).getText())
                .toList();
    }

    private Button button(String title, String style) {
        return robot.lookup(".job-row").queryAll().stream()
                .filter(row -> ((Label) row.lookup(".job-words")).getText().startsWith(title))
                .map(row -> (Button) row.lookup(style))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void eachJobHasARowWithItsOwnPauseAndCancel() throws Exception {
        fill();
        show();
        assertThat(shown()).isEmpty();
        start("Long restore");
        start("Second restore");
        eventually("both", () -> shown().size() == 2);
        assertThat(shown()).anySatisfy(s -> assertThat(s).isEqualTo("Long restore"));
        assertThat(shown()).anySatisfy(s -> assertThat(s).isEqualTo("Second restore · waits for its turn"));
        robot.clickOnFound(() -> button("Long restore", ".job-pause"));
        eventually(
                "it rests", () -> button("Long restore", ".job-pause").getText().equals("Go on"));
        robot.clickOnFound(() -> button("Long restore", ".job-pause"));
        eventually(
                "it goes on",
                () -> button("Long restore", ".job-pause").getText().equals("Pause"));
        robot.clickOnFound(() -> button("Long restore", ".job-cancel"));
        eventually("the second one has its turn", () -> shown().equals(List.of("Second restore")));
        go.countDown();
        eventually("none", () -> shown().isEmpty());
    }

    @Test
    void manyJobsDoNotFillTheWindow() throws Exception {
        fill();
        show();
        for (int i = 1; i <= 8; i++) {
            start("Job " + i);
        }
        eventually("the first five", () -> shown().size() == 5 && visible("#job-more"));
        assertThat(text("#job-more")).isEqualTo("and 3 more");
        go.countDown();
        eventually("none", () -> shown().isEmpty() && !visible("#job-more"));
    }
}
