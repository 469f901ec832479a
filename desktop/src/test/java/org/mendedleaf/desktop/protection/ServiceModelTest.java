package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.service.WatchLock;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.protection.ServiceModel.State;

/** The switch for the background service, and what the window leaves to another program. */
class ServiceModelTest extends AppContextTest {

    private final ServiceControl control = mock(ServiceControl.class);
    private final AtomicReference<String> failed = new AtomicReference<>("");

    private ServiceModel model() {
        return new ServiceModel(context, () -> control, failed::set);
    }

    private void stands(boolean installed, boolean runs) {
        when(control.isInstalled()).thenReturn(installed);
        when(control.running())
                .thenReturn(
                        runs ? Optional.of(new ServiceControl.Running(1, Instant.EPOCH, Map.of())) : Optional.empty());
    }

    private State loaded(boolean installed, boolean runs) throws Exception {
        stands(installed, runs);
        ServiceModel model = model();
        model.load();
        until(() -> model.stateProperty().get() != State.UNKNOWN);
        return model.stateProperty().get();
    }

    @Test
    void itSaysWhetherFilesAreKeptWhenTheWindowIsClosed() throws Exception {
        assertThat(loaded(true, true)).isEqualTo(State.ALWAYS);
        assertThat(loaded(false, true)).isEqualTo(State.FOR_NOW);
        assertThat(loaded(true, false)).isEqualTo(State.DOWN);
        assertThat(loaded(false, false)).isEqualTo(State.NONE);
    }

    @Test
    void switchedOnTheWindowLeavesTheVaultAndTakesItAgainWhenNobodyHasIt() throws Exception {
        Path root = openPlace.vault().folder().root();
        until(() -> WatchLock.take(openPlace.vault().folder())
                .map(ServiceModelTest::given)
                .isEmpty());
        stands(false, false);
        ServiceModel model = model();
        when(control.install()).thenAnswer(i -> {
            stands(true, true);
            return null;
        });
        model.install();
        until(() -> model.stateProperty().get() == State.ALWAYS);
        verify(control).install();
        until(() -> context.keptByOthersProperty().get());

        Optional<WatchLock> service = WatchLock.take(openPlace.vault().folder());
        assertThat(service).as("the window left " + root).isPresent();
        service.orElseThrow().close();
        until(() -> !context.keptByOthersProperty().get());
        assertThat(WatchLock.take(openPlace.vault().folder()))
                .as("the window has it again")
                .isEmpty();
    }

    private static WatchLock given(WatchLock lock) {
        try {
            lock.close();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
        return lock;
    }

    @Test
    void whatGoesWrongIsSaidAndTheSwitchStaysAsItIs() throws Exception {
        stands(false, false);
        doThrow(new IOException("It did not answer.")).when(control).install();
        ServiceModel model = model();
        model.install();
        until(() -> model.stateProperty().get() == State.NONE);
        assertThat(failed.get()).isEqualTo("It did not answer.");
    }
}
