package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;

/**
 * Versions that rules let go, whose grace ends soon, and whose content nothing else holds: no other version that stays, and no
 * other system. What somebody erased himself is not among them: he was told.
 *
 * @param versions how many
 * @param files of how many files
 * @param first when the first of them goes
 */
public record GoingSoon(int versions, int files, Instant first) {

    /** So long before they go. */
    public static final Duration SOON = Duration.ofDays(3);

    /** Looks for them; empty when there are none. */
    public static Optional<GoingSoon> of(Reading reading, Instant now) throws IOException {
        Instant until = TrustedTime.of(reading, now).plus(SOON);
        List<PendingDeletion> waiting = PendingDeletionStore.of(reading).waiting();
        Set<String> all = new HashSet<>();
        waiting.forEach(l -> all.add(l.line() + "/" + l.number()));
        int versions = 0;
        Set<Long> lines = new HashSet<>();
        Instant first = Instant.MAX;
        for (PendingDeletion l : waiting) {
            if (l.rule().isEmpty() || l.due().isAfter(until)) {
                continue;
            }
            Optional<Version> version = reading.version(l.line(), l.number());
            if (version.isPresent() && !stays(reading, version.get(), all)) {
                versions++;
                lines.add(l.line());
                first = l.due().isBefore(first) ? l.due() : first;
            }
        }
        return versions == 0 ? Optional.empty() : Optional.of(new GoingSoon(versions, lines.size(), first));
    }

    /** Whether something that is not let go has the same content. */
    private static boolean stays(Reading reading, Version version, Set<String> waiting) throws IOException {
        if (version.recipe().isElsewhere()) {
            return true;
        }
        for (Version other : reading.content().versions(version.digest())) {
            if (!waiting.contains(other.line() + "/" + other.number())) {
                return true;
            }
        }
        // Other systems are known by the plain digest of what they hold.
        Digest plain = version.sha256().isPresent()
                ? version.sha256().get()
                : reading.contents().sha256(version.recipe());
        return !reading.content().versions(plain).isEmpty();
    }
}
