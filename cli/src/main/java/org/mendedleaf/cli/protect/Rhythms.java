package org.mendedleaf.cli.protect;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.words.Words;

/** How often, as it was typed in {@code --every} and {@code --at}. */
final class Rhythms {

    private Rhythms() {}

    /**
     * What was typed; null when nothing was.
     *
     * @param before of which a time alone changes the time
     * @throws IllegalArgumentException with a message for the user
     */
    static @Nullable Rhythm typed(@Nullable String every, @Nullable String at, Optional<Rhythm> before) {
        if (at == null) {
            return every == null ? null : Rhythm.parse(every);
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
