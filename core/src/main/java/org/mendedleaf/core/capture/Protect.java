package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SettingChanges;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Takes a folder under protection. */
public final class Protect {

    private Protect() {}

    /**
     * Checks what can be checked before anything is made: the folder is there, the patterns can be read, and folder and
     * vault do not lie in one another.
     *
     * @return the real path of the folder
     * @throws IllegalArgumentException with a message for the user
     */
    public static Path check(Path folder, Path vault, List<String> exclusions) throws IOException {
        exclusions.forEach(Exclusions::check);
        Path root = PlaceWriter.realFolder(folder);
        PlaceWriter.refuseNesting(root, realOfNew(vault));
        if (VaultFolder.isVault(root)) {
            throw new IllegalArgumentException(Words.of("protect.insideVault", root, root));
        }
        return root;
    }

    /** The real path that a folder has or would have. */
    public static Path realOfNew(Path path) throws IOException {
        Path absolute = path.toAbsolutePath().normalize();
        Path there = absolute;
        while (there != null && !Files.exists(there)) {
            there = there.getParent();
        }
        return there == null ? absolute : there.toRealPath().resolve(there.relativize(absolute));
    }

    /**
     * Makes the place in the vault, or changes its settings when it is there: what the change does not name stays.
     *
     * @param root a real path, see {@link #check}
     * @param who does it
     * @throws org.mendedleaf.core.rules.NotAllowedException when the place is there and its settings are not theirs to change
     */
    public static Place place(OpenVault vault, Path root, PlaceChange change, Clock clock, String who)
            throws IOException {
        Path name = root.getFileName();
        try (WriteSession session = vault.write()) {
            Optional<Place> before = Optional.empty();
            for (Place there : session.places()) {
                if (!there.isOutside() && there.root().equals(root)) {
                    before = Optional.of(there);
                }
                if (!there.isOutside() && there.root().equals(root) && !change.changesNothing(there)) {
                    PlaceRules.of(session, there).rights(who, there).require(Permission.SETTINGS);
                }
            }
            Place place = new PlaceWriter(session)
                    .protect(root, name == null ? root.toString() : name.toString(), change, clock.instant());
            if (before.isPresent()) {
                SettingChanges.note(session, before.get(), place, clock.instant(), who);
            } else {
                String rhythm = place.rhythm().text();
                SettingChanges.note(session, place.id(), clock.instant(), who, SettingChanges.PROTECTED, "", rhythm);
            }
            session.commit();
            return place;
        }
    }

    /**
     * Pauses or ends the protection of a folder, or takes it up again. What exists stays, and can be read and restored.
     *
     * @param who does it
     * @throws org.mendedleaf.core.rules.NotAllowedException when its settings are not theirs to change
     */
    public static void versioning(OpenVault vault, Place place, Versioning wanted, Clock clock, String who)
            throws IOException {
        try (WriteSession session = vault.write()) {
            PlaceRules rules = PlaceRules.of(session, place);
            rules.store(session, place, rules.settings().with(Setting.VERSIONING, wanted.text()), clock.instant(), who);
            if (wanted != Versioning.ON) {
                String where = place.where();
                Duties.end(session, () -> Words.of("duty.captures", where));
            }
            session.commit();
        }
    }

    /**
     * What taking up a protection again cannot give back, as a message: what was saved and saved over meanwhile.
     *
     * @param lastGood when the folder was last captured
     * @param files that are other than they were then
     */
    public static String missed(Instant lastGood, Instant now, ZoneId zone, long files) {
        return Words.of("protect.missed", Formats.moment(lastGood, now, zone), files);
    }

    /** Makes the place in the vault with just these settings, or changes them to just these. */
    public static Place place(
            OpenVault vault, Path root, Rhythm rhythm, List<String> exclusions, Clock clock, String who)
            throws IOException {
        List<String> before;
        try (Reading reading = vault.read()) {
            before = reading.placeOf(root).map(Place::exclusions).orElse(List.of());
        }
        List<String> ended =
                before.stream().filter(p -> !exclusions.contains(p)).toList();
        return place(vault, root, new PlaceChange(rhythm, exclusions, ended), clock, who);
    }
}
