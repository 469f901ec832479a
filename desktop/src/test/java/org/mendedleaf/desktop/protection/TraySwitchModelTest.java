package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.desktop.context.AppContextTest;

/** The switch for the tray icon. */
class TraySwitchModelTest extends AppContextTest {

    private final TrayControl control = mock(TrayControl.class);
    private final AtomicReference<String> failed = new AtomicReference<>("");

    private TraySwitchModel model() {
        return new TraySwitchModel(context, () -> control, failed::set);
    }

    @Test
    void itShowsHowItStandsAndWhatWasSet() throws Exception {
        when(control.isInstalled()).thenReturn(true);
        TraySwitchModel model = model();
        model.load();
        until(() -> model.onProperty().get());
        when(control.isInstalled()).thenReturn(false);
        model.set(false);
        until(() -> !model.onProperty().get());
        org.mockito.Mockito.verify(control).remove();
    }

    @Test
    void whenItCannotBeSetThatIsSaidAndTheBoxShowsAgainWhatIs() throws Exception {
        doThrow(new IOException("The folder cannot be written.")).when(control).install();
        TraySwitchModel model = model();
        List<Boolean> told = new ArrayList<>();
        model.onProperty().addListener((o, a, now) -> told.add(now));
        model.set(true);
        until(() -> told.size() >= 2);
        assertThat(told).last().isEqualTo(false);
        assertThat(failed.get()).isEqualTo("The folder cannot be written.");
    }
}
