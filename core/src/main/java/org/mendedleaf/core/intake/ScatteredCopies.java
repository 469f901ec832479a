package org.mendedleaf.core.intake;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.FolderQuery;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/** Looks through a folder for scattered copies of one file, and proposes to fold them. Changes nothing. */
public final class ScatteredCopies {

    private final OpenVault vault;
    private final Place place;
    private final Evidence evidence;

    /** Looking through folders of this place. */
    public ScatteredCopies(OpenVault vault, Place place, Evidence evidence) {
        this.vault = vault;
        this.place = place;
        this.evidence = evidence;
    }

    /** The families in a folder and below it, each of one folder, by path. */
    public List<Family> find(String folder, Progress progress) throws IOException {
        return evidence.together(() -> all(folder, progress));
    }

    private List<Family> all(String folder, Progress progress) throws IOException {
        try (Reading reading = vault.read()) {
            List<FolderQuery.LiveFile> files = reading.folders().liveFiles(place).stream()
                    .filter(f -> folder.isEmpty() || f.path().startsWith(folder + "/"))
                    .toList();
            Map<String, List<FolderQuery.LiveFile>> alike = new HashMap<>();
            for (FolderQuery.LiveFile f : files) {
                NameStem stem = NameStem.of(RelativePath.name(f.path()));
                alike.computeIfAbsent(
                                RelativePath.parent(f.path()) + "\n" + stem.base() + "\n" + stem.ending(),
                                k -> new ArrayList<>())
                        .add(f);
            }
            List<FolderQuery.LiveFile> worth = alike.values().stream()
                    .filter(l -> l.size() > 1)
                    .flatMap(List::stream)
                    .toList();
            progress.begin(Words.of("intake.comparing"), worth.size(), 0);
            List<Families.Copy> copies = new ArrayList<>();
            for (FolderQuery.LiveFile f : worth) {
                progress.stopIfCancelled();
                Version v = reading.version(f.line(), f.number()).orElseThrow();
                Optional<Features> features = evidence.features(reading, v);
                features.ifPresent(x -> copies.add(
                        new Families.Copy(f.path(), Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)), x)));
                progress.advance(1, 0);
            }
            return Families.find(copies);
        }
    }
}
