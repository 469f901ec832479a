package org.mendedleaf.core.systems;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Version;

/**
 * A point of a merged line.
 *
 * @param line on which it is
 * @param point the version or event
 * @param copies all who hold its content, nearest first; empty for an event, and for a version that everybody forgot
 */
public record MergedPoint(Line line, LinePoint point, List<Copy> copies) {

    /** Closer than this a forgetting is worth a word. */
    private static final Duration SOON = Duration.ofDays(14);

    /** Copies the list. */
    public MergedPoint {
        copies = List.copyOf(copies);
    }

    /**
     * A copy of a content.
     *
     * @param holder who holds it
     * @param line the line on which that holder has it
     * @param version the version of that line
     */
    public record Copy(Holder holder, Line line, Version version) {}

    /** The version, if it is one. */
    public Optional<Version> version() {
        return point instanceof Version v ? Optional.of(v) : Optional.empty();
    }

    /** Whether the vault holds the content. */
    public boolean inVault() {
        return copies.stream().anyMatch(c -> c.holder().kind() == Holder.Kind.VAULT);
    }

    /** A version with the same content that the vault can read: this one, or that of another line. */
    public Optional<Version> readable() {
        return version()
                .filter(v -> !v.recipe().isElsewhere())
                .or(() -> copies.stream()
                        .filter(c -> c.holder().kind() == Holder.Kind.VAULT)
                        .map(Copy::version)
                        .findFirst());
    }

    /** What the system of this line calls the version, when that is not its number. */
    public String label() {
        return copies.stream()
                .filter(c -> c.line().id() == line.id() && c.holder().kind() == Holder.Kind.POINT)
                .filter(c -> version()
                        .filter(v -> v.number() == c.version().number())
                        .isPresent())
                .map(c -> c.holder().label())
                .filter(l -> !l.isEmpty()
                        && !l.equals(
                                version().map(v -> Integer.toString(v.number())).orElse("")))
                .findFirst()
                .orElse("");
    }

    /** Who holds the content, each once: the vault, and places in other systems. */
    public List<String> holders(String vaultName) {
        return copies.stream()
                .map(c -> c.holder().kind() == Holder.Kind.VAULT
                        ? vaultName
                        : c.holder().place().where())
                .distinct()
                .toList();
    }

    /** Whether exactly one system holds the content. */
    public boolean onlyOne() {
        return holders("").size() == 1;
    }

    /** When the last who holds it forgets it by its own rules; empty when somebody keeps it. */
    public Optional<Instant> forgottenAt() {
        if (copies.isEmpty()
                || copies.stream().anyMatch(c -> c.holder().expires().isEmpty())) {
            return Optional.empty();
        }
        return copies.stream().flatMap(c -> c.holder().expires().stream()).max(Instant::compareTo);
    }

    /** Whether it will be forgotten by all before long. */
    public boolean forgottenSoon(Instant now) {
        return forgottenAt().filter(at -> at.isBefore(now.plus(SOON))).isPresent();
    }
}
