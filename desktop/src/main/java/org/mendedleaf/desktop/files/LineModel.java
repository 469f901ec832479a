package org.mendedleaf.desktop.files;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.systems.ContentFetch;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.document.Pictures;

/** The line of the selected file without its scene: its rows, the chosen version, and what is shown of that. */
public final class LineModel {

    private final AppContext context;
    private final Background.Newest lineQuestion;
    private final Background.Newest detailQuestion;
    private final Background.Newest changesQuestion;
    private final ReadOnlyObjectWrapper<@Nullable Line> line = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<List<LineRow>> rows = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<@Nullable Version> chosen = new ReadOnlyObjectWrapper<>();
    private final ObjectProperty<Detail.Mode> mode = new SimpleObjectProperty<>(Detail.Mode.CHANGES);
    private final ObjectProperty<CompareTarget> against = new SimpleObjectProperty<>(new CompareTarget.Before());
    private final StringProperty member = new SimpleStringProperty("");
    private final IntegerProperty part = new SimpleIntegerProperty();
    private final DetailLoader loader;
    private final ReadOnlyObjectWrapper<Detail> detail = new ReadOnlyObjectWrapper<>(new Detail.None());
    private final Set<String> unfolded = new HashSet<>();
    private final ReadOnlyObjectWrapper<@Nullable MergedLine> merged = new ReadOnlyObjectWrapper<>();
    private final Background.Newest mergedQuestion;
    private final ReadAhead ahead;
    private final ReadOnlyObjectWrapper<@Nullable LineRemarks> said = new ReadOnlyObjectWrapper<>();
    private Map<Integer, String> changes = Map.of();
    private final LineStrays strays;
    private @Nullable OpenPlace openPlace;
    private @Nullable Version wanted;
    private long id;

