package org.mendedleaf.desktop.files;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Moment;
import org.mendedleaf.core.line.OnlyHere;
import org.mendedleaf.core.line.PlainDigests;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.preview.Contents;
import org.mendedleaf.core.preview.Previewer;
import org.mendedleaf.core.retention.LineVerdicts;
import org.mendedleaf.core.rules.Sight;
import org.mendedleaf.core.systems.Fetch;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.shell.Background;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;

/** The line of the selected file without its scene: its rows, the chosen version, and what is shown of that. */
public final class LineModel {

    /** Changes are computed in words for the newest so many versions. */
    private static final int CHANGES_MOST = 40;

    private final Desk desk;
    private final Background.Newest lineQuestion;
    private final Background.Newest detailQuestion;
    private final Background.Newest changesQuestion;
    private final ReadOnlyObjectWrapper<@Nullable Line> line = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<List<LineRow>> rows = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<@Nullable Version> chosen = new ReadOnlyObjectWrapper<>();
    private final ObjectProperty<Detail.Mode> mode = new SimpleObjectProperty<>(Detail.Mode.PREVIEW);
    private final ReadOnlyObjectWrapper<Detail> detail = new ReadOnlyObjectWrapper<>(new Detail.None());
    private final Set<String> unfolded = new HashSet<>();
    private final ReadOnlyObjectWrapper<@Nullable MergedLine> merged = new ReadOnlyObjectWrapper<>();
    private final Background.Newest mergedQuestion;
    private final ReadOnlyObjectWrapper<@Nullable LineSaid> said = new ReadOnlyObjectWrapper<>();
    private Map<Integer, String> changes = Map.of();
    private final LineStrays strays;
    private @Nullable Held held;
    private long id;

    LineModel(Desk desk) {
        this.desk = desk;
        this.lineQuestion = desk.background().new Newest();
        this.detailQuestion = desk.background().new Newest();
        this.changesQuestion = desk.background().new Newest();
        this.mergedQuestion = desk.background().new Newest();
        this.strays = new LineStrays(desk);
        mode.addListener((o, a, b) -> loadDetail());
    }

    /** The line; null when no file is selected. */
    public ReadOnlyObjectProperty<@Nullable Line> lineProperty() {
        return line.getReadOnlyProperty();
    }

    /** The line with its points in other systems; null when no file is selected. */
    public ReadOnlyObjectProperty<@Nullable MergedLine> mergedProperty() {
        return merged.getReadOnlyProperty();
    }

    /** What is said of the line, and what may be done with it; null when no file is selected. */
    public ReadOnlyObjectProperty<@Nullable LineSaid> saidProperty() {
        return said.getReadOnlyProperty();
    }

    /** Safety copies that programs left of this file, newest first; none while they are looked for. */
    public ReadOnlyObjectProperty<List<Stray>> straysProperty() {
        return strays.foundProperty();
    }

    /** What people call a version of this line: what its system does, else its edition. */
    String labelOf(Version v) {
        MergedLine all = merged.get();
        String told = all == null
                ? ""
                : all.point(v.line(), v.number()).map(MergedPoint::label).orElse("");
        return told.isEmpty() ? v.edition().label() : told;
    }

    /** The place of the line; null when no file is selected. */
    @Nullable
    Held held() {
        return held;
    }

    /** The point of the chosen version; empty when none is chosen. */
    Optional<MergedPoint> chosenPoint() {
        MergedLine all = merged.get();
        Version v = chosen.get();
        return all == null || v == null ? Optional.empty() : all.point(v.line(), v.number());
    }

    /** Whether the chosen version is not in the vault and somebody holds it. */
    boolean canTake() {
        return chosenPoint().map(p -> !p.inVault() && !p.copies().isEmpty()).orElse(false);
    }

