package org.mendedleaf.core.systems;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PlainDigests;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;

/**
 * One line across all systems: the points of a file's own line, and by time among them the contents that only lines of
 * the same file elsewhere have, each once with all who hold it.
 *
 * @param own the file's own line
 * @param others lines of the same file in other places
 * @param points newest first
 */
public record MergedLine(Line own, List<Line> others, List<MergedPoint> points) {

    /** Copies the lists. */
    public MergedLine {
        others = List.copyOf(others);
        points = List.copyOf(points);
    }

    /**
     * A line with its holders and digests, as it goes into the merging.
     *
     * @param line a line
     * @param holders by version number
     * @param digests plain SHA-256 by version number, as far as known
     */
    public record Part(Line line, Map<Integer, List<Holder>> holders, Map<Integer, Digest> digests) {}

    /**
     * Merges.
     *
     * @param distance of a place, nearest first; the vault is nearer than all
     */
    public static MergedLine merge(Part own, List<Part> others, Comparator<Place> distance) {
        Map<Digest, List<MergedPoint.Copy>> copies = new HashMap<>();
        List<Part> all = new ArrayList<>(List.of(own));
        all.addAll(others);
        for (Part part : all) {
            for (Version v : part.line().versions()) {
                Digest digest = digest(part, v);
                for (Holder h : part.holders().getOrDefault(v.number(), List.of())) {
                    copies.computeIfAbsent(digest, d -> new ArrayList<>()).add(new MergedPoint.Copy(h, part.line(), v));
                }
            }
        }
        Comparator<MergedPoint.Copy> nearest = Comparator.comparing(
                        (MergedPoint.Copy c) -> c.holder().kind() != Holder.Kind.VAULT)
                .thenComparing(c -> c.holder().place(), distance)
                .thenComparing(c -> c.holder().kind());
        copies.values().forEach(list -> list.sort(nearest));
        List<MergedPoint> points = new ArrayList<>();
        Set<Digest> shown = new HashSet<>();
        for (LinePoint p : own.line().points()) {
            Digest digest = p instanceof Version v ? digest(own, v) : null;
            points.add(new MergedPoint(
                    own.line(), p, digest == null ? List.of() : copies.getOrDefault(digest, List.of())));
            if (digest != null) {
                shown.add(digest);
            }
        }
        foreign(others, shown, copies).forEach(points::add);
        // Of the same moment, the points of the own line stand as they did, before others.
        points.sort(Comparator.comparing((MergedPoint p) -> p.point().at()).reversed());
        return new MergedLine(own.line(), others.stream().map(Part::line).toList(), points);
    }

    /** Contents that the own line does not have: each once, where it is oldest. */
    private static List<MergedPoint> foreign(
            List<Part> others, Set<Digest> shown, Map<Digest, List<MergedPoint.Copy>> copies) {
        Map<Digest, MergedPoint> oldest = new HashMap<>();
        for (Part part : others) {
            for (Version v : part.line().versions()) {
                Digest digest = digest(part, v);
                List<MergedPoint.Copy> held = copies.getOrDefault(digest, List.of());
                // What nobody holds any more is a point of its own line only.
                if (!shown.contains(digest) && !held.isEmpty()) {
                    MergedPoint point = new MergedPoint(part.line(), v, held);
                    oldest.merge(
                            digest,
                            point,
                            (a, b) -> b.point().at().isBefore(a.point().at()) ? b : a);
                }
            }
        }
        return List.copyOf(oldest.values());
    }

    private static Digest digest(Part part, Version v) {
        return v.sha256()
                .or(() -> Optional.ofNullable(part.digests().get(v.number())))
                .orElse(v.digest());
    }

    /** A line by itself, with nothing known of who holds what. */
    public static MergedLine alone(Line line) {
        return new MergedLine(
                line,
                List.of(),
                line.points().stream()
                        .map(p -> new MergedPoint(line, p, List.of()))
                        .toList());
    }

    /** The point of a version. */
    public Optional<MergedPoint> point(long line, int number) {
        return points.stream()
                .filter(p -> p.version()
                        .filter(v -> v.line() == line && v.number() == number)
                        .isPresent())
                .findFirst();
    }

    /**
     * Reads a line and finds the lines of the same file elsewhere.
     *
     * @param registry to know how near a system is
     * @param digests whether to compute digests that are not known yet, which reads contents
     */
    public static MergedLine of(OpenVault vault, Line line, SystemRegistry registry, boolean digests)
            throws IOException {
        Map<Integer, Digest> own =
                digests && !line.place().isOutside() ? new PlainDigests(vault).of(line) : known(line);
        try (Reading reading = vault.read()) {
            Part part = new Part(line, reading.outside().holders(line), own);
            List<Part> others = new ArrayList<>();
            for (Line other : Relatives.of(reading, line, own)) {
                Map<Integer, Digest> theirs =
                        digests && !other.place().isOutside() ? new PlainDigests(vault).of(other) : known(other);
                others.add(new Part(other, reading.outside().holders(other), theirs));
            }
            return merge(
                    part,
                    others,
                    Comparator.comparing(
                            p -> registry.kind(p).map(Enum::ordinal).orElse(SystemKind.values().length)));
        }
    }

    private static Map<Integer, Digest> known(Line line) {
        Map<Integer, Digest> known = new HashMap<>();
        line.versions().forEach(v -> v.sha256().ifPresent(d -> known.put(v.number(), d)));
        return known;
    }
}
