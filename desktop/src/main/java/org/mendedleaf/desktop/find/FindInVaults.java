package org.mendedleaf.desktop.find;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;

/** Finds in several vaults at once, and says how much was found. */
final class FindInVaults {

    private static final int FILES_MOST = 100;

    private FindInVaults() {}

    /** What is found in the vaults of these places, or of the only one that is meant. */
    static FindModel.Answer find(Wanted wanted, @Nullable OpenPlace only, List<OpenPlace> places, String who)
            throws IOException {
        Set<OpenVault> vaults = new LinkedHashSet<>();
        places.stream().filter(h -> only == null || h.equals(only)).forEach(h -> vaults.add(h.vault()));
        List<FindModel.Hit> hits = new ArrayList<>();
        int snapshots = 0;
        boolean more = false;
        List<Finder> finders = new ArrayList<>();
        boolean complete = true;
        for (OpenVault vault : vaults) {
            Finder finder = new Finder(vault, who);
            Finder.Found found = finder.find(wanted, FILES_MOST);
            more |= found.more();
            finders.add(finder);
            complete &= found.complete();
            for (Finder.SnapshotHit hit : found.snapshots()) {
                Optional<OpenPlace> of = openPlace(places, vault, hit.place());
                if (of.isPresent()) {
                    hits.add(snapshots++, new FindModel.OfSnapshot(of.get(), hit.snapshot()));
                }
            }
            for (Finder.FileHit file : found.files()) {
                openPlace(places, vault, file.line().place()).ifPresent(h -> hits.add(new FindModel.OfFile(h, file)));
            }
        }
        List<String> words = new ArrayList<>();
        int files = hits.size() - snapshots;
        words.add(hits.isEmpty() ? Words.of("find.none") : files == 0 ? "" : Words.of("find.files", files));
        if (snapshots > 0) {
            words.add(Words.of("find.snapshots", snapshots));
        }
        words.removeIf(String::isEmpty);
        if (more) {
            words.add(Words.of("find.more"));
        }
        if (!complete) {
            long indexed = 0;
            long all = 0;
            for (Finder finder : finders) {
                Finder.Share share = finder.share();
                indexed += share.indexed();
                all += share.all();
            }
            if (indexed < all) {
                words.add(Words.of("find.partly", indexed, all));
            }
        }
        return new FindModel.Answer(hits, String.join(" · ", words));
    }

    private static Optional<OpenPlace> openPlace(List<OpenPlace> places, OpenVault vault, Place place) {
        return places.stream()
                .filter(h -> h.vault().equals(vault) && h.place().id() == place.id())
                .findFirst();
    }
}
