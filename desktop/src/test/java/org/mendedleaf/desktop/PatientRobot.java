package org.mendedleaf.desktop;

import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.collections.ListChangeListener;
import javafx.event.EventHandler;
import javafx.event.EventType;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.input.InputEvent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.stage.Window;
import org.testfx.api.FxRobot;
import org.testfx.api.FxRobotInterface;
import org.testfx.robot.KeyboardRobot;
import org.testfx.robot.Motion;
import org.testfx.robot.MouseRobot;
import org.testfx.robot.TypeRobot;
import org.testfx.robot.impl.KeyboardRobotImpl;
import org.testfx.robot.impl.TypeRobotImpl;
import org.testfx.service.query.PointQuery;
import org.testfx.util.WaitForAsyncUtils;

/**
 * A hand that aims again when what it aimed at was drawn anew in that moment, as people do without noticing. Nothing was pressed by
 * then; a click that has begun is not repeated. It waits until the window has heard of what it did and has drawn what came of it, and
 * no longer, where the library waits for a number of milliseconds.
 */
public final class PatientRobot extends FxRobot {

    private static final int TRIES = 5;

    /** So long an event may be on its way. What is pressed may close the window that would have heard of the release. */
    private static final long ON_ITS_WAY_MILLIS = 60;

    /** More than there is between two pictures. */
    private static final long PICTURE_MILLIS = 18;

    private static final AtomicReference<EventType<? extends InputEvent>> AWAITED =
            new AtomicReference<>(InputEvent.ANY);
    private static final AtomicLong HEARD = new AtomicLong();
    private static final EventHandler<InputEvent> LISTENER = e -> {
        if (e.getEventType() == AWAITED.get()) {
            HEARD.incrementAndGet();
        }
    };
    private static boolean hearing;

    private final MouseRobot mouse = robotContext().getMouseRobot();
    private final KeyboardRobot keyboard = new PromptKeyboard();
    private final TypeRobot typing = new TypeRobotImpl(keyboard, robotContext().getSleepRobot());

    /** Waits until what was asked of the thread of the windows is done, and drawn. */
    public static void settle() {
        inTurn();
        pause(PICTURE_MILLIS);
        inTurn();
    }

    /** Waits until what was asked of the thread of the windows is done. */
    public static void inTurn() {
        if (Platform.isFxApplicationThread()) {
            throw new IllegalStateException("expected the thread of the test: this one cannot wait for itself");
        }
        CountDownLatch done = new CountDownLatch(1);
        Platform.runLater(done::countDown);
        try {
            if (!done.await(60, TimeUnit.SECONDS)) {
                throw new AssertionError("expected the window to be through with something within a minute");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /**
     * Asks on the thread of the windows, which alone may look at what is in them: who measures a text from another thread while it is
     * laid out breaks it, and all that is drawn after that.
     */
    public static <T> T onScreen(Callable<T> question) throws Exception {
        if (Platform.isFxApplicationThread()) {
            return question.call();
        }
        FutureTask<T> asked = new FutureTask<>(question);
        Platform.runLater(asked);
        try {
            return asked.get(60, TimeUnit.SECONDS);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof Exception why) {
                throw why;
            }
            throw e;
        }
    }

    private static Point2D where(PointQuery at) {
        try {
            return onScreen(at::query);
        } catch (RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    private static void pause(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Does something that a window is to hear of. */
    private static void heard(EventType<? extends InputEvent> type, Runnable action) {
        hear();
        AWAITED.set(type);
        long before = HEARD.get();
        action.run();
        long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(ON_ITS_WAY_MILLIS);
        while (HEARD.get() == before && System.nanoTime() < until) {
            pause(1);
        }
        settle();
    }

    /** Each window, and each that comes, is listened to, before anything in it takes an event for itself. */
    private static synchronized void hear() {
        if (hearing) {
            return;
        }
        hearing = true;
        WaitForAsyncUtils.waitForAsyncFx(10_000, () -> {
            Window.getWindows().forEach(w -> w.addEventFilter(InputEvent.ANY, LISTENER));
            Window.getWindows().addListener((ListChangeListener<Window>) c -> {
                while (c.next()) {
                    c.getAddedSubList().forEach(w -> w.addEventFilter(InputEvent.ANY, LISTENER));
                }
            });
        });
    }

    @Override
    public FxRobotInterface clickOn(String query, MouseButton... buttons) {
        return clickOnFound(() -> lookup(query).query(), buttons);
    }

    /** Clicks on what is found once all that was under way is drawn: a row of a list may have become that of another file by then. */
    public FxRobot clickOnFound(Supplier<? extends Node> found, MouseButton... buttons) {
        for (int i = 1; ; i++) {
            settle();
            Point2D at;
            try {
                at = onScreen(() -> point(found.get()).query());
            } catch (Exception e) {
                if (i == TRIES) {
                    throw e instanceof RuntimeException r ? r : new IllegalStateException(e);
                }
                continue;
            }
            clickAt(at, buttons);
            return this;
        }
    }

    @Override
    public FxRobot clickOn(PointQuery at, Motion motion, MouseButton... buttons) {
        // What was changed a moment ago may push aside what is aimed at when it is drawn.
        settle();
        clickAt(where(at), buttons);
        return this;
    }

    private void clickAt(Point2D at, MouseButton... buttons) {
        mouse.moveNoWait(at);
        heard(MouseEvent.MOUSE_PRESSED, () -> mouse.pressNoWait(buttons));
        heard(MouseEvent.MOUSE_RELEASED, () -> mouse.releaseNoWait(buttons));
    }

    @Override
    public FxRobot push(KeyCode... keys) {
        typing.push(keys);
        return this;
    }

    @Override
    public FxRobot push(KeyCodeCombination keys) {
        typing.push(keys);
        return this;
    }

    @Override
    public FxRobot interact(Runnable action) {
        if (Platform.isFxApplicationThread()) {
            action.run();
            return this;
        }
        WaitForAsyncUtils.waitFor(WaitForAsyncUtils.asyncFx(action));
        settle();
        return this;
    }

    private final class PromptKeyboard extends KeyboardRobotImpl {
        PromptKeyboard() {
            super(robotContext().getBaseRobot());
        }

        @Override
        public void press(KeyCode... keys) {
            for (KeyCode key : keys) {
                heard(KeyEvent.KEY_PRESSED, () -> pressNoWait(key));
            }
        }

        @Override
        public void release(KeyCode... keys) {
            heard(KeyEvent.KEY_RELEASED, () -> releaseNoWait(keys));
        }
    }
}
