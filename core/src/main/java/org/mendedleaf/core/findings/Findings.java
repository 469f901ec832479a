package org.mendedleaf.core.findings;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.DecisionStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Decision;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Rights;
import org.mendedleaf.core.words.Words;

/**
 * What looks wrong in a vault, what people decided about it, and mending it.
 *
 * <pre>{@code
 * Findings findings = new Findings(vault, "Ada");
 * for (Findings.Listed listed : findings.open()) {
 *     findings.mend(listed, work, now, Progress.NONE);
 * }
 * }</pre>
 */
public final class Findings {

    /** What happened longer ago does not keep anything from being let go any more. */
    private static final Duration PAUSES = Duration.ofDays(30);

    private final OpenVault vault;
    private final String who;

    /**
     * Findings of this vault.
     *
     * @param who asks; files that may not be seen by this person are left out
     */
    public Findings(OpenVault vault, String who) {
        this.vault = vault;
        this.who = who;
    }

    /** How a finding stands. */
    public enum State {
        /** Somebody should see to it. */
        OPEN,
        /** It was mended. */
        MENDED,
        /** Somebody said that nothing has to be done. */
        DISMISSED,
        /** Somebody said that this is fine here. */
        FINE,
        /** What it says is no longer so. */
        CLOSED
    }

    /**
     * A finding as it stands.
     *
     * @param id of it, the same for everybody
     * @param decision what somebody decided about it
     * @param fine by which it is fine
     */
    public record Listed(
            String id,
            Place place,
            Found found,
            State state,
            Optional<Decision> decision,
            Optional<Decision.Fine> fine) {}

    /** All findings, the latest first. */
    public List<Listed> all() throws IOException {
        List<Listed> all = new ArrayList<>();
        Optional<HealthStore> there = HealthStore.openIfThere(vault.folder());
        if (there.isEmpty()) {
            return all;
        }
        try (HealthStore store = there.get();
                Reading reading = vault.read()) {
            for (Place place : reading.places()) {
                DecisionStore decisions = DecisionStore.of(reading);
                Map<String, Decision> byFinding = new HashMap<>();
                decisions.decisions(place).forEach(d -> byFinding.put(d.finding(), d));
                List<Decision.Fine> fine = decisions.fine(place);
                Rights rights = PlaceRules.of(reading, place).rights(who, place);
                RemarkStore remarks = RemarkStore.of(reading);
                for (Found whole : store.found(place.id())) {
                    String id = whole.finding().id();
                    Found found =
                            whole.only(line -> rights.sees(remarks.card(line).visibility()));
                    if (!found.files().isEmpty()) {
                        all.add(listed(id, place, found, byFinding.get(id), fine));
                    }
                }
            }
        }
        all.sort(Comparator.comparing((Listed l) -> l.found().finding().to()).reversed());
        return all;
    }

    /** What somebody should see to, the latest first. */
    public List<Listed> open() throws IOException {
        return all().stream().filter(l -> l.state() == State.OPEN).toList();
    }

    private static Listed listed(
            String id, Place place, Found found, @Nullable Decision decision, Collection<Decision.Fine> fine) {
        Optional<Decision.Fine> by = fine.stream()
                .filter(f -> f.kind().equals(found.finding().kind().name()))
                .filter(f -> f.line() == 0 || found.finding().marks().stream().allMatch(m -> m.line() == f.line()))
                .findFirst();
        boolean dismissed = decision != null && decision.what() == Decision.What.DISMISSED;
        boolean mended = decision != null && decision.what() == Decision.What.MENDED;
        State state = dismissed
                ? State.DISMISSED
                : found.isOpen() ? by.isPresent() ? State.FINE : State.OPEN : mended ? State.MENDED : State.CLOSED;
        return new Listed(id, place, found, state, Optional.ofNullable(decision), by);
    }

    /**
     * What keeps anything from being let go by rules until somebody has decided: harm to many files at once, lately.
     */
    public Optional<Listed> pausing(Instant now) throws IOException {
        return open().stream()
                .filter(l -> {
                    Finding f = l.found().finding();
                    boolean many = f.kind() == Finding.Kind.BURST
                            || f.kind() == Finding.Kind.ALIKE
                            || f.kind() == Finding.Kind.REMOVED;
                    return many && f.sure() != Finding.Certainty.POSSIBLE && f.to().isAfter(now.minus(PAUSES));
                })
                .findFirst();
    }

