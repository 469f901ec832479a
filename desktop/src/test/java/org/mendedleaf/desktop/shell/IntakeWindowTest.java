package org.mendedleaf.desktop.shell;

import static org.mendedleaf.desktop.intake.IntakeModelsTest.words;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.files.LineRow;

/** An office into which revisions are put in the real window, and a folder with what was downloaded. */
abstract class IntakeWindowTest extends WindowTest {

    Path downloads;

    void office() throws Exception {
        Instant day = Instant.now().minus(Duration.ofDays(3));
        save("lease.txt", words(1, 20), day);
        save("rota.txt", words(2, 20), day);
        save("plan v1.txt", words(3, 20), day.minusSeconds(500));
        save("plan v2 FINAL.txt", words(3, 20) + "two", day);
        save("lease.txt.bak", words(1, 20) + "kept by a program", day);
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), at(day), "Ines");
            capture(vault, place, day);
        }
        downloads = Files.createDirectories(temp.resolve("downloads"));
        UserSettings settings = UserSettings.open(home);
        settings.addVault(temp.resolve("vault").toRealPath());
        settings.who("Ines");
        settings.arrivals(List.of(downloads));
        settings.address("Tomas", "tomas@orchard.example");
        show();
        eventually("the files", () -> rows().size() == 5);
    }

    void paste(Path... files) {
        robot.interact(() -> {
            ClipboardContent content = new ClipboardContent();
            content.putFiles(java.util.Arrays.stream(files).map(Path::toFile).toList());
            Clipboard.getSystemClipboard().setContent(content);
        });
        robot.push(KeyCode.CONTROL, KeyCode.V);
    }

    LineRow.OfVersion newest() {
        return (LineRow.OfVersion) points().get(0);
    }
}
