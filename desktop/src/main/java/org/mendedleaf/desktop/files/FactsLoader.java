package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mendedleaf.core.catalogue.PlainDigests;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.UniqueBytes;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.LineVerdicts;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;

/** Reads what is known of a version beside its content. */
final class FactsLoader {

    private final AppContext context;

    FactsLoader(AppContext context) {
        this.context = context;
    }

    /** The facts of a version; of one that only another system holds, those that it said. */
    Detail facts(OpenPlace of, Line line, Version v, Optional<MergedPoint> point) throws IOException {
        if (v.recipe().isElsewhere()) {
            return awayFacts(v, point);
        }
        Map<Integer, Digest> digests = new PlainDigests(of.vault()).of(oneVersion(line, v));
        List<Detail.Fact> facts = new ArrayList<>();
        try (Reading reading = of.vault().read()) {
            List<ChunkPlace> chunks = reading.contents().places(v.recipe());
            long stored = chunks.stream().mapToLong(ChunkPlace::storedBytes).sum();
            String packs = chunks.stream()
                    .map(ChunkPlace::pack)
                    .distinct()
                    .map(p -> of.vault().folder().pack(p).getFileName().toString())
                    .collect(Collectors.joining(", "));
            facts.add(fact("facts.path", v.path()));
            facts.add(fact("facts.saved", Formats.exact(v.saved(), context.zone())));
            facts.add(fact("facts.captured", Formats.exact(v.captured(), context.zone())));
            facts.add(fact(
                    "facts.modified",
                    Formats.exact(Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)), context.zone())));
            facts.add(fact("facts.size", Words.of("facts.bytes", Formats.number(v.size()))));
            facts.add(fact("facts.permissions", permissions(v)));
            Digest sha = digests.get(v.number());
            facts.add(fact("facts.sha256", sha == null ? "" : sha.hex()));
            facts.add(fact(
                    "facts.where",
                    chunks.isEmpty()
                            ? Words.of("facts.nowhere")
                            : Words.of("facts.chunks", chunks.size(), Formats.size(stored), packs)));
            facts.add(fact("facts.only", Formats.size(UniqueBytes.storedBytes(reading, v))));
            String kept = LineVerdicts.of(reading, v.line(), context.clock().instant(), context.calendar())
                    .words(v.number(), context.clock().instant(), context.zone());
            if (!kept.isEmpty()) {
                facts.add(fact("facts.kept", kept));
            }
            facts.add(fact("facts.id", Words.of("facts.idWords", String.valueOf(v.line()), v.number())));
        }
        return new Detail.Facts(v, facts);
    }

    private Detail awayFacts(Version v, Optional<MergedPoint> point) {
        List<Detail.Fact> facts = new ArrayList<>();
        facts.add(fact("facts.path", v.path()));
        facts.add(fact("facts.saved", Formats.exact(v.saved(), context.zone())));
        facts.add(fact(
                "facts.modified", Formats.exact(Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)), context.zone())));
        facts.add(fact("facts.size", Words.of("facts.bytes", Formats.number(v.size()))));
        facts.add(fact("facts.sha256", v.sha256().map(Digest::hex).orElse("")));
        point.ifPresent(p -> p.copies()
                .forEach(c -> facts.add(new Detail.Fact(
                        c.holder().place().where(),
                        c.holder().label().isEmpty()
                                ? c.holder().point()
                                : c.holder().label()))));
        return new Detail.Facts(v, facts);
    }

    private static Line oneVersion(Line line, Version v) {
        return new Line(line.id(), line.place(), line.path(), line.removed(), line.bytes(), List.of(v));
    }

    private static Detail.Fact fact(String key, String value) {
        return new Detail.Fact(Words.of(key), value);
    }

    private static String permissions(Version v) {
        StringBuilder out = new StringBuilder();
        String letters = "rwxrwxrwx";
        for (int i = 0; i < 9; i++) {
            out.append((v.mode() & (1 << (8 - i))) != 0 ? letters.charAt(i) : '-');
        }
        return out.toString();
    }
}
