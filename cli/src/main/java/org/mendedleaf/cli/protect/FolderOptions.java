package org.mendedleaf.cli.protect;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Option;

/** How a folder is kept, as it is typed where it is protected and where that is changed. */
final class FolderOptions {

    @Option(names = "--every", paramLabel = "save|MINUTES|daily|weekly|hand", descriptionKey = "cli.protect.every")
    @Nullable
    String every;

    @Option(names = "--at", paramLabel = "TIME", descriptionKey = "cli.protect.at")
    @Nullable
    String at;

    @Option(names = "--exclude", paramLabel = "PATTERN", descriptionKey = "cli.protect.exclude")
    List<String> exclude = new ArrayList<>();

    @Option(names = "--include", paramLabel = "PATTERN", descriptionKey = "cli.protect.include")
    List<String> include = new ArrayList<>();

    /**
     * What was typed.
     *
     * @param before the rhythm that the folder has; empty for a new one
     * @throws IllegalArgumentException with a message for the user
     */
    PlaceChange change(Optional<Rhythm> before) {
        return new PlaceChange(rhythm(before), exclude, include);
    }

    /**
     * The rhythm that was typed; null when none was.
     *
     * @param before of which a time alone changes the time
     * @throws IllegalArgumentException with a message for the user
     */
    private @Nullable Rhythm rhythm(Optional<Rhythm> before) {
        if (at == null) {
            return every == null ? null : Rhythm.parse(every);
        }
        if (at.isBlank()) {
            throw new IllegalArgumentException(Words.of("rhythm.time", at));
        }
        Rhythm rhythm = every == null ? before.orElse(Rhythm.BY_HAND) : Rhythm.parse(every);
        return switch (rhythm.kind()) {
            case DAILY -> Rhythm.parse("daily " + at);
            case WEEKLY -> {
                boolean hasDay = Character.isLetter(
                        at.strip().isEmpty() ? ' ' : at.strip().charAt(0));
                String day = rhythm.text().split(" ")[1];
                yield Rhythm.parse(hasDay ? "weekly " + at : "weekly " + day + " " + at);
            }
            default -> throw new IllegalArgumentException(Words.of("rhythm.noTime"));
        };
    }
}
