package org.mendedleaf.desktop.tray;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.mendedleaf.core.service.Programs;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The tray icon as a program: it is there until it is switched off, or the session ends. */
public final class TrayProgram {

    private static final Logger log = LoggerFactory.getLogger(TrayProgram.class);

    /** How it went. */
    enum Outcome {
        /** Shown, and then switched off. */
        ENDED,
        /** Another one of this user is shown. */
        ALREADY,
        /** The desktop has no place for it. */
        NO_AREA
    }

    /** How long it is waited for the desktop to show its status area, after the session was started. */
    private static final Duration COMES = Duration.ofSeconds(60);

    /** How often the switch is read, which is a question for one file. */
    private static final Duration STEP = Duration.ofSeconds(3);

    /** The service is asked each so many steps. */
    private static final int ASK_EVERY = 5;

    private final TrayModel model;
    private final StatusArea area;
    private final Duration comes;
    private final Duration step;
    private final Semaphore asked = new Semaphore(0);

    TrayProgram(TrayModel model, StatusArea area, Duration comes, Duration step) {
        this.model = model;
        this.area = area;
        this.comes = comes;
        this.step = step;
    }

    /** Shows it, and ends when it is switched off; says so on a terminal where it cannot be shown. */
    public static void main(String[] arguments) throws Exception {
        Map<String, String> environment = System.getenv();
        UserSettings settings = UserSettings.of(environment);
        Words.use(settings.language());
        Path folder = settings.folder();
        TrayControl control = TrayControl.here(folder, environment);
        TrayModel model =
                new TrayModel(ServiceControl.here(folder, environment), control, Programs::spawn, Programs.window());
        AwtStatusArea area = new AwtStatusArea(model);
        TrayProgram program = new TrayProgram(model, area, COMES, STEP);
        area.whenChanged(program::ask);
        Outcome outcome = program.run(control);
        if (outcome == Outcome.NO_AREA) {
            System.err.println(Words.of("tray.noArea"));
        }
        System.exit(outcome == Outcome.NO_AREA ? 1 : 0);
    }

    /** Runs until it is switched off. */
    Outcome run(TrayControl control) throws IOException, InterruptedException {
        Optional<TrayControl.Shown> shown = control.show();
        if (shown.isEmpty()) {
            return Outcome.ALREADY;
        }
        try (TrayControl.Shown held = shown.get()) {
            log.debug("the tray icon is {}", held);
            if (!isThere()) {
                return Outcome.NO_AREA;
            }
            stay();
            return Outcome.ENDED;
        } finally {
            area.close();
        }
    }

    private boolean isThere() throws InterruptedException {
        long until = System.nanoTime() + comes.toNanos();
        while (!area.isThere()) {
            if (!area.mayCome() || System.nanoTime() >= until) {
                return false;
            }
            pause();
        }
        return true;
    }

    private void stay() throws InterruptedException {
        // One that was started by hand has no switch, and stays until it is ended by hand.
        boolean switchedOn = model.isWanted();
        TrayModel.View last = null;
        int steps = 0;
        boolean wanted = true;
        while (!switchedOn || model.isWanted()) {
            switchedOn |= model.isWanted();
            if (wanted || ++steps % ASK_EVERY == 0) {
                TrayModel.View view = model.view();
                if (!view.equals(last)) {
                    area.show(view);
                    last = view;
                }
            }
            wanted = pause();
        }
    }

    /** Has it ask at once how the service stands, from any thread. */
    void ask() {
        asked.release();
    }

    /** Waits for the next step; whether it was asked to look meanwhile. */
    private boolean pause() throws InterruptedException {
        boolean wanted = asked.tryAcquire(step.toMillis(), TimeUnit.MILLISECONDS);
        asked.drainPermits();
        return wanted;
    }
}