    /** Takes the chosen version into the vault, as a job. */
    public void take() {
        Version v = chosen.get();
        Held of = held;
        if (v == null || of == null) {
            return;
        }
        desk.jobs()
                .start(
                        Words.of("job.take", name()),
                        progress -> new Fetch(of.vault(), desk.book()).intoVault(v, progress),
                        taken -> {
                            Version now = chosen.get();
                            if (now != null && now.line() == v.line() && now.number() == v.number()) {
                                choose(taken);
                            }
                            desk.changed();
                        },
                        e -> detail.set(new Detail.Failed(String.valueOf(e.getMessage()))));
    }

    /** Its rows, newest first. */
    public ReadOnlyObjectProperty<List<LineRow>> rowsProperty() {
        return rows.getReadOnlyProperty();
    }

    /** The chosen version; null when none is. */
    public ReadOnlyObjectProperty<@Nullable Version> chosenProperty() {
        return chosen.getReadOnlyProperty();
    }

    /** What is shown of it. */
    public ObjectProperty<Detail.Mode> modeProperty() {
        return mode;
    }

    /** What is shown. */
    public ReadOnlyObjectProperty<Detail> detailProperty() {
        return detail.getReadOnlyProperty();
    }

    /** Where the file is or was last, from the place's root. */
    String path() {
        Line l = line.get();
        return l == null ? "" : l.path();
    }

    /** Id of the line; 0 when no file is selected. */
    long lineId() {
        Line l = line.get();
        return l == null ? 0 : l.id();
    }

    /** The name of the file. */
    String name() {
        Line l = line.get();
        return l == null ? "" : l.name();
    }

    void show(@Nullable Held of, long lineId) {
        if (of != null && lineId == id && line.get() != null) {
            return;
        }
        held = of;
        id = lineId;
        unfolded.clear();
        changes = Map.of();
        if (of == null) {
            lineQuestion.drop();
            changesQuestion.drop();
            mergedQuestion.drop();
            merged.set(null);
            said.set(null);
            strays.show(null, null);
            line.set(null);
            rows.set(List.of());
            choose(null);
        } else {
            chosen.set(null);
            load(of);
        }
    }

    void reload() {
        Held of = held;
        if (of != null) {
            load(of);
        }
    }

    private void load(Held of) {
        long wanted = id;
        lineQuestion.ask(
                () -> {
                    Optional<Line> found;
                    Optional<LineSaid> says = Optional.empty();
                    String who = desk.home().who();
                    try (Reading reading = of.vault().read()) {
                        found = reading.line(wanted);
                        if (found.isPresent()) {
                            says = Optional.of(LineSaid.of(
                                    reading, found.get(), who, desk.clock().instant(), desk.calendar()));
                            found = Sight.see(reading, found.get(), who);
                        }
                    }
                    return found.isEmpty()
                            ? new Loaded(Optional.empty(), says)
                            : new Loaded(Optional.of(MergedLine.of(of.vault(), found.get(), desk.book(), false)), says);
                },
                this::took,
                e -> detail.set(new Detail.Failed(String.valueOf(e.getMessage()))));
    }

    /** A line that was read: itself, unless who works here may not see it, and what is said of it. */
    private record Loaded(Optional<MergedLine> line, Optional<LineSaid> said) {}

    private void took(Loaded loaded) {
        Optional<MergedLine> found = loaded.line();
        said.set(loaded.said().orElse(null));
        Line before = line.get();
        Version was = chosen.get();
        Line now = found.map(MergedLine::own).orElse(null);
        line.set(now);
        merged.set(found.orElse(null));
        showRows();
        strays.show(held, now);
        if (now == null) {
            choose(null);
            return;
        }
        boolean grew = before == null
                || before.id() != now.id()
                || before.versions().size() != now.versions().size();
        Optional<Version> still = was == null || grew
                ? Optional.empty()
                : found.flatMap(m -> m.point(was.line(), was.number())).flatMap(MergedPoint::version);
        choose(still.or(now::newest).orElse(null));
        loadChanges(now);
        loadOthers(now);
    }

