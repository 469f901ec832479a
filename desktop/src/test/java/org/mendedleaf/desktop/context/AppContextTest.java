package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.shell.ModelTest;

/** A desk over a folder with some past, without a window: yesterday some files, today other ones. */
public abstract class AppContextTest extends ModelTest {

    protected final Instant then = Instant.now().minus(Duration.ofHours(30));
    protected final Instant later = then.plus(Duration.ofHours(10));
    protected Path folder;
    protected AppContext context;
    protected OpenPlace openPlace;

    @BeforeEach
    void open() throws Exception {
        folder = Files.createDirectory(temp.resolve("papers")).toRealPath();
        UserSettings home = UserSettings.open(temp.resolve("home"));
        home.who("Ines");
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place =
                    Protect.place(vault, folder, Rhythm.BY_HAND, List.of(), Clock.fixed(then, ZoneOffset.UTC), "Ines");
            save("ledger.csv", "kind,kilos\nKaty,412\n", then);
            save("sub/plan.txt", "the plan", then);
            save("sub/deep/note.txt", "a note", then);
            capture(vault, place, then);
            save("ledger.csv", "saved over by a letter", later);
            save("sub/new.txt", "came later", later);
            Files.delete(folder.resolve("sub/deep/note.txt"));
            capture(vault, place, later.plusSeconds(5));
            home.addVault(vault.folder().root());
        }
        context = new AppContext(home, Clock.system(ZoneOffset.UTC), screen::add);
        boolean[] ready = {false};
        context.open(() -> ready[0] = true);
        until(() -> ready[0]);
        openPlace = context.places().get(0);
    }

    @AfterEach
    void close() {
        context.close();
    }

    protected void save(String name, String text, Instant at) throws IOException {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(at));
    }

    private static void capture(OpenVault vault, Place place, Instant when) throws IOException {
        new Capture(vault, place, Clock.fixed(when, ZoneOffset.UTC), (p, o) -> "Tomas")
                .run(CaptureScope.WHOLE, Progress.NONE);
    }

    /** A moment between the two captures. */
    protected Instant between() {
        return then.plus(Duration.ofHours(2));
    }
}
