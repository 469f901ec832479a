package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
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
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Versions that rules let go, whose grace ends soon, and whose content nothing else holds: no other version that stays, and no
 * other system. What somebody erased himself is not among them: he was told.
 *
 * @param versions how many
 * @param files of how many files
 * @param first when the first of them goes
 * @param roughly whether there are so many that of the later ones nobody looked who else holds their content
 */
public record GoingSoon(int versions, int files, Instant first, boolean roughly) {

    /** So long before they go. */
    public static final Duration SOON = Duration.ofDays(3);

    /** Of so many it is looked who else holds their content. */
    private static final int LOOKED_MOST = 5_000;

    /** Looks for them; empty when there are none. */
    public static Optional<GoingSoon> of(Reading reading, Instant now) throws IOException {
        return of(reading, now, LOOKED_MOST);
    }

    static Optional<GoingSoon> of(Reading reading, Instant now, int most) throws IOException {
        Instant until = TrustedTime.of(reading, now).plus(SOON);
        PendingDeletionStore store = PendingDeletionStore.of(reading);
        int versions = 0;
        Set<Long> lines = new HashSet<>();
        Instant first = Instant.MAX;
        List<PendingDeletion> soon = store.dueByRule(until, most + 1);
        if (soon.size() > most) {
            PendingDeletionStore.Sum all = store.sumByRule(until);
            return Optional.of(
                    new GoingSoon(all.versions(), all.files(), soon.get(0).due(), true));
        }
        for (PendingDeletion l : soon) {
            Optional<Version> version = reading.version(l.line(), l.number());
            if (version.isPresent() && !stays(reading, store, version.get())) {
                versions++;
                lines.add(l.line());
                first = l.due().isBefore(first) ? l.due() : first;
            }
        }
        return versions == 0 ? Optional.empty() : Optional.of(new GoingSoon(versions, lines.size(), first, false));
    }

    /** As one sentence. */
    public String words(Instant now, ZoneId zone) {
        return Words.of(
                roughly ? "concern.goingMany" : "concern.going", versions, files, Formats.coming(first, now, zone));
    }

    /** Whether something that is not let go has the same content. */
    private static boolean stays(Reading reading, PendingDeletionStore store, Version version) throws IOException {
        if (version.recipe().isElsewhere()) {
            return true;
        }
        for (Version other : reading.content().versions(version.digest())) {
            if (!store.isWaiting(other.line(), other.number())) {
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
