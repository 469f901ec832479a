package org.mendedleaf.desktop.mend;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.Side;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.findings.Finding;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.Found;
import org.mendedleaf.core.findings.HealthCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Decision;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.Dismissals;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** What looks wrong, what mending would do, and mending it; without its scene. */
public final class MendModel {

    /** So many days stand in the chart. */
    static final int DAYS = 60;

    private static final int DAYS_AFTER = 12;
    private static final int DEALT_MOST = 30;

    private final AppContext context;
    private final Background.Newest listing;
    private final Background.Newest planning;
    private final ReadOnlyObjectWrapper<Picture> picture = new ReadOnlyObjectWrapper<>(Picture.NOTHING);
    private final ReadOnlyIntegerWrapper open = new ReadOnlyIntegerWrapper();
    private final ObjectProperty<@Nullable Row> chosen = new SimpleObjectProperty<>();
    private final ReadOnlyObjectWrapper<@Nullable Plan> plan = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");
    private boolean shown;

    /** A finding in the place that is held open. */
    public record Row(OpenPlace openPlace, Findings.Listed listed) {
        /** What looks wrong. */
        Finding finding() {
            return listed.found().finding();
        }
    }

    /**
     * What needs attention and is no harm to a file.
     *
     * @param dismissed what somebody said about it; empty when nobody did
     */
    public record Warned(OpenVault vault, Concern concern, Optional<Decision> dismissed) {
        /** What is wrong, and where somebody dismissed it, who did and why. */
        String words() {
            return dismissed
                    .map(d -> concern.words() + " · " + Words.of("mend.state.DISMISSED", d.who(), d.reason()))
                    .orElse(concern.words());
        }
    }

    /**
     * All that is to be shown.
     *
     * @param open what needs attention, the latest first
     * @param dealt what was dealt with, or closed by itself, the latest first
     * @param looked when all was last looked at; empty when it never was
     * @param pausing whether rules let nothing go until somebody has decided
     * @param check when a vault was last checked in full, the longest ago, and what came of it, as a message
     * @param warnings what is late, away, full or failing, dismissed or not; Protection has more of it
     */
    public record Picture(
            List<Row> open,
            List<Row> dealt,
            Optional<Instant> looked,
            boolean pausing,
            List<Warned> warnings,
            String check) {
        static final Picture NOTHING = new Picture(List.of(), List.of(), Optional.empty(), false, List.of(), "");

        /** Copies the lists. */
        public Picture {
            open = List.copyOf(open);
            dealt = List.copyOf(dealt);
            warnings = List.copyOf(warnings);
        }
    }

    /**
     * What mending would do.
     *
     * @param row the finding
     * @param plan file by file; null when nothing can be mended
     * @param days how many changes there were each day around it, by the day since 1970
     * @param day on which it happened
     */
    public record Plan(Row row, @Nullable RestorePlan plan, Map<Long, Integer> days, long day) {}

    /** Findings of all open vaults. */
    public MendModel(AppContext context) {
        this.context = context;
        this.listing = context.background().new Newest();
        this.planning = context.background().new Newest();
        context.changesProperty().addListener((o, a, b) -> reload());
        chosen.addListener((o, a, row) -> replan(row));
    }

    AppContext context() {
        return context;
    }

    /** All that is to be shown. */
    public ReadOnlyObjectProperty<Picture> pictureProperty() {
        return picture.getReadOnlyProperty();
    }

    /** How many findings need attention. */
    public ReadOnlyIntegerProperty openProperty() {
        return open.getReadOnlyProperty();
    }

    /** The finding that is shown; null when there is none. */
    public ObjectProperty<@Nullable Row> chosenProperty() {
        return chosen;
    }

    /** What mending it would do; null while that is not known. */
    public ReadOnlyObjectProperty<@Nullable Plan> planProperty() {
        return plan.getReadOnlyProperty();
    }

    /** What went wrong, as a message; empty when nothing did. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Looks again at what is known. */
    public void reload() {
        List<OpenPlace> places = List.copyOf(context.places());
        String who = context.settings().who();
        Instant now = context.clock().instant();
        ZoneId zone = context.zone();
        listing.ask(() -> picture(places, who, now, zone), this::show, e -> problem.set(Failures.words(e)));
    }

