package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.Scope;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Takes a folder under protection and captures it for the first time. */
@Command(name = "protect", description = "${bundle:cli.protect}", mixinStandardHelpOptions = true)
final class ProtectCommand extends Base {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.protect.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--exclude", paramLabel = "PATTERN", descriptionKey = "cli.protect.exclude")
    List<String> exclude = new ArrayList<>();

    @Option(names = "--every", paramLabel = "save|MINUTES|hand", descriptionKey = "cli.protect.every")
    @Nullable
    String every;

    ProtectCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path vaultFolder = Protect.realOfNew(vaults().get(0));
        Rhythm rhythm = every == null ? Rhythm.ON_SAVE : Rhythm.parse(every);
        Path root = Protect.check(folder, vaultFolder, exclude);
        try (OpenVault open = openOrCreate(vaultFolder)) {
            Place place = Protect.place(open, root, rhythm, exclude, clock());
            home().addVault(open.folder().root());
            CaptureResult result;
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                result = new Capture(open, place, clock(), authors()).run(Scope.WHOLE, progress);
            }
            if (json) {
                printJson(Map.of(
                        "folder", root.toString(),
                        "vault", vaultFolder.toString(),
                        "capture", Outcomes.json(result)));
            } else {
                say("cli.protect.done", root, vaultFolder);
                Outcomes.print(this, place, result);
            }
            return result.troubles().isEmpty() ? Main.DONE : Main.SOME_FAILED;
        }
    }
}
