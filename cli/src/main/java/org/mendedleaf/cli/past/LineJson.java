package org.mendedleaf.cli.past;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;

/** A line as other programs read it. */
final class LineJson {

    private LineJson() {}

    /** A line with all its points; see {@code docs/json.md}. */
    static Map<String, Object> of(MergedLine merged, Map<Integer, Digest> digests, LineFacts said) {
        Line line = merged.own();
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", line.path());
        map.put("folder", line.place().where());
        line.removed().ifPresent(r -> map.put("removed", r.toString()));
        map.put("bytesWithVersions", line.bytes());
        said.out()
                .ifPresent(o -> map.put(
                        "checkedOut", Map.of("who", o.who(), "since", o.since().toString())));
        map.put("category", said.card().category());
        map.put("visible", said.card().visibility().name());
        map.put(
                "findings",
                said.findings().stream()
                        .map(f -> f.words(line.path(), line.label(f.number())))
                        .toList());
        List<Object> points = new ArrayList<>();
        for (MergedPoint p : merged.points()) {
            if (p.point() instanceof Event e) {
                points.add(event(p.line(), e));
                continue;
            }
            Version v = p.version().orElseThrow();
            boolean own = v.line() == line.id();
            Map<String, Object> row = version(
                    p.line(), v, own ? digests.get(v.number()) : v.sha256().orElse(null));
            if (own) {
                row.put(
                        "comments",
                        said.comments().stream()
                                .filter(c -> c.number() == v.number())
                                .map(c -> Map.of("who", c.who(), "at", c.at().toString(), "words", c.words()))
                                .toList());
                row.put("kept", said.kept().getOrDefault(v.number(), ""));
                row.put("trouble", said.troubles().getOrDefault(v.number(), ""));
                String beyond = said.beyond().get(v.number());
                if (beyond != null) {
                    row.put("beyond", beyond);
                }
            }
            if (!own) {
                row.put("place", p.line().place().where());
            }
            row.put(
                    "heldBy",
                    p.copies().stream()
                            .map(c -> c.holder().kind() == Holder.Kind.VAULT
                                    ? "vault"
                                    : c.holder().place().where())
                            .distinct()
                            .toList());
            p.forgottenAt().ifPresent(at -> row.put("forgotten", at.toString()));
            points.add(row);
        }
        map.put("points", points);
        return map;
    }

    private static Map<String, Object> version(Line line, Version v, @org.jspecify.annotations.Nullable Digest sha) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("type", "version");
        map.put("version", v.label());
        map.put("sequence", v.number());
        map.put("saved", v.saved().toString());
        map.put("captured", v.captured().toString());
        map.put("who", v.who());
        map.put("origin", v.origin().name());
        if (v.source() > 0) {
            map.put("restoredFrom", line.label(v.source()));
        }
        map.put("kind", v.kind().name());
        map.put("path", v.path());
        map.put("size", v.size());
        map.put("modified", Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)).toString());
        map.put("mode", Integer.toOctalString(v.mode()));
        map.put("sha256", sha == null ? null : sha.hex());
        map.put("note", v.note());
        return map;
    }

    private static Map<String, Object> event(Line line, Event e) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("type", "event");
        map.put("at", e.at().toString());
        map.put("kind", e.kind().name());
        map.put("who", e.who());
        map.put("from", e.from());
        map.put("to", e.to());
        map.put("version", line.label(e.number()));
        return map;
    }
}
