package org.mendedleaf.desktop.tray;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.service.ServiceControl.VaultState;
import org.mendedleaf.core.service.TrayControl;

/** The tray icon from its start until it is switched off, with a desktop that only remembers what it shows. */
class TrayProgramTest {

    /** A desktop that has its status area after it was asked so many times. */
    private static final class Area implements StatusArea {
        private final List<TrayModel.View> shown = new CopyOnWriteArrayList<>();
        private int comesAfter;
        private boolean desktop = true;
        private volatile boolean closed;

        @Override
        public boolean isThere() {
            return comesAfter-- <= 0;
        }

        @Override
        public boolean mayCome() {
            return desktop;
        }

        @Override
        public void show(TrayModel.View view) {
            shown.add(view);
        }

        @Override
        public void close() {
            closed = true;
        }
    }

    @TempDir
    private Path temp;

    private final ServiceControl service = mock(ServiceControl.class);
    private final List<List<String>> started = new CopyOnWriteArrayList<>();
    private final Area area = new Area();
    private TrayControl control;
    private TrayModel model;

    @BeforeEach
    void switchedOn() throws IOException {
        Path settings = Files.createDirectory(temp.resolve("settings"));
        control = new TrayControl(
                settings,
                "Linux",
                Map.of("XDG_CONFIG_HOME", temp.toString()),
                List.of("/opt/mended-leaf"),
                words -> 127,
                started::add);
        model = new TrayModel(service, control, started::add, List.of("/opt/mended-leaf"));
        control.install();
    }

    private CompletableFuture<TrayProgram.Outcome> run(TrayProgram program) {
        return CompletableFuture.supplyAsync(() -> {
            try {
                return program.run(control);
            } catch (IOException | InterruptedException e) {
                throw new IllegalStateException(e);
            }
        });
    }

    private TrayProgram program() {
        return new TrayProgram(model, area, Duration.ofSeconds(20), Duration.ofMillis(20));
    }

    private static void runs(ServiceControl service, Map<Path, VaultState> vaults) {
        when(service.running()).thenReturn(Optional.of(new ServiceControl.Running(1, Instant.EPOCH, vaults)));
    }

    private void eventually(TrayModel.State state) throws InterruptedException {
        long until = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
        while (System.nanoTime() < until
                && (area.shown.isEmpty()
                        || area.shown.get(area.shown.size() - 1).state() != state)) {
            Thread.sleep(5);
        }
        assertThat(area.shown).last().extracting(TrayModel.View::state).isEqualTo(state);
    }

    @Test
    void itSaysHowTheServiceStandsAsItChangesAndEndsWhenItIsSwitchedOff() throws Exception {
        area.comesAfter = 3;
        runs(service, Map.of(temp.resolve("vault"), VaultState.KEPT));
        CompletableFuture<TrayProgram.Outcome> running = run(program());
        eventually(TrayModel.State.KEPT);

        Map<Path, VaultState> vaults = new LinkedHashMap<>();
        vaults.put(temp.resolve("vault"), VaultState.KEPT);
        vaults.put(temp.resolve("other"), new VaultState("The drive is away.", false, List.of()));
        runs(service, vaults);
        eventually(TrayModel.State.TROUBLE);
        assertThat(area.shown.get(1).words()).isEqualTo("Mended Leaf: something goes wrong");
        assertThat(area.shown.get(1).details()).containsExactly("other: The drive is away.");

        when(service.running()).thenReturn(Optional.empty());
        eventually(TrayModel.State.STOPPED);
        assertThat(area.shown).as("only what changed is drawn").hasSize(3);

        model.remove();
        assertThat(running.get(20, TimeUnit.SECONDS)).isEqualTo(TrayProgram.Outcome.ENDED);
        assertThat(area.closed).isTrue();
    }

