package org.mendedleaf.desktop.recovery;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Labels;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.compare.TwoMomentsReport;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Difference;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.TypedMoments;

/** Two moments of a folder without a scene: what became of its files from one to the other. */
public final class CompareModel {

    private final AppContext context;
    private final OpenPlace openPlace;
    private final String folder;
    private final Background.Newest question;
    private final ObjectProperty<@Nullable Instant> from = new SimpleObjectProperty<>();
    private final ObjectProperty<@Nullable Instant> to = new SimpleObjectProperty<>();
    private final StringProperty filter = new SimpleStringProperty("");
    private final ObjectProperty<Set<TwoMoments.Kind>> kinds = new SimpleObjectProperty<>(Set.of());
    private final ReadOnlyObjectWrapper<@Nullable TwoMoments> whole = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<List<TwoMoments.Change>> shown = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");

    /** A comparison of a folder. */
    public CompareModel(AppContext context, OpenPlace openPlace, String folder) {
        this.context = context;
        this.openPlace = openPlace;
        this.folder = folder;
        this.question = context.background().new Newest();
        from.addListener((o, a, b) -> load());
        to.addListener((o, a, b) -> load());
        filter.addListener((o, a, b) -> pick());
        kinds.addListener((o, a, b) -> pick());
    }

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** The place. */
    public OpenPlace openPlace() {
        return openPlace;
    }

    /** The folder in it. */
    public String folder() {
        return folder;
    }

    /** The earlier moment; null while it is not chosen. */
    public ObjectProperty<@Nullable Instant> fromProperty() {
        return from;
    }

    /** The later moment; {@link Moment#FAR} is now; null while it is not chosen. */
    public ObjectProperty<@Nullable Instant> toProperty() {
        return to;
    }

    /** What must be in a path for its row to be shown. */
    public StringProperty filterProperty() {
        return filter;
    }

    /** The kinds that are shown; none means all. */
    public ObjectProperty<Set<TwoMoments.Kind>> kindsProperty() {
        return kinds;
    }

    /** All changes; null before they are known. */
    public ReadOnlyObjectProperty<@Nullable TwoMoments> wholeProperty() {
        return whole.getReadOnlyProperty();
    }

    /** Those that are shown. */
    public ReadOnlyObjectProperty<List<TwoMoments.Change>> shownProperty() {
        return shown.getReadOnlyProperty();
    }

    /** What is wrong, as a message; empty when nothing is. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** The moment that a text means here; asked off the screen's thread. */
    public Instant understand(String typed) throws IOException {
        return TypedMoments.understand(context, openPlace, folder, null, typed);
    }

    private void load() {
        Instant first = from.get();
        Instant second = to.get();
        if (first == null || second == null) {
            return;
        }
        if (second.isBefore(first)) {
            problem.set(Words.of("moments.order"));
            whole.set(null);
            pick();
            return;
        }
        problem.set("");
        question.ask(
                () -> {
                    try (Reading reading = openPlace.vault().read()) {
                        return TwoMoments.of(reading.folders().difference(openPlace.place(), folder, first, second));
                    }
                },
                all -> {
                    whole.set(all);
                    pick();
                },
                e -> problem.set(Failures.words(e)));
    }

    private void pick() {
        TwoMoments all = whole.get();
        String text = filter.get().strip().toLowerCase(Locale.ROOT);
        shown.set(
                all == null
                        ? List.of()
                        : all.changes().stream()
                                .filter(c ->
                                        kinds.get().isEmpty() || kinds.get().contains(c.kind()))
                                .filter(c -> matches(c, text))
                                .toList());
    }

    private static boolean matches(TwoMoments.Change c, String text) {
        return c.path().toLowerCase(Locale.ROOT).contains(text)
                || c.before()
                        .map(b -> b.path().toLowerCase(Locale.ROOT).contains(text))
                        .orElse(false);
    }

    /** A file at the earlier and at the later moment. Slow; never on the thread of the screen. */
    public Pair pair(TwoMoments.Change change) throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            return new Pair(side(reading, change.before()), side(reading, change.after()));
        }
    }

    private static Optional<Side> side(Reading reading, Optional<Difference.At> at) throws IOException {
        if (at.isEmpty() || at.get().kind() != EntryKind.FILE) {
            return Optional.empty();
        }
        Optional<Version> version =
                reading.line(at.get().line()).flatMap(l -> l.version(at.get().number()));
        return version.isEmpty() ? Optional.empty() : Optional.of(Side.version(reading, version.get()));
    }

    /** Writes what is shown into a CSV file. */
    public void save(Path file, Runnable done) {
        List<TwoMoments.Change> rows = shown.get();
        context.background()
                .run(
                        () -> {
                            try (Reading reading = openPlace.vault().read()) {
                                return Files.writeString(
                                        file,
                                        TwoMomentsReport.csv(
                                                rows,
                                                Labels.of(reading, openPlace.place()),
                                                context.settings().cells()));
                            }
                        },
                        f -> done.run(),
                        e -> problem.set(Failures.words(e)));
    }
}
