package org.mendedleaf.core.intake;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.recovery.FileNames;
import org.mendedleaf.core.vault.Digest;

/**
 * Proposes for each of many files what it is to a place: the next version of a file there, a new file, or one that is
 * there already. Pure. No two files are ever proposed for one target: where several could be meant for it, the one that
 * has its very path or name gets it, and of equals none does; they are unsure.
 */
public final class Matcher {

    private Matcher() {}

    /**
     * A file that comes in.
     *
     * @param file on this computer
     * @param relative path within what was dropped, with slashes
     * @param size bytes
     * @param modified when it was last changed
     * @param digest of its content as the vault takes it, or for a place elsewhere its plain SHA-256
     */
    public record Incoming(Path file, String relative, long size, Instant modified, Digest digest) {}

    /** What a file is. */
    public enum Kind {
        /** The next version of the target. */
        NEW_VERSION,
        /** A file that is not there yet. */
        NEW_FILE,
        /** Its content is there already. */
        IDENTICAL,
        /** Somebody has to say. */
        UNSURE
    }

    /** By what a target was found. */
    public enum How {
        /** It has the same path. */
        PATH,
        /** It has the same name. */
        NAME,
        /** Their names differ in decorations only. */
        STEM,
        /** They have much in common. */
        CONTENT,
        /** It was not. */
        NONE
    }

    /**
     * A proposal.
     *
     * @param incoming the file
     * @param kind what it is
     * @param target path in the place that it goes to; where it is unsure, the likeliest
     * @param how the target was found
     * @param candidates other paths that it could be meant for, likeliest first
     */
    public record Proposal(Incoming incoming, Kind kind, String target, How how, List<String> candidates) {
        /** Copies the list. */
        public Proposal {
            candidates = List.copyOf(candidates);
        }

        Proposal as(Kind other, String path, How found) {
            return new Proposal(incoming, other, path, found, candidates);
        }
    }

    /** What could be meant by a file, by how it was found, best first. */
    private record Wanted(Incoming incoming, How how, List<LineIndex.Entry> entries) {}

    /** Proposes; in the order of what comes in. */
    public static List<Proposal> match(List<Incoming> incoming, LineIndex index, String folder) {
        List<Wanted> wanted = new ArrayList<>();
        Map<String, Map<How, Integer>> claims = new HashMap<>();
        for (Incoming in : incoming) {
            Wanted w = wanted(in, index, folder);
            wanted.add(w);
            if (w.entries().size() == 1) {
                claims.computeIfAbsent(w.entries().get(0).path(), k -> new TreeMap<>())
                        .merge(w.how(), 1, Integer::sum);
            }
        }
        Set<String> taken = new HashSet<>();
        List<Proposal> proposals = new ArrayList<>();
        for (Wanted w : wanted) {
            proposals.add(decide(w, index, folder, claims, taken));
        }
        return withFreeNames(proposals, index);
    }

    private static Wanted wanted(Incoming in, LineIndex index, String folder) {
        String path = RelativePath.child(folder, in.relative());
        String name = RelativePath.name(in.relative());
        Optional<LineIndex.Entry> there = index.at(path);
        if (there.isPresent()) {
            return new Wanted(in, How.PATH, List.of(there.get()));
        }
        List<LineIndex.Entry> named = index.named(name, folder);
        if (!named.isEmpty()) {
            return new Wanted(in, How.NAME, named);
        }
        List<LineIndex.Entry> stemmed = index.stemmed(name, folder);
        return stemmed.isEmpty() ? new Wanted(in, How.NONE, List.of()) : new Wanted(in, How.STEM, stemmed);
    }

    private static Proposal decide(
            Wanted w, LineIndex index, String folder, Map<String, Map<How, Integer>> claims, Set<String> taken) {
        Incoming in = w.incoming();
        List<String> candidates =
                w.entries().stream().map(LineIndex.Entry::path).toList();
        List<LineIndex.Entry> same = index.holding(in.digest(), folder);
        boolean otherwise = !candidates.isEmpty() && same.stream().noneMatch(s -> candidates.contains(s.path()));
        if (!same.isEmpty() && otherwise) {
            // Its name is that of one file and its content that of another: nobody but its owner knows.
            List<String> either = new ArrayList<>(candidates);
            same.forEach(s -> either.add(s.path()));
            return new Proposal(in, Kind.UNSURE, candidates.get(0), w.how(), either);
        }
        if (!same.isEmpty()) {
            // Of several with this content, the one that it would have been matched to.
            LineIndex.Entry e = same.stream()
                    .filter(s -> candidates.contains(s.path()))
                    .findFirst()
                    .orElse(same.get(0));
            return new Proposal(
                    in, Kind.IDENTICAL, e.path(), candidates.contains(e.path()) ? w.how() : How.CONTENT, candidates);
        }
        String own = RelativePath.child(folder, in.relative());
        if (w.how() == How.NONE) {
            return new Proposal(in, Kind.NEW_FILE, own, How.NONE, List.of());
        }
        String target = w.entries().get(0).path();
        boolean alone = w.entries().size() == 1 && mayClaim(claims.getOrDefault(target, Map.of()), w.how());
        return alone && taken.add(target)
                ? new Proposal(in, Kind.NEW_VERSION, target, w.how(), candidates)
                : new Proposal(in, Kind.UNSURE, target, w.how(), candidates);
    }

    /** Whether a way of finding a target is the best of all that lead to it, and the only one of its rank. */
    private static boolean mayClaim(Map<How, Integer> claims, How how) {
        boolean better = claims.keySet().stream().anyMatch(h -> h.compareTo(how) < 0);
        return !better && claims.getOrDefault(how, 0) == 1;
    }

    /** New files of one name, from several folders, get numbers. */
    private static List<Proposal> withFreeNames(List<Proposal> proposals, LineIndex index) {
        Set<String> used = new HashSet<>();
        List<Proposal> all = new ArrayList<>();
        for (Proposal p : proposals) {
            all.add(p.kind() == Kind.NEW_FILE ? p.as(Kind.NEW_FILE, free(p.target(), used, index), p.how()) : p);
        }
        return all;
    }

    /** A path that neither a file nor another proposal has: this one, or the next with a number. */
    static String free(String wanted, Set<String> used, LineIndex index) {
        String folder = RelativePath.parent(wanted);
        String name = RelativePath.name(wanted);
        String path = wanted;
        for (int i = 2; index.at(path).isPresent() || !used.add(path); i++) {
            path = RelativePath.child(folder, FileNames.numbered(name, i));
        }
        return path;
    }
}
