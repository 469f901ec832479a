package org.mendedleaf.desktop.journal;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.JournalQuery;
import org.mendedleaf.core.catalogue.JournalReport;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.Reports;

/** What people did, narrowed down; without its scene. */
public final class JournalModel {

    private static final int MOST = 2000;

    private final AppContext context;
    private final Background.Newest question;
    private final StringProperty file = new SimpleStringProperty("");
    private final StringProperty who = new SimpleStringProperty("");
    private final StringProperty kind = new SimpleStringProperty("");
    private final StringProperty since = new SimpleStringProperty("");
    private final ReadOnlyObjectWrapper<List<Row>> rows = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");

    /**
     * An entry.
     *
     * @param openPlace its place, held open; null when it is about a whole vault
     * @param undoable whether it can be undone now
     */
    public record Row(@Nullable OpenPlace openPlace, JournalQuery.Entry entry, boolean undoable) {
        /** What the action did to each file; none of one that is no action on files. */
        List<Action.Item> files() {
            return entry.action().map(Action::items).orElse(List.of());
        }

        /** What its place is called; empty when it has none. */
        String place() {
            return openPlace == null ? "" : openPlace.place().label();
        }
    }

    /** Kinds of entries that can be asked for. */
    static final List<String> KINDS;

    static {
        List<String> kinds = new ArrayList<>(List.of(""));
        for (ActionKind k : ActionKind.values()) {
            kinds.add(k.name());
        }
        kinds.addAll(List.of("HELD", "HOLD_LIFTED", "RULES_SET", "FINDING_DISMISSED", "FINDING_FINE"));
        kinds.addAll(List.of("COPY_BEGUN", "COPY_ENDED", "SETTING_CHANGED"));
        KINDS = List.copyOf(kinds);
    }

    /** The journal of all open vaults. */
    public JournalModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
        for (StringProperty each : List.of(file, who, kind, since)) {
            each.addListener((o, a, b) -> reload());
        }
    }

    AppContext context() {
        return context;
    }

    /** Only what was done to files whose path holds this. */
    public StringProperty fileProperty() {
        return file;
    }

    /** Only what people did whose name holds this. */
    public StringProperty whoProperty() {
        return who;
    }

    /** Only entries of this kind; empty for all. */
    public StringProperty kindProperty() {
        return kind;
    }

    /** Only what was done since this moment, as moments are typed; empty for all. */
    public StringProperty sinceProperty() {
        return since;
    }

    /** What was done, the latest first. */
    public ReadOnlyObjectProperty<List<Row>> rowsProperty() {
        return rows.getReadOnlyProperty();
    }

    /** What is wrong, as a message; empty when nothing is. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Looks again. */
    public void reload() {
        JournalQuery.Wanted wanted;
        try {
            wanted = new JournalQuery.Wanted(file.get(), who.get(), kind.get(), moment(), Optional.empty());
            problem.set("");
        } catch (IllegalArgumentException e) {
            problem.set(Failures.words(e));
            return;
        }
        List<OpenPlace> places = List.copyOf(context.places());
        question.ask(() -> rows(places, wanted), rows::set, e -> problem.set(Failures.words(e)));
    }

    private Optional<Instant> moment() {
        if (since.get().isBlank() || MomentText.isNow(since.get())) {
            return Optional.empty();
        }
        try {
            return Optional.of(new MomentText(context.zone(), context.clock().instant(), MomentText.NOWHERE)
                    .readSince(since.get()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static List<Row> rows(List<OpenPlace> places, JournalQuery.Wanted wanted) throws IOException {
        Set<OpenVault> vaults = new LinkedHashSet<>();
        places.forEach(h -> vaults.add(h.vault()));
        List<Row> all = new ArrayList<>();
        for (OpenVault vault : vaults) {
            try (Reading reading = vault.read()) {
                Set<Long> undoable = new LinkedHashSet<>();
                JournalStore.of(reading).undoable(MOST).forEach(a -> undoable.add(a.id()));
                for (JournalQuery.Entry e : JournalQuery.of(reading).entries(wanted, MOST)) {
                    OpenPlace openPlace = places.stream()
                            .filter(h -> h.vault().equals(vault) && h.place().id() == e.place())
                            .findFirst()
                            .orElse(null);
                    boolean can = openPlace != null
                            && e.action().filter(a -> undoable.contains(a.id())).isPresent();
                    all.add(new Row(openPlace, e, can));
                }
            }
        }
        all.sort(Comparator.comparing((Row r) -> r.entry().at()).reversed());
        return all.size() <= MOST ? all : List.copyOf(all.subList(0, MOST));
    }

    /** Writes what is shown into a file: as a page or CSV when its name ends so, else as JSON Lines. */
    public void export(Path to, Runnable done) {
        List<Row> shown = rows.get();
        if (Reports.isPage(to) && Files.exists(to)) {
            problem.set(Words.of("journal.exists", to));
            return;
        }
        if (Reports.isPage(to)) {
            IdentityHashMap<JournalQuery.Entry, String> places = new IdentityHashMap<>();
            shown.forEach(r -> places.put(r.entry(), r.place()));
            List<JournalQuery.Entry> entries = shown.stream().map(Row::entry).toList();
            new Reports(context)
                    .write(
                            to,
                            () -> JournalReport.report(
                                    entries,
                                    e -> places.getOrDefault(e, ""),
                                    context.clock().instant(),
                                    context.zone()),
                            (words, trouble) -> {
                                problem.set(trouble ? words : "");
                                if (!trouble) {
                                    done.run();
                                }
                            });
            return;
        }
        boolean csv = String.valueOf(to.getFileName()).toLowerCase(Locale.ROOT).endsWith(".csv");
        context.background()
                .run(
                        () -> Files.writeString(to, text(shown, csv), StandardOpenOption.CREATE_NEW),
                        path -> done.run(),
                        e -> problem.set(
                                e instanceof java.nio.file.FileAlreadyExistsException
                                        ? Words.of("journal.exists", to)
                                        : Failures.words(e)));
    }

    private String text(List<Row> rows, boolean csv) throws IOException {
        StringBuilder text = new StringBuilder();
        for (Row row : rows) {
            List<JournalQuery.Entry> one = List.of(row.entry());
            String said = csv
                    ? JournalReport.csv(
                            one, id -> row.place(), context.settings().cells())
                    : JournalReport.jsonLines(one, id -> row.place());
            // The names of the columns stand once.
            text.append(csv && !text.isEmpty() ? said.substring(said.indexOf('\n') + 1) : said);
        }
        return text.toString();
    }
}
