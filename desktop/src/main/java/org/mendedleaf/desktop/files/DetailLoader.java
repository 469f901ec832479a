package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;

/** Reads what is shown of a version: its content, what changed, facts. Slow; never on the thread of the screen. */
final class DetailLoader {

    /** What a version says, or a member of it when {@code member} is not empty; of a large text, one part. */
    Detail content(OpenPlace of, Version version, String member, int part) throws IOException {
        try (Reading reading = of.vault().read()) {
            DocumentCache looks = DocumentCache.shared();
            if (!member.isEmpty()) {
                return new Detail.Seen(version, member, looks.memberDocument(reading, version, member));
            }
            Document document = looks.document(reading, version);
            int parts = DocumentCache.parts(version, document);
            int shown = Math.max(0, Math.min(parts - 1, part));
            return parts == 1
                    ? new Detail.Seen(version, "", document)
                    : new Detail.Seen(version, "", DocumentCache.part(reading, version, shown), shown, parts, "");
        }
    }

    /**
     * Two points of which one comes after the other.
     *
     * @param before what the earlier one is called
     * @param after what the later one is called
     * @param contents of both
     * @param looked compares them where what is known of them already helps; null where nothing does
     */
    private record Points(
            String before,
            String after,
            Pair.Source contents,
            @Nullable Looked looked) {}

    private interface Looked {
        Comparison compare(Reading reading) throws IOException;
    }

    /**
     * What changed; the content itself where there is nothing to compare it with.
     *
     * @param readable the version itself, or one with the same content that is here
     * @param member of both that is looked into; empty for themselves
     */
    Detail changes(OpenPlace of, Line line, Version version, Version readable, CompareTarget against, String member)
            throws IOException {
        Optional<Version> other = against instanceof CompareTarget.OfVersion v
                ? line.version(v.number())
                : against instanceof CompareTarget.Before ? before(line, version) : Optional.empty();
        Optional<Points> points = Optional.empty();
        if (against instanceof CompareTarget.OfFile file) {
            points = Optional.of(new Points(
                    said(version),
                    String.valueOf(file.file().getFileName()),
                    pair(of, readable, () -> Optional.of(Side.disk(file.file()))),
                    null));
        } else if (against instanceof CompareTarget.Now) {
            boolean live = line.removed().isEmpty() && !of.place().isOutside();
            if (live && Side.live(of.place(), line.path()).isPresent()) {
                points = Optional.of(new Points(
                        said(version),
                        Words.of("compare.side.now"),
                        pair(of, readable, () -> Side.live(of.place(), line.path())),
                        null));
            } else {
                other = line.newest();
            }
        }
        if (points.isEmpty()) {
            boolean same = other.isEmpty()
                    || other.get().number() == version.number() && other.get().line() == version.line();
            if (same) {
                Detail own = content(of, readable, member, 0);
                boolean newest = !(against instanceof CompareTarget.Before);
                return newest && own instanceof Detail.Seen seen && member.isEmpty()
                        ? new Detail.Seen(
                                version, "", seen.document(), seen.part(), seen.parts(), Words.of("reading.newest"))
                        : own;
            }
            if (other.get().recipe().isElsewhere()) {
                return new Detail.Failed(
                        Words.of("compare.side.away", other.get().label()));
            }
            points = Optional.of(versions(of, version, readable, other.get()));
        }
        return compared(of, version, points.get(), member);
    }

    private static String said(Version version) {
        return Words.of("compare.side.version", version.label());
    }

    private interface Later {
        Optional<Side> get() throws IOException;
    }

    private static Pair.Source pair(OpenPlace of, Version version, Later later) {
        return () -> {
            try (Reading reading = of.vault().read()) {
                return new Pair(Optional.of(Side.version(reading, version)), later.get());
            }
        };
    }

    private static Points versions(OpenPlace of, Version version, Version readable, Version other) {
        boolean earlier = other.number() < version.number();
        Version a = earlier ? other : readable;
        Version b = earlier ? readable : other;
        Pair.Source contents = () -> {
            try (Reading reading = of.vault().read()) {
                return new Pair(Optional.of(Side.version(reading, a)), Optional.of(Side.version(reading, b)));
            }
        };
        return new Points(
                said(earlier ? other : version),
                said(earlier ? version : other),
                contents,
                reading -> DocumentCache.shared().between(reading, a, b));
    }

    private static Detail compared(OpenPlace of, Version version, Points points, String member) throws IOException {
        Looked looked = points.looked();
        if (looked != null && member.isEmpty()) {
            try (Reading reading = of.vault().read()) {
                return new Detail.Compared(
                        version, points.before(), points.after(), "", looked.compare(reading), points.contents());
            }
        }
        if (member.isEmpty()) {
            Pair pair = points.contents().get();
            Comparison comparison = DocumentCache.shared()
                    .between(pair.before().orElseThrow(), pair.after().orElseThrow());
            return new Detail.Compared(version, points.before(), points.after(), "", comparison, points.contents());
        }
        Pair.Source contents = () -> points.contents().get().member(member);
        Pair.Seen seen = contents.get().see();
        Optional<Document> alone = seen.document();
        if (alone.isPresent()) {
            return new Detail.Seen(version, member, alone.get(), 0, 1, seen.words());
        }
        Comparison comparison = seen.comparison().orElseThrow(() -> new IOException(Words.of("pair.none")));
        return new Detail.Compared(version, points.before(), points.after(), member, comparison, contents);
    }

    /** The version before this one on its line. */
    static Optional<Version> before(Line line, Version version) {
        List<Version> versions = line.versions();
        for (int i = 0; i + 1 < versions.size(); i++) {
            if (versions.get(i).number() == version.number() && versions.get(i).line() == version.line()) {
                return Optional.of(versions.get(i + 1));
            }
        }
        return Optional.empty();
    }
}