    private static Picture picture(List<OpenPlace> places, String who, Instant now, ZoneId zone) throws IOException {
        List<Row> open = new ArrayList<>();
        List<Row> dealt = new ArrayList<>();
        Set<OpenVault> vaults = new LinkedHashSet<>();
        places.forEach(h -> vaults.add(h.vault()));
        Optional<Instant> looked = Optional.empty();
        boolean pausing = false;
        List<Warned> warnings = new ArrayList<>();
        List<Optional<LastCheck>> checks = new ArrayList<>();
        for (OpenVault vault : vaults) {
            Findings findings = new Findings(vault, who);
            pausing |= findings.pausing(now).isPresent();
            try (Reading reading = vault.read()) {
                checks.add(LastCheck.of(reading));
            }
            Map<String, Decision> dismissed = new Dismissals(vault).all();
            Concern.warnings(vault, who, now, zone)
                    .forEach(c -> warnings.add(new Warned(vault, c, Optional.ofNullable(dismissed.get(c.id())))));
            Optional<Instant> at = findings.looked();
            looked = looked.isEmpty() || at.isPresent() && at.get().isBefore(looked.get()) ? at : looked;
            for (Findings.Listed l : findings.all()) {
                places.stream()
                        .filter(h -> h.vault().equals(vault)
                                && h.place().id() == l.place().id())
                        .findFirst()
                        .ifPresent(h -> (l.state() == Findings.State.OPEN ? open : dealt).add(new Row(h, l)));
            }
        }
        return new Picture(
                open,
                dealt.subList(0, Math.min(DEALT_MOST, dealt.size())),
                looked,
                pausing,
                warnings,
                check(checks, now, zone));
    }

    /** Of several vaults, what there is to say of the one that was never checked, or longest ago. */
    private static String check(List<Optional<LastCheck>> checks, Instant now, ZoneId zone) {
        return checks.stream()
                .min(Comparator.comparing(c -> c.map(LastCheck::at).orElse(Instant.MIN)))
                .map(c -> LastCheck.words(c, now, zone))
                .orElse("");
    }

    private void show(Picture now) {
        Row before = chosen.get();
        picture.set(now);
        open.set(now.open().size());
        Row same = before == null ? null : find(now, before.listed().id());
        chosen.set(
                same != null ? same : now.open().isEmpty() ? null : now.open().get(0));
    }

    private static @Nullable Row find(Picture in, String id) {
        for (List<Row> rows : List.of(in.open(), in.dealt())) {
            for (Row row : rows) {
                if (row.listed().id().equals(id)) {
                    return row;
                }
            }
        }
        return null;
    }

    /** It is not shown any more, or not yet: what mending would do is not worked out, since it may be about a million files. */
    public void leave() {
        shown = false;
        planning.drop();
        plan.set(null);
    }

    /** It is shown. */
    public void comeBack() {
        if (!shown) {
            shown = true;
            replan(chosen.get());
        }
    }

    private void replan(@Nullable Row row) {
        problem.set("");
        if (row == null || !shown) {
            planning.drop();
            plan.set(null);
            return;
        }
        Plan before = plan.get();
        if (before == null || !before.row().listed().id().equals(row.listed().id())) {
            plan.set(null);
        }
        planning.ask(progress -> plan(row, progress), now -> {}, plan::set, e -> problem.set(Failures.words(e)));
    }

    private Plan plan(Row row, Progress progress) throws IOException {
        Finding f = row.finding();
        long day = f.from().getEpochSecond() / Duration.ofDays(1).toSeconds();
        Map<Long, Integer> days = new TreeMap<>();
        try (Reading reading = row.openPlace().vault().read()) {
            reading.changes()
                    .density(row.openPlace().place(), (day + DAYS_AFTER - DAYS) * 24, (day + DAYS_AFTER) * 24)
                    .forEach((hour, changes) -> days.merge(hour / 24, changes, Integer::sum));
        }
        boolean any = row.listed().found().count(Found.Fate.TO_MEND) > 0;
        RestorePlan made = any
                ? new Findings(row.openPlace().vault(), context.settings().who())
                        .plan(row.listed(), context.work(row.openPlace()), progress)
                : null;
        return new Plan(row, made, days, day);
    }

    /** Says that nothing has to be done about a warning, as long as it is so. */
    void dismiss(Warned warned, String reason) {
        String who = context.settings().who();
        decide(() -> new Dismissals(warned.vault())
                .dismiss(warned.concern(), context.clock().instant(), who, reason));
    }

    /** A warning needs attention after all. */
    void reopen(Warned warned) {
        decide(() -> new Dismissals(warned.vault()).takeBack(warned.concern()));
    }

    private void decide(Deciding deciding) {
        context.background()
                .run(
                        () -> {
                            deciding.run();
                            return true;
                        },
                        is -> context.changed(),
                        e -> problem.set(Failures.words(e)));
    }

    /** Something that writes a decision. */
    private interface Deciding {
        void run() throws IOException;
    }

