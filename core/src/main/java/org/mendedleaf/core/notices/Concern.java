package org.mendedleaf.core.notices;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.DamagedChunks;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.findings.Finding;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.retention.GoingSoon;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.Warning;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Something that needs attention. It is there as long as what it says is so.
 *
 * @param id the same as long as it is the same thing, for everybody
 * @param words what is wrong and what to do
 */
public record Concern(String id, Kind kind, String words) {

    /** What it is about. */
    public enum Kind {
        /** A file, or many, look harmed. */
        FINDING,
        /** Something in the vault is damaged that nobody has whole. */
        DAMAGE,
        /** Protection is late, failing or ended; a drive is away or full. */
        PROTECTION,
        /** A copy of the vault is not kept in step. */
        COPY,
        /** Versions go for good that nothing else holds. */
        GOING
    }

    /** By which people call it: six digits, as of a finding. */
    public String code() {
        if (kind == Kind.FINDING) {
            return id;
        }
        byte[] digest = Digest.sha256().digest(id.getBytes(StandardCharsets.UTF_8));
        return HexFormat.of().formatHex(digest).substring(0, 6);
    }

    /** Everything about a vault that needs attention and that nobody dismissed, findings first. */
    public static List<Concern> of(OpenVault vault, String who, Instant now, ZoneId zone) throws IOException {
        List<Concern> found = new ArrayList<>(findings(vault, who));
        Set<String> dismissed = new Dismissals(vault).all().keySet();
        warnings(vault, who, now, zone).stream()
                .filter(c -> !dismissed.contains(c.id()))
                .forEach(found::add);
        return found;
    }

    /** Open findings of which one can be sure enough. */
    private static List<Concern> findings(OpenVault vault, String who) throws IOException {
        return new Findings(vault, who)
                .open().stream()
                        .filter(l -> l.found().finding().sure() != Finding.Certainty.POSSIBLE)
                        .map(l -> new Concern(
                                l.id(),
                                Kind.FINDING,
                                l.place().label() + ": " + l.found().finding().words()))
                        .toList();
    }

    /** What needs attention and is no finding about files, dismissed or not. */
    public static List<Concern> warnings(OpenVault vault, String who, Instant now, ZoneId zone) throws IOException {
        List<Concern> found = new ArrayList<>();
        String root = vault.folder().root().toString();
        try (Reading reading = vault.read()) {
            for (VaultCheck.LostVersion l : DamagedChunks.lost(reading)) {
                found.add(new Concern(
                        root + " " + l.line() + "/" + l.number(),
                        Kind.DAMAGE,
                        Words.of("copies.lost", l.path(), l.label())));
            }
            Optional<GoingSoon> going = GoingSoon.of(reading, now);
            going.ifPresent(g -> found.add(new Concern(root + " " + g.first(), Kind.GOING, g.words(now, zone))));
        }
        for (Warning w : Warning.of(Coverage.of(vault, now, zone), now, zone)) {
            found.add(new Concern(w.row().where() + " " + w.row().state(), Kind.PROTECTION, w.words()));
        }
        for (CopyStatus copy : new Copies(vault, Clock.fixed(now, zone), who).list()) {
            if (copy.needsSomebody()) {
                found.add(new Concern(
                        copy.copy().folder() + " " + copy.standing(),
                        Kind.COPY,
                        Words.of("cli.status.copy", copy.copy().folder(), copy.sentence(now, zone))));
            }
        }
        return found;
    }
}
