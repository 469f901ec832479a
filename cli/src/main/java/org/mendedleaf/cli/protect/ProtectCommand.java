package org.mendedleaf.cli.protect;

import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcomes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.disk.Access;
import org.mendedleaf.core.disk.NetworkDrive;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.retention.UsualRules;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Takes a folder under protection and captures it for the first time. */
@Command(name = "protect", description = "${bundle:cli.protect}")
public final class ProtectCommand extends Base {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.protect.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Mixin
    private final FolderOptions options = new FolderOptions();

    @Option(names = "--access", paramLabel = "owner|group", descriptionKey = "cli.protect.access")
    @Nullable
    Access access;

    @Option(names = "--keep", paramLabel = "everything|long|short", descriptionKey = "cli.protect.keep")
    @Nullable
    String keep;

    public ProtectCommand(Surroundings surroundings) {
        super(surroundings);
    }

    private UsualRules rules() {
        String typed = keep;
        if (typed == null) {
            return UsualRules.EVERYTHING;
        }
        try {
            return UsualRules.valueOf(typed.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(Words.of("cli.protect.badKeep", typed), e);
        }
    }

    @Override
    public Integer call() throws Exception {
        UsualRules rules = rules();
        Path vaultFolder = Protect.realOfNew(vaults().get(0));
        PlaceChange change = options.change(Optional.empty());
        Path root = Protect.check(folder, vaultFolder, options.exclude);
        try (OpenVault open = openOrCreate(vaultFolder, access)) {
            Place place = Protect.place(open, root, change, clock(), who());
            settings().addVault(open.folder().root());
            if (place.versioning() != Versioning.ON) {
                Protect.versioning(open, place, Versioning.ON, clock(), who());
                place = place.with(Versioning.ON);
                say("cli.protect.again", root);
            }
            rules.set(open, place, clock(), who());
            CaptureResult result;
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                result = new Capture(open, place, clock(), authors()).run(CaptureScope.WHOLE, progress);
            }
            if (json) {
                printJson(Map.of(
                        "folder", root.toString(),
                        "vault", vaultFolder.toString(),
                        "every", place.rhythm().text(),
                        "excluded", place.exclusions(),
                        "capture", Outcomes.json(result)));
            } else {
                say("cli.protect.done", root, vaultFolder);
                if (open.folder().access() == Access.GROUP) {
                    say("cli.protect.shared", vaultFolder);
                }
                say(
                        "cli.protect.settings",
                        place.rhythm().longWords(),
                        place.exclusions().isEmpty()
                                ? Words.of("cli.protect.nothingOut")
                                : String.join(", ", place.exclusions()));
                if (NetworkDrive.holds(root) && place.rhythm().kind() == Rhythm.Kind.ON_SAVE) {
                    say("protect.network");
                }
                if (keep != null) {
                    line(rules.sentence());
                }
                Outcomes.print(this, place, result);
            }
            return result.troubles().isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
    }
}