    LineModel(AppContext context) {
        this.context = context;
        this.lineQuestion = context.background().new Newest();
        this.detailQuestion = context.background().new Newest();
        this.changesQuestion = context.background().new Newest();
        this.mergedQuestion = context.background().new Newest();
        this.strays = new LineStrays(context);
        this.ahead = new ReadAhead(context);
        this.loader = new DetailLoader();
        mode.addListener((o, a, b) -> loadDetail());
        against.addListener((o, a, b) -> loadDetail());
        member.addListener((o, a, b) -> loadDetail());
        part.addListener((o, a, b) -> loadDetail());
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
    public ReadOnlyObjectProperty<@Nullable LineRemarks> saidProperty() {
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
    OpenPlace openPlace() {
        return openPlace;
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
        OpenPlace of = openPlace;
        if (v == null || of == null) {
            return;
        }
        context.jobs()
                .start(
                        Words.of("job.take", name()),
                        progress -> new ContentFetch(of.vault(), context.registry()).intoVault(v, progress),
                        taken -> {
                            Version now = chosen.get();
                            if (now != null && now.line() == v.line() && now.number() == v.number()) {
                                choose(taken);
                            }
                            context.changed();
                        },
                        e -> detail.set(new Detail.Failed(Failures.named(e))));
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

    /** What changes are told against. */
    public ObjectProperty<CompareTarget> againstProperty() {
        return against;
    }

    /** The member of an archive, or the attachment of a message, that is looked into; empty for the file itself. */
    public StringProperty memberProperty() {
        return member;
    }

    /** Which part of a text is shown that is too large to be shown whole, from 0. */
    public IntegerProperty partProperty() {
        return part;
    }

    /** Steps along the line: to the next older version, or to the next newer one when {@code by} is negative. */
    public void step(int by) {
        Line l = line.get();
        Version v = chosen.get();
        if (l == null || v == null) {
            return;
        }
        List<Version> versions = l.versions();
        for (int i = 0; i < versions.size(); i++) {
            if (versions.get(i).number() == v.number() && versions.get(i).line() == v.line()) {
                int to = Math.max(0, Math.min(versions.size() - 1, i + by));
                if (to != i) {
                    choose(versions.get(to));
                }
                return;
            }
        }
    }

    /** The pictures and pages of the chosen version. */
    Pictures pictures() {
        Version v = chosenPoint().flatMap(MergedPoint::readable).orElse(chosen.get());
        OpenPlace of = openPlace;
        return v == null || of == null || v.recipe().isElsewhere()
                ? Pictures.NONE
                : new VersionPictures(context, of, v);
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

    /** Shows a line, and chooses this version of it once it is there. */
    void show(OpenPlace of, long lineId, @Nullable Version version) {
        show(null, 0);
        show(of, lineId);
        wanted = version;
    }

    void show(@Nullable OpenPlace of, long lineId) {
        if (of != null && lineId == id && line.get() != null) {
            return;
        }
        openPlace = of;
        id = lineId;
        against.set(new CompareTarget.Before());
        member.set("");
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
        OpenPlace of = openPlace;
        if (of != null) {
            load(of);
        }
    }

    private void load(OpenPlace of) {
        long wanted = id;
        lineQuestion.ask(
                () -> LoadedLine.of(context, of, wanted),
                this::took,
                e -> detail.set(new Detail.Failed(Failures.named(e))));
    }

    private void took(LoadedLine loaded) {
        Optional<MergedLine> found = loaded.line();
        said.set(loaded.said().orElse(null));
        Line before = line.get();
        Version was = chosen.get();
        Line now = found.map(MergedLine::own).orElse(null);
        line.set(now);
        merged.set(found.orElse(null));
        showRows();
        strays.show(openPlace, now);
        if (now == null) {
            choose(null);
            return;
        }
        // Who looks at the newest version goes on with the next; who looks at an older one is not torn away from it.
        boolean follows = before == null
                || before.id() != now.id()
                || before.versions().size() != now.versions().size() && isNewest(before, was);
        Optional<Version> still = was == null || follows
                ? Optional.empty()
                : found.flatMap(m -> m.point(was.line(), was.number())).flatMap(MergedPoint::version);
        Version first = wanted;
        wanted = null;
        Optional<Version> named = first == null ? Optional.empty() : now.version(first.number());
        if (named.isEmpty() && still.isPresent() && was != null && still.get().number() == was.number()) {
            // Who looks into a member of it goes on looking into that.
            chosen.set(still.get());
            loadDetail();
        } else {
            choose(named.or(() -> still).or(now::newest).orElse(null));
        }
        OpenPlace of = openPlace;
        if (of != null) {
            changesQuestion.ask(
                    () -> LineChanges.compute(of, now),
                    words -> {
                        changes = words;
                        showRows();
                    },
                    e -> org.slf4j.LoggerFactory.getLogger(LineModel.class).debug("no changes in words", e));
        }
        loadOthers(now);
    }

    private static boolean isNewest(Line line, @Nullable Version version) {
        return version == null
                || line.newest()
                        .map(n -> n.number() == version.number() && n.line() == version.line())
                        .orElse(true);
    }

    /** Equal contents elsewhere are known only when the digests are, which may take reading the contents. */
    private void loadOthers(Line l) {
        OpenPlace of = openPlace;
        if (of == null || context.registry().connections().isEmpty()) {
            return;
        }
        mergedQuestion.ask(
                () -> MergedLine.of(of.vault(), l, context.registry(), true),
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
                                        context.clock().instant(),
                                        context.zone())
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
        member.set("");
        part.set(0);
        loadDetail();
    }

    private void loadDetail() {
        Version version = chosen.get();
        OpenPlace of = openPlace;
        Line l = line.get();
        if (version == null || of == null || l == null) {
            detailQuestion.drop();
            detail.set(new Detail.None());
            return;
        }
        Detail.Mode wanted = mode.get();
        LineRemarks says = said.get();
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
        String inside = member.get();
        int shownPart = part.get();
        CompareTarget other = against.get();
        Optional<MergedPoint> point = chosenPoint();
        detailQuestion.ask(
                () -> switch (wanted) {
                    case CONTENT, NOTES -> loader.content(of, readable, inside, shownPart);
                    case CHANGES -> loader.changes(of, l, version, readable, other, inside);
                    case FACTS -> new FactsLoader(context).facts(of, l, version, point);
                },
                found -> {
                    detail.set(found);
                    ahead.from(of, l, version);
                },
                e -> detail.set(new Detail.Failed(Failures.named(e))));
    }

    private String awayWords() {
        List<String> holders =
                chosenPoint().map(p -> p.holders(Words.of("holders.vault"))).orElse(List.of());
        return holders.isEmpty() ? Words.of("detail.forgotten") : Words.of("detail.away", String.join(", ", holders));
    }
}
