package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.desktop.context.AppContext;

/** Whether files are kept when no window is open, and the switch for it. */
final class ServiceModel {

    /** How the background service stands. */
    enum State {
        /** Not asked yet. */
        UNKNOWN,
        /** It runs now, and with every session. */
        ALWAYS,
        /** It runs now, until the session ends. */
        FOR_NOW,
        /** It is to run with every session, and does not. */
        DOWN,
        /** There is none: the window does it. */
        NONE
    }

    /** How the service is reached; in tests another than that of the platform. */
    interface Opening extends Callable<ServiceControl> {
        @Override
        ServiceControl call() throws IOException;
    }

    private final AppContext context;
    private final Opening opening;
    private final Consumer<String> failed;
    private final ReadOnlyObjectWrapper<State> state = new ReadOnlyObjectWrapper<>(State.UNKNOWN);

    /**
     * Over the service of the settings that are open.
     *
     * @param failed told in words what went wrong
     */
    ServiceModel(AppContext context, Opening opening, Consumer<String> failed) {
        this.context = context;
        this.opening = opening;
        this.failed = failed;
    }

    ReadOnlyObjectProperty<State> stateProperty() {
        return state.getReadOnlyProperty();
    }

    /** Asks how it stands. */
    void load() {
        run(control -> {});
    }

    /** Has it run always, and leaves to it what this window does. */
    void install() {
        run(control -> {
            control.install();
            context.leaveToService();
        });
    }

    /** Has it run no more; the window takes over. */
    void remove() {
        run(ServiceControl::remove);
    }

    private interface Step {
        void with(ServiceControl control) throws IOException;
    }

    private void run(Step step) {
        context.background()
                .run(
                        () -> {
                            ServiceControl control = opening.call();
                            step.with(control);
                            return state(control);
                        },
                        this::show,
                        why -> {
                            failed.accept(Failures.named(why));
                            load(why);
                        });
    }

    /** How it stands after something went wrong, told once. */
    private void load(Exception after) {
        context.background().run(() -> state(opening.call()), this::show, why -> after.addSuppressed(why));
    }

    /** Also what stays as it was is told, so that what waited for the answer goes on. */
    private void show(State now) {
        state.set(State.UNKNOWN);
        state.set(now);
    }

    private static State state(ServiceControl control) {
        boolean runs = control.running().isPresent();
        if (control.isInstalled()) {
            return runs ? State.ALWAYS : State.DOWN;
        }
        return runs ? State.FOR_NOW : State.NONE;
    }
}
