package org.mendedleaf.core.capture;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.vault.StoredContent;

/**
 * Files that are gone from where they were. One that turns up under another name in the same scan was moved: it is
 * recognised by being the same file with the same size and time, or by its content.
 */
final class GoneFiles {

    private record Identity(int key, long size, long mtimeNanos) {
        static Identity of(DiskEntry e) {
            return new Identity(e.key(), e.size(), e.mtimeNanos());
        }
    }

    private final LineWriter writer;
    private final Map<Identity, LiveEntry> byIdentity = new HashMap<>();
    private final Map<Long, List<LiveEntry>> bySize = new HashMap<>();
    private final List<LiveEntry> all = new ArrayList<>();
    private final Set<Long> taken = new HashSet<>();

    GoneFiles(LineWriter writer) {
        this.writer = writer;
    }

    /** Adds a file that is gone, with what the scan before saw of it, if it did. */
    void add(LiveEntry live, @Nullable SeenName before) {
        all.add(live);
        if (live.kind() == EntryKind.FILE && live.size() > 0) {
            bySize.computeIfAbsent(live.size(), s -> new ArrayList<>()).add(live);
        }
        if (before != null && before.isKept()) {
            byIdentity.put(Identity.of(before.entry()), live);
        }
    }

    boolean isEmpty() {
        return all.isEmpty();
    }

    /** The gone file that this one is by device, number, size and time; it is taken then. */
    Optional<LiveEntry> takeSame(DiskEntry arrived) {
        if (arrived.key() == 0) {
            return Optional.empty();
        }
        LiveEntry live = byIdentity.get(Identity.of(arrived));
        boolean sameKind = live != null && (live.kind() == EntryKind.LINK) == (arrived.type() == DiskEntry.Type.LINK);
        if (live == null || !sameKind || !taken.add(live.node())) {
            return Optional.empty();
        }
        return Optional.of(live);
    }

    /** The gone file with this content, one of the same name or folder before others; it is taken then. */
    Optional<LiveEntry> takeEqual(long folder, String name, StoredContent content) throws IOException {
        LiveEntry best = null;
        int bestRank = -1;
        for (LiveEntry live : bySize.getOrDefault(content.length(), List.of())) {
            int rank = (live.name().equals(name) ? 2 : 0) + (live.folder() == folder ? 1 : 0);
            if (rank > bestRank
                    && !taken.contains(live.node())
                    && writer.content(live.line(), live.number()).digest().equals(content.digest())) {
                best = live;
                bestRank = rank;
            }
        }
        if (best != null) {
            taken.add(best.node());
        }
        return Optional.ofNullable(best);
    }

    /** Those that turned up nowhere. */
    List<LiveEntry> rest() {
        return all.stream().filter(l -> !taken.contains(l.node())).toList();
    }

    /** The path of the folder of a file. */
    String pathOf(LiveEntry live) throws IOException {
        return RelativePath.child(writer.path(live.folder()), live.name());
    }
}