    /** Equal contents elsewhere are known only when the digests are, which may take reading the contents. */
    private void loadOthers(Line l) {
        Held of = held;
        if (of == null || desk.book().connections().isEmpty()) {
            return;
        }
        mergedQuestion.ask(
                () -> MergedLine.of(of.vault(), l, desk.book(), true),
                all -> {
                    merged.set(all);
                    showRows();
                    if (detail.get() instanceof Detail.Away) {
                        loadDetail();
                    }
                },
                e -> org.slf4j.LoggerFactory.getLogger(LineModel.class).debug("no other systems", e));
    }

    private void showRows() {
        MergedLine all = merged.get();
        rows.set(
                all == null
                        ? List.of()
                        : new LineRows(
                                        all,
                                        Optional.ofNullable(said.get()),
                                        desk.clock().instant(),
                                        desk.zone())
                                .rows(unfolded, changes));
    }

    /** Shows a folded run whole. */
    public void unfold(String key) {
        unfolded.add(key);
        showRows();
    }

    /** Chooses a version. */
    public void choose(@Nullable Version version) {
        chosen.set(version);
        loadDetail();
    }

    private void loadDetail() {
        Version version = chosen.get();
        Held of = held;
        Line l = line.get();
        if (version == null || of == null || l == null) {
            detailQuestion.drop();
            detail.set(new Detail.None());
            return;
        }
        Detail.Mode wanted = mode.get();
        LineSaid says = said.get();
        if (wanted == Detail.Mode.NOTES && says != null) {
            detailQuestion.drop();
            detail.set(new Detail.Notes(version, says));
            return;
        }
        // Another line of this vault may have the same content.
        Version readable = chosenPoint().flatMap(MergedPoint::readable).orElse(version);
        if (readable.recipe().isElsewhere() && wanted != Detail.Mode.FACTS) {
            detailQuestion.drop();
            detail.set(new Detail.Away(version, awayWords()));
            return;
        }
        detailQuestion.ask(
                () -> switch (wanted) {
                    case PREVIEW, NOTES -> preview(of, readable);
                    case COMPARE -> compare(of, l, version, readable);
                    case FACTS -> facts(of, l, version);
                },
                detail::set,
                e -> detail.set(new Detail.Failed(String.valueOf(e.getMessage()))));
    }

    private String awayWords() {
        List<String> holders =
                chosenPoint().map(p -> p.holders(Words.of("holders.vault"))).orElse(List.of());
        return holders.isEmpty() ? Words.of("detail.forgotten") : Words.of("detail.away", String.join(", ", holders));
    }

    private static Detail preview(Held of, Version version) throws IOException {
        try (Reading reading = of.vault().read()) {
            return new Detail.Seen(version, Previewer.preview(version, reading.contents()));
        }
    }

    private static Detail compare(Held of, Line line, Version version, Version readable) throws IOException {
        if (version.size() > Compare.MOST) {
            return new Detail.Failed(Words.of("compare.tooLarge", Say.size(Compare.MOST)));
        }
        try (Reading reading = of.vault().read()) {
            byte[] before = bytes(reading, readable);
            Path live = of.place().isOutside()
                    ? Path.of("")
                    : RawNames.resolve(of.place().root(), line.path());
            boolean there = !of.place().isOutside()
                    && line.removed().isEmpty()
                    && Files.isRegularFile(live, LinkOption.NOFOLLOW_LINKS);
            if (there && Files.size(live) <= Compare.MOST) {
                byte[] after = Files.readAllBytes(live);
                return new Detail.Compared(
                        version,
                        Words.of("compare.now", version.label()),
                        Compare.compare(version.path(), before, after));
            }
            Version newest = line.newest().orElse(version);
            if (newest.recipe().isElsewhere()) {
                return new Detail.Failed(Words.of("compare.away", newest.label()));
            }
            if (newest.size() > Compare.MOST) {
                return new Detail.Failed(Words.of("compare.tooLarge", Say.size(Compare.MOST)));
            }
            return new Detail.Compared(
                    version,
                    Words.of("compare.newest", version.label(), newest.label()),
                    Compare.compare(version.path(), before, bytes(reading, newest)));
        }
    }