    @Test
    void whatAnotherProgramKeepsIsNoTroubleAndWhatFailsAgainAndAgainIs() {
        VaultState others = new VaultState("A window keeps it.", true, List.of());
        runs(service, Map.of(temp.resolve("vault"), others));
        assertThat(model.view())
                .isEqualTo(new TrayModel.View(
                        TrayModel.State.KEPT, "Mended Leaf: a window or another program keeps your files", List.of()));
        VaultState failing = new VaultState("", false, List.of("The folder is away.", "The server does not answer."));
        runs(service, Map.of(temp.resolve("vault"), failing));
        assertThat(model.view())
                .isEqualTo(new TrayModel.View(
                        TrayModel.State.TROUBLE,
                        "Mended Leaf: 2 things go wrong",
                        List.of("The folder is away.", "The server does not answer.")));
    }

    @Test
    void aSecondOneSeesTheFirstAndEndsAndItsPlaceIsFreeAfterwards() throws Exception {
        runs(service, Map.of());
        CompletableFuture<TrayProgram.Outcome> running = run(program());
        eventually(TrayModel.State.KEPT);
        assertThat(run(program()).get(20, TimeUnit.SECONDS)).isEqualTo(TrayProgram.Outcome.ALREADY);
        control.remove();
        running.get(20, TimeUnit.SECONDS);
        assertThat(control.show()).isPresent();
    }

    @Test
    void whereTheDesktopHasNoPlaceForItItEnds() throws Exception {
        area.comesAfter = Integer.MAX_VALUE;
        TrayProgram program = new TrayProgram(model, area, Duration.ofMillis(50), Duration.ofMillis(10));
        assertThat(run(program).get(20, TimeUnit.SECONDS)).isEqualTo(TrayProgram.Outcome.NO_AREA);
        assertThat(area.shown).isEmpty();
    }

    @Test
    void withoutADesktopNobodyWaitsForOne() throws Exception {
        area.comesAfter = Integer.MAX_VALUE;
        area.desktop = false;
        TrayProgram program = new TrayProgram(model, area, Duration.ofHours(1), Duration.ofMillis(10));
        assertThat(run(program).get(20, TimeUnit.SECONDS)).isEqualTo(TrayProgram.Outcome.NO_AREA);
    }

    @Test
    void switchedOnItIsStartedAtOnceAndWithEverySession() throws IOException {
        assertThat(started).containsExactly(List.of("/opt/mended-leaf", "--tray"));
        Path entry = temp.resolve("autostart/mended-leaf-tray.desktop");
        assertThat(Files.readString(entry)).contains("Exec=\"/opt/mended-leaf\" \"--tray\"\n");
        model.open();
        assertThat(started).last().isEqualTo(List.of("/opt/mended-leaf"));
        model.remove();
        assertThat(entry).doesNotExist();
    }

    @Test
    void theThreeStatesDifferByShapeWithoutTheirColours() {
        assertThat(differing(TrayModel.State.KEPT, TrayModel.State.STOPPED)).isGreaterThan(40);
        assertThat(differing(TrayModel.State.KEPT, TrayModel.State.TROUBLE)).isGreaterThan(40);
    }

    /** Pixels of 24 by 24 that differ by more than a third of the way from black to white, over a bright panel. */
    private static int differing(TrayModel.State one, TrayModel.State other) {
        int differ = 0;
        BufferedImage first = grey(one);
        BufferedImage second = grey(other);
        for (int at = 0; at < 24 * 24; at++) {
            int a = first.getRaster().getSample(at % 24, at / 24, 0);
            int b = second.getRaster().getSample(at % 24, at / 24, 0);
            differ += Math.abs(a - b) > 85 ? 1 : 0;
        }
        return differ;
    }

    private static BufferedImage grey(TrayModel.State state) {
        BufferedImage image = new BufferedImage(24, 24, BufferedImage.TYPE_BYTE_GRAY);
        java.awt.Graphics2D g = image.createGraphics();
        g.setColor(java.awt.Color.WHITE);
        g.fillRect(0, 0, 24, 24);
        TrayImage.draw(g, 24, state);
        g.dispose();
        return image;
    }
}