    /**
     * A finding by the beginning of its id.
     *
     * @throws IllegalArgumentException with a message for the user, when there is none, or several
     */
    public Listed get(String id) throws IOException {
        List<Listed> found = all().stream()
                .filter(l -> !id.isBlank() && l.id().startsWith(id.strip().toLowerCase(java.util.Locale.ROOT)))
                .toList();
        if (found.size() != 1) {
            throw new IllegalArgumentException(Words.of(found.isEmpty() ? "findings.unknown" : "findings.several", id));
        }
        return found.get(0);
    }

    /** When the folders of the vault were last looked at, the longest ago; empty when one never was. */
    public Optional<Instant> looked() throws IOException {
        Optional<HealthStore> there = HealthStore.openIfThere(vault.folder());
        if (there.isEmpty()) {
            return Optional.empty();
        }
        try (HealthStore store = there.get();
                Reading reading = vault.read()) {
            Instant oldest = Instant.MAX;
            for (Place place : reading.places()) {
                if (!place.isOutside()) {
                    Optional<Instant> at = store.looked(place.id());
                    if (at.isEmpty()) {
                        return Optional.empty();
                    }
                    oldest = at.get().isBefore(oldest) ? at.get() : oldest;
                }
            }
            return oldest.equals(Instant.MAX) ? Optional.empty() : Optional.of(oldest);
        }
    }

    /** What has to be restored to mend it: each file that is as the finding says, to its last good version. */
    public RestoreRequest request(Listed listed) throws IOException {
        List<RestoreItem> requested = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (Found.OfFile file : listed.found().files()) {
                if (file.fate() != Found.Fate.TO_MEND) {
                    continue;
                }
                Line line = reading.line(file.mark().line()).orElseThrow();
                Optional<Version> good = line.version(file.mark().good());
                if (good.isEmpty()) {
                    continue;
                }
                boolean elsewhere = line.removed().isEmpty()
                        && !line.path().equals(file.mark().goodPath());
                // A file that somebody moved meanwhile stays where he put it.
                boolean renamedByHarm = listed.found().finding().kind() == Finding.Kind.ALIKE
                        || line.path().equals(file.mark().path());
                String target =
                        elsewhere && !renamedByHarm ? line.path() : file.mark().goodPath();
                requested.add(new RestoreItem(good.get(), target, elsewhere && renamedByHarm ? line.path() : ""));
            }
        }
        return new RestoreRequest(
                ActionKind.MENDED, requested, Collisions.all(Collision.REPLACE), List.of(), List.of(), List.of());
    }

    /** What mending would do, file by file. */
    public RestorePlan plan(Listed listed, FileWork work, Progress progress) throws IOException {
        return work.plan(request(listed), progress);
    }

    /**
     * Mends it. What is there now stays as a version of each file, and one undo takes it all back.
     *
     * @throws IllegalArgumentException with a message for the user, when there is nothing to mend
     */
    public RestoreResult mend(Listed listed, FileWork work, Instant now, Progress progress) throws IOException {
        RestoreRequest request = request(listed);
        if (request.requested().isEmpty()) {
            throw new IllegalArgumentException(Words.of("findings.nothingToMend"));
        }
        RestoreResult result = work.restore(request, progress);
        if (result.action() != 0) {
            decide(new Decision(listed.place().id(), listed.id(), Decision.What.MENDED, now, who, "", result.action()));
        }
        return result;
    }

    /** Says that nothing has to be done about a finding. */
    public void dismiss(Listed listed, Instant now, String reason) throws IOException {
        decide(new Decision(listed.place().id(), listed.id(), Decision.What.DISMISSED, now, who, reason, 0));
    }

    /**
     * Says that a kind of finding is fine from now on.
     *
     * @param everywhere in the whole place; otherwise for the file of the finding
     */
    public void fine(Listed listed, boolean everywhere, Instant now, String reason) throws IOException {
        Finding f = listed.found().finding();
        if (!everywhere && f.marks().size() != 1) {
            throw new IllegalArgumentException(Words.of("findings.fineOne"));
        }
        try (WriteSession session = vault.write()) {
            long line = everywhere ? 0 : f.marks().get(0).line();
            DecisionStore.fine(
                    session, new Decision.Fine(0, listed.place().id(), f.kind().name(), line, now, who, reason));
            session.commit();
        }
    }

    /** Takes a decision back, or that something is fine. */
    public void reopen(Listed listed) throws IOException {
        try (WriteSession session = vault.write()) {
            DecisionStore.takeBack(session, listed.place().id(), listed.id());
            if (listed.fine().isPresent()) {
                DecisionStore.notFine(session, listed.fine().get().id());
            }
            session.commit();
        }
    }

    private void decide(Decision decision) throws IOException {
        try (WriteSession session = vault.write()) {
            DecisionStore.decide(session, decision);
            session.commit();
        }
    }
}
