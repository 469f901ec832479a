package org.mendedleaf.cli.revise;

import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.FileProperties;
import picocli.CommandLine.Option;

/** What is said of a file beside its content: its category, and who sees it. */
final class CardOptions {

    @Option(names = "--category", paramLabel = "TEXT", descriptionKey = "cli.put.category")
    @Nullable
    String category;

    @Option(names = "--visible", paramLabel = "everybody|editors|owner", descriptionKey = "cli.put.visible")
    @Nullable
    String visible;

    /** Whether anything was said. */
    boolean isGiven() {
        return category != null || visible != null;
    }

    /**
     * Says now what could not be carried out later.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    void check() {
        String seen = visible;
        if (seen != null) {
            Intakes.visibility(seen);
        }
    }

    /** These properties, with what was said in their place. */
    FileProperties of(FileProperties before) {
        String under = category;
        String seen = visible;
        return new FileProperties(
                under == null ? before.category() : under,
                seen == null ? before.visibility() : Intakes.visibility(seen));
    }
}
