package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.desktop.context.AppContext;

/** Whether an icon in the system tray says that files are kept, and the switch for it. */
final class TraySwitchModel {

    /** How the tray icon is reached; in tests another than that of the platform. */
    interface Opening extends Callable<TrayControl> {
        @Override
        TrayControl call() throws IOException;
    }

    private final AppContext context;
    private final Opening opening;
    private final Consumer<String> failed;
    private final ReadOnlyBooleanWrapper on = new ReadOnlyBooleanWrapper();

    /**
     * Over the tray icon of the settings that are open.
     *
     * @param failed told what went wrong
     */
    TraySwitchModel(AppContext context, Opening opening, Consumer<String> failed) {
        this.context = context;
        this.opening = opening;
        this.failed = failed;
    }

    /** Whether it is shown with every session. */
    ReadOnlyBooleanProperty onProperty() {
        return on.getReadOnlyProperty();
    }

    /** Asks whether it is. */
    void load() {
        run(() -> opening.call().isInstalled(), on.get());
    }

    /** Has it shown now and with every session, or shown no more. */
    void set(boolean wanted) {
        boolean before = on.get();
        run(
                () -> {
                    TrayControl control = opening.call();
                    if (wanted) {
                        control.install();
                    } else {
                        control.remove();
                    }
                    return control.isInstalled();
                },
                before);
    }

    private void run(Callable<Boolean> step, boolean before) {
        context.background().run(step, this::show, why -> {
            failed.accept(Failures.named(why));
            show(before);
        });
    }

    /** Also what stays as it was is told: the box that was ticked has to show it again. */
    private void show(boolean now) {
        on.set(!now);
        on.set(now);
    }
}
