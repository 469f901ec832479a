package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.VaultException;

/** Plain SHA-256 digests of versions: computed when somebody asks, and remembered when the vault can be written. */
public final class PlainDigests {

    private final OpenVault vault;

    /** Digests of versions in this vault. */
    public PlainDigests(OpenVault vault) {
        this.vault = vault;
    }

    /**
     * The digest of each version of a line, by number. Versions that cannot be read have none.
     */
    public Map<Integer, Digest> of(Line line) throws IOException {
        Map<Integer, Digest> all = new HashMap<>();
        Map<Digest, Digest> byContent = new HashMap<>();
        Map<Integer, Digest> fresh = new HashMap<>();
        try (Reading reading = vault.read()) {
            for (Version version : line.versions()) {
                Optional<Digest> known =
                        version.sha256().or(() -> Optional.ofNullable(byContent.get(version.digest())));
                if (known.isEmpty() && version.recipe().isElsewhere()) {
                    continue;
                }
                try {
                    Digest sha =
                            known.isPresent() ? known.get() : reading.contents().sha256(version.recipe());
                    byContent.put(version.digest(), sha);
                    all.put(version.number(), sha);
                    if (version.sha256().isEmpty()) {
                        fresh.put(version.number(), sha);
                    }
                } catch (VaultException.Damaged e) {
                    org.slf4j.LoggerFactory.getLogger(PlainDigests.class).debug("no digest of {}", version.number(), e);
                }
            }
        }
        if (!fresh.isEmpty()) {
            remember(line, fresh);
        }
        return all;
    }

    /** To know them again is a matter of speed only: who cannot write now computes them again next time. */
    private void remember(Line line, Map<Integer, Digest> fresh) {
        try (WriteSession session = vault.write()) {
            for (Map.Entry<Integer, Digest> e : fresh.entrySet()) {
                session.apply(Op.VERSION_SHA256, e.getValue().bytes(), line.id(), e.getKey());
            }
            session.commit();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(PlainDigests.class).debug("digests are not remembered", e);
        }
    }
}