    private static byte[] bytes(Reading reading, Version version) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        reading.contents().read(version.recipe(), out::write);
        return out.toByteArray();
    }

    private Detail facts(Held of, Line line, Version v) throws IOException {
        if (v.recipe().isElsewhere()) {
            return awayFacts(v);
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
            facts.add(fact("facts.saved", Say.exact(v.saved(), desk.zone())));
            facts.add(fact("facts.captured", Say.exact(v.captured(), desk.zone())));
            facts.add(fact(
                    "facts.modified", Say.exact(Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)), desk.zone())));
            facts.add(fact("facts.size", Words.of("facts.bytes", Say.number(v.size()))));
            facts.add(fact("facts.permissions", permissions(v)));
            Digest sha = digests.get(v.number());
            facts.add(fact("facts.sha256", sha == null ? "" : sha.hex()));
            facts.add(fact(
                    "facts.where",
                    chunks.isEmpty()
                            ? Words.of("facts.nowhere")
                            : Words.of("facts.chunks", chunks.size(), Say.size(stored), packs)));
            facts.add(fact("facts.only", Say.size(OnlyHere.storedBytes(reading, v))));
            String kept = LineVerdicts.of(reading, v.line(), desk.clock().instant(), desk.calendar())
                    .words(v.number(), desk.clock().instant(), desk.zone());
            if (!kept.isEmpty()) {
                facts.add(fact("facts.kept", kept));
            }
            facts.add(fact("facts.id", Words.of("facts.idWords", String.valueOf(v.line()), v.number())));
        }
        return new Detail.Facts(v, facts);
    }

    private Detail awayFacts(Version v) {
        List<Detail.Fact> facts = new ArrayList<>();
        facts.add(fact("facts.path", v.path()));
        facts.add(fact("facts.saved", Say.exact(v.saved(), desk.zone())));
        facts.add(fact("facts.modified", Say.exact(Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)), desk.zone())));
        facts.add(fact("facts.size", Words.of("facts.bytes", Say.number(v.size()))));
        facts.add(fact("facts.sha256", v.sha256().map(Digest::hex).orElse("")));
        chosenPoint()
                .ifPresent(p -> p.copies()
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

    private void loadChanges(Line l) {
        Held of = held;
        if (of == null) {
            return;
        }
        changesQuestion.ask(
                () -> computeChanges(of, l),
                found -> {
                    changes = found;
                    showRows();
                },
                e -> org.slf4j.LoggerFactory.getLogger(LineModel.class).debug("no changes in words", e));
    }

    /** What changed in words, where the content is text or a table; for the others their sizes say it. */
    private static Map<Integer, String> computeChanges(Held of, Line line) throws IOException {
        Map<Integer, String> found = new HashMap<>();
        List<Version> versions = line.versions();
        try (Reading reading = of.vault().read()) {
            byte[] newer = null;
            for (int i = 0; i < Math.min(versions.size(), CHANGES_MOST); i++) {
                Version v = versions.get(i);
                boolean readable = v.kind() == EntryKind.FILE
                        && !v.recipe().isElsewhere()
                        && v.size() > 0
                        && v.size() < Compare.MOST / 4;
                byte[] content = readable ? bytes(reading, v) : null;
                if (content != null && Contents.text(content).isEmpty()) {
                    content = null;
                }
                if (newer != null && content != null) {
                    found.put(
                            versions.get(i - 1).number(),
                            Compare.compare(v.path(), content, newer).words());
                }
                newer = content;
            }
        }
        return found;
    }
}