    /** Looks into what is new now, as a job. */
    public void look() {
        List<OpenVault> vaults = List.copyOf(context.vaults().values());
        context.jobs()
                .start(
                        Words.of("job.health"),
                        progress -> {
                            for (OpenVault vault : vaults) {
                                new HealthCheck(vault, context.clock(), false).run(progress);
                            }
                            return true;
                        },
                        ok -> reload(),
                        e -> problem.set(Failures.words(e)));
    }

    /** Hears what became of mending. */
    public interface Hearer {
        /** It was done. */
        void done(String words, boolean undo);
    }

    /** Mends the chosen finding, as a job, and goes on to the next one. */
    public void mend(Hearer hearer) {
        Row row = chosen.get();
        if (row == null || row.listed().found().count(Found.Fate.TO_MEND) == 0) {
            return;
        }
        context.jobs()
                .start(
                        Words.of("job.mend", row.finding().words()),
                        progress -> {
                            Findings findings = new Findings(
                                    row.openPlace().vault(), context.settings().who());
                            RestoreResult result = findings.mend(
                                    row.listed(),
                                    context.work(row.openPlace()),
                                    context.clock().instant(),
                                    progress);
                            new HealthCheck(row.openPlace().vault(), context.clock(), false).run(progress);
                            return result;
                        },
                        result -> {
                            hearer.done(words(result), result.action() != 0);
                            next(row);
                            context.changed();
                        },
                        e -> {
                            problem.set(Failures.words(e));
                            context.changed();
                        });
    }

    private static String words(RestoreResult result) {
        long done = result.count(RestoreResult.Outcome.DONE);
        long failed = result.count(RestoreResult.Outcome.FAILED);
        String words = Words.of("mend.done", done);
        if (failed > 0) {
            String why = result.items().stream()
                    .filter(i -> i.outcome() == RestoreResult.Outcome.FAILED)
                    .map(RestoreResult.Item::why)
                    .findFirst()
                    .orElse("");
            words += " " + Words.of("mend.failed", failed, why);
        }
        return result.cancelled() ? words + " " + Words.of("mend.cancelled") : words;
    }

    /** The one after this one is chosen, since this one is dealt with. */
    private void next(Row row) {
        List<Row> rows = picture.get().open();
        for (int i = 0; i < rows.size(); i++) {
            if (rows.get(i).listed().id().equals(row.listed().id())) {
                chosen.set(i + 1 < rows.size() ? rows.get(i + 1) : i > 0 ? rows.get(i - 1) : row);
            }
        }
    }

    /** How far somebody's “this is fine” goes. */
    public enum Reach {
        /** This once. */
        ONCE,
        /** For this file from now on. */
        FILE,
        /** For this kind of finding in the folder from now on. */
        FOLDER
    }

    /** Says that nothing has to be done. */
    public void fine(Reach reach, String reason, Hearer hearer) {
        Row row = chosen.get();
        if (row == null) {
            return;
        }
        Instant now = context.clock().instant();
        context.background()
                .run(
                        () -> {
                            Findings findings = new Findings(
                                    row.openPlace().vault(), context.settings().who());
                            if (reach == Reach.ONCE) {
                                findings.dismiss(row.listed(), now, reason);
                            } else {
                                findings.fine(row.listed(), reach == Reach.FOLDER, now, reason);
                            }
                            return true;
                        },
                        ok -> {
                            hearer.done(Words.of("mend.fine", row.finding().words()), false);
                            next(row);
                            reload();
                        },
                        e -> problem.set(Failures.words(e)));
    }

    /** Opens a finding again that was dealt with. */
    public void reopen() {
        Row row = chosen.get();
        if (row == null) {
            return;
        }
        context.background()
                .run(
                        () -> {
                            new Findings(
                                            row.openPlace().vault(),
                                            context.settings().who())
                                    .reopen(row.listed());
                            return true;
                        },
                        ok -> reload(),
                        e -> problem.set(Failures.words(e)));
    }

    /** What is there now, and what would be there after mending. Slow; never on the thread of the screen. */
    public Pair pair(Row row, int file) throws IOException {
        Found.OfFile of = row.listed().found().files().get(file);
        try (Reading reading = row.openPlace().vault().read()) {
            Line line = reading.line(of.mark().line()).orElseThrow();
            Optional<Side> now = line.removed().isPresent()
                    ? Optional.empty()
                    : Side.live(row.openPlace().place(), line.path());
            Optional<Version> good = line.version(of.mark().good());
            return new Pair(now, good.isPresent() ? Optional.of(Side.version(reading, good.get())) : Optional.empty());
        }
    }
}
