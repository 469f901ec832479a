package org.mendedleaf.core.notices;

import java.io.IOException;
import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.catalogue.DecisionStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Decision;

/**
 * Of what needs attention and is no harm to a file, what somebody said needs nobody. That holds as long as it is so: when it has
 * gone and comes back, it is said again. Nothing is hidden by it; Protection shows how things stand all the same.
 */
public final class Dismissals {

    /** Decisions that are about no place, but a vault. */
    private static final long NO_PLACE = 0;

    private final OpenVault vault;

    /** Those of a vault. */
    public Dismissals(OpenVault vault) {
        this.vault = vault;
    }

    /** What was dismissed, by the id of the concern. */
    public Map<String, Decision> all() throws IOException {
        Map<String, Decision> all = new LinkedHashMap<>();
        try (Reading reading = vault.read()) {
            DecisionStore.of(reading).decisions(NO_PLACE).forEach(d -> all.put(d.finding(), d));
        }
        return all;
    }

    /** Says that nothing has to be done about a concern as long as it is as it is. */
    public void dismiss(Concern concern, Instant now, String who, String reason) throws IOException {
        try (WriteSession session = vault.write()) {
            DecisionStore.decide(
                    session, new Decision(NO_PLACE, concern.id(), Decision.What.DISMISSED, now, who, reason, 0));
            session.commit();
        }
    }

    /** It needs attention after all. */
    public void takeBack(Concern concern) throws IOException {
        end(List.of(concern.id()));
    }

    /**
     * Lets go of what was said about what is no longer so.
     *
     * @param now all that is so
     */
    public void settle(Collection<Concern> now) throws IOException {
        List<String> ids = now.stream().map(Concern::id).toList();
        end(all().keySet().stream().filter(id -> !ids.contains(id)).toList());
    }

    private void end(List<String> ids) throws IOException {
        if (ids.isEmpty()) {
            return;
        }
        try (WriteSession session = vault.write()) {
            for (String id : ids) {
                DecisionStore.takeBack(session, NO_PLACE, id);
            }
            session.commit();
        }
    }
}
