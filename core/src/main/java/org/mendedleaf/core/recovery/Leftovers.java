package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.mendedleaf.core.capture.MovedAside;
import org.mendedleaf.core.catalogue.AsideStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.line.Place;

/**
 * What a restore left in a folder when it was killed, under names of ours: files that were being written, and folders in
 * which an archive was being made. They are removed once nobody has touched them for a while, since they may belong to a
 * program that runs. They are never in the way: what cannot be removed stays until the next time.
 */
final class Leftovers {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(Leftovers.class);

    private static final Duration LEFT_ALONE = Duration.ofMinutes(10);

    private final WriteSession session;
    private final Place place;
    private final long touchedBefore;

    Leftovers(WriteSession session, Place place) {
        this(session, place, LEFT_ALONE);
    }

    Leftovers(WriteSession session, Place place, Duration leftAlone) {
        this.session = session;
        this.place = place;
        this.touchedBefore = TimeUnit.MILLISECONDS.toNanos(System.currentTimeMillis()) - leftAlone.toNanos();
    }

    /** Removes those in one folder. */
    void remove(String path) {
        try (SafeFolder folder = SafeFolder.open(place.root(), path)) {
            Set<String> aside = new HashSet<>();
            AsideStore.of(session, place).forEach(a -> aside.add(a.name()));
            for (Found f : found(folder, true)) {
                if (!aside.contains(f.name())) {
                    remove(folder, f);
                }
            }
        } catch (IOException e) {
            log.info("leftovers in {} stay", path, e);
        }
    }

    private record Found(String name, DiskEntry entry) {
        boolean isFolder() {
            return entry.type() == DiskEntry.Type.FOLDER;
        }
    }

    private static List<Found> found(SafeFolder folder, boolean onlyOwn) throws IOException {
        List<Found> found = new ArrayList<>();
        folder.list(new SafeFolder.Visitor() {
            @Override
            public void entry(String name, DiskEntry entry) {
                if (!onlyOwn || SafeFolder.isOwnName(name)) {
                    found.add(new Found(name, entry));
                }
            }

            @Override
            public void failed(String name, IOException why) {
                log.debug("{} is not looked at", name, why);
            }
        });
        return found;
    }

    private void remove(SafeFolder folder, Found f) {
        try {
            if (!isAbandoned(folder, f)) {
                log.debug("{} may be in use", f.name());
            } else if (f.isFolder()) {
                empty(folder, f.name());
                folder.deleteFolder(f.name());
            } else {
                folder.delete(f.name());
            }
        } catch (IOException e) {
            log.info("{} stays", f.name(), e);
        }
    }

    private boolean isAbandoned(SafeFolder folder, Found f) throws IOException {
        long touched = f.entry().changedNanos() == 0
                ? f.entry().mtimeNanos()
                : f.entry().changedNanos();
        if (touched > touchedBefore) {
            return false;
        }
        if (!f.isFolder()) {
            return !MovedAside.isInUse(folder, f.name());
        }
        try (SafeFolder inside = folder.child(f.name())) {
            for (Found each : found(inside, false)) {
                if (!isAbandoned(inside, each)) {
                    return false;
                }
            }
        }
        return true;
    }

    private static void empty(SafeFolder folder, String name) throws IOException {
        try (SafeFolder inside = folder.child(name)) {
            for (Found each : found(inside, false)) {
                if (each.isFolder()) {
                    empty(inside, each.name());
                    inside.deleteFolder(each.name());
                } else {
                    inside.delete(each.name());
                }
            }
        }
    }
}
