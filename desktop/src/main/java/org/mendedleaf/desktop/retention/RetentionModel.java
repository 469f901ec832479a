package org.mendedleaf.desktop.retention;

import java.io.File;
import java.io.IOException;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.Labels;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemovedFile;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.HoldEffect;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.retention.KeptReport;
import org.mendedleaf.core.retention.Pressure;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.SpaceReport;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.SpaceTree;
import org.mendedleaf.core.retention.StandingRules;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.Reports;

/** The Retention screen without its scene: where the space goes, what is kept, what would go, what is held and what waits. */
public final class RetentionModel {

    private static final int LARGEST = 12;

    private final AppContext context;
    private final Background.Newest question;
    private final Background.Newest liftQuestion;
    private final ObjectProperty<@Nullable OpenVault> vault = new SimpleObjectProperty<>();
    private final ReadOnlyObjectWrapper<@Nullable Picture> picture = new ReadOnlyObjectWrapper<>();
    private final RuleProposal proposal;
    private final RemovedFiles removedFiles;
    private final ReadOnlyObjectWrapper<String> message = new ReadOnlyObjectWrapper<>("");

    /**
     * A vault as it was at one moment.
     *
     * @param waiting what was let go and can be taken back, that which is due first before the others
     * @param removed files that can be brought back, the last removed first
     * @param caps what rules with a limit of space take of it
     * @param largest files whose versions take most
     * @param heldVersions what the version is called that a hold is on, by the id of the hold
     */
    public record Picture(
            OpenVault vault,
            VersionTable table,
            SpaceTable space,
            SpaceTree tree,
            SpaceReport report,
            RuleSet rules,
            List<Hold> holds,
            Verdicts verdicts,
            List<PendingDeletion> waiting,
            List<RemovedFile> removed,
            List<Pressure.Cap> caps,
            List<SpaceTree.Node> largest,
            Map<Long, String> heldVersions) {

        /** Copies. */
        public Picture {
            largest = List.copyOf(largest);
            caps = List.copyOf(caps);
            heldVersions = Map.copyOf(heldVersions);
            holds = List.copyOf(holds);
            waiting = List.copyOf(waiting);
            removed = List.copyOf(removed);
        }

        /** What people call a place. */
        public String place(long id) {
            return table.places().stream()
                    .filter(p -> p.id() == id)
                    .map(Place::label)
                    .findFirst()
                    .orElse("");
        }
    }

    /** The model over this desk. */
    public RetentionModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
        this.liftQuestion = context.background().new Newest();
        this.proposal = new RuleProposal(context, this);
        this.removedFiles = new RemovedFiles(context, this);
        vault.addListener((o, a, b) -> {
            proposal.forget();
            reload();
        });
    }

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** The vault that is looked at; null while none is open. */
    public ObjectProperty<@Nullable OpenVault> vaultProperty() {
        return vault;
    }

    /** All open vaults. */
    public List<OpenVault> vaults() {
        return context.vaults().values().stream()
                .sorted(Comparator.comparing(v -> v.folder().root()))
                .toList();
    }

    /** The vault as it was looked at last; null before that. */
    public ReadOnlyObjectProperty<@Nullable Picture> pictureProperty() {
        return picture.getReadOnlyProperty();
    }

    /** What was done or went wrong; empty for nothing. */
    public ReadOnlyObjectProperty<String> messageProperty() {
        return message.getReadOnlyProperty();
    }

    /** Rules as somebody changes them. */
    public RuleProposal proposal() {
        return proposal;
    }

    /** What can be done with removed files. */
    public RemovedFiles removedFiles() {
        return removedFiles;
    }

    void say(String words) {
        message.set(words);
    }

    /** Looks again. */
    public void reload() {
        OpenVault of = vault.get();
        if (of == null) {
            List<OpenVault> all = vaults();
            if (!all.isEmpty()) {
                vault.set(all.get(0));
            }
            return;
        }
        question.ask(() -> load(of), this::took, e -> message.set(Failures.words(e)));
    }

    private Picture load(OpenVault of) throws IOException {
        try (Reading reading = of.read()) {
            Instant now = TrustedTime.of(reading, context.clock().instant());
            VersionTable table = VersionTable.of(reading);
            SpaceTable space = new SpaceTable(table);
            RuleSet rules = RuleSets.of(reading);
            List<Hold> holds = HoldStore.of(reading).standing().stream()
                    .filter(h -> h.holds(now))
                    .toList();
            SpaceReport report = SpaceReport.of(of.folder(), space);
            Verdicts verdicts = StandingRules.outlook(
                    Verdicts.of(table, holds, rules, now, context.calendar()), space, report.free());
            SpaceTree tree = SpaceTree.of(table, now);
            return new Picture(
                    of,
                    table,
                    space,
                    tree,
                    report,
                    rules,
                    holds,
                    verdicts,
                    PendingDeletionStore.of(reading).waiting(),
                    RemovedFile.of(reading),
                    Pressure.taken(verdicts),
                    tree.largest(LARGEST),
                    heldVersions(reading, table, holds));
        }
    }

    private static Map<Long, String> heldVersions(Reading reading, VersionTable table, List<Hold> holds)
            throws IOException {
        Map<Long, String> called = new HashMap<>();
        for (Place place : table.places()) {
            Labels labels = Labels.of(reading, place);
            holds.stream()
                    .filter(h -> h.place() == place.id() && h.kind() == Hold.Kind.VERSION)
                    .forEach(h -> called.put(h.id(), labels.of(h.line(), h.number())));
        }
        return called;
    }

    private void took(Picture p) {
        picture.set(p);
        proposal.took(p);
    }

    /** Does work as a job; what it comes to is told, or said on the screen when it fails. Then the vault is looked at again. */
    <T> void job(String title, Work<T> work, Consumer<T> done) {
        job(title, work, done, e -> message.set(Failures.words(e)));
    }

    /** The same with a hearer for what goes wrong. */
    <T> void job(String title, Work<T> work, Consumer<T> done, Consumer<Exception> failed) {
        context.jobs()
                .start(
                        Words.of(title),
                        work::run,
                        (T result) -> {
                            done.accept(result);
                            context.changed();
                            reload();
                        },
                        e -> {
                            failed.accept(e);
                            reload();
                        });
    }

    /** Work that can take long. */
    interface Work<T> {
        T run(Progress progress) throws IOException;
    }

    /** Places in other systems in which single versions can be erased. */
    public List<Place> thinnable() {
        Picture p = picture.get();
        return p == null
                ? List.of()
                : p.table().places().stream()
                        .filter(place -> place.isOutside()
                                && context.registry()
                                        .kind(place)
                                        .filter(k -> k.can(Capability.ERASING))
                                        .isPresent())
                        .toList();
    }

    /** The places of the vault that is looked at. */
    List<Place> places() {
        return context.places().stream()
                .filter(h -> h.vault().equals(vaultProperty().get()))
                .map(OpenPlace::place)
                .toList();
    }

    /**
     * Writes what is kept and until when into a file.
     *
     * @param place id of the place that it is about; 0 for all
     * @param day as somebody types it; empty for now
     */
    void report(long place, String day, java.nio.file.Path to) {
        Picture p = picture.get();
        if (p == null) {
            return;
        }
        Instant now = context.clock().instant();
        new Reports(context)
                .write(
                        to,
                        () -> {
                            Optional<Instant> on = day.isEmpty()
                                    ? Optional.empty()
                                    : Optional.of(new MomentText(context.zone(), now, MomentText.NOWHERE).read(day));
                            try (Reading reading = p.vault().read()) {
                                return new KeptReport(reading, p.verdicts(), on, now, context.zone()).of(place, "");
                            }
                        },
                        (words, trouble) -> message.set(words));
    }

    /** Writes a file in the background, and says so. */
    void write(File to, FileWork work) {
        context.background()
                .run(
                        () -> {
                            work.write(to);
                            return to;
                        },
                        f -> message.set(Words.of("retention.reported", f.getName())),
                        e -> message.set(Failures.words(e)));
    }

    /** What writes a file. */
    interface FileWork {
        void write(File to) throws IOException;
    }

    /** Gives space back as a job; with {@code atOnce}, what waits is gone with that. */
    public void reclaim(boolean atOnce) {
        Picture p = picture.get();
        if (p != null) {
            job(
                    "job.reclaim",
                    progress -> {
                        Reclaim reclaim = new Reclaim(p.vault(), context.clock());
                        return atOnce ? reclaim.endGrace(context.settings().who(), progress) : reclaim.run(progress);
                    },
                    r -> message.set(Words.of(
                            r.proof().map(x -> x.leftIn().isEmpty()).orElse(false)
                                    ? "retention.reclaimedProved"
                                    : "retention.reclaimed",
                            r.versions(),
                            Formats.size(r.freedBytes()))));
        }
    }

    /** Takes back everything that one action let go. */
    public void takeBack(long action) {
        Picture p = picture.get();
        if (p != null) {
            job(
                    "job.undo",
                    progress -> {
                        org.mendedleaf.core.journal.Action a;
                        try (Reading reading = p.vault().read()) {
                            a = org.mendedleaf.core.catalogue.JournalStore.of(reading)
                                    .get(action)
                                    .orElseThrow();
                        }
                        Place place = p.table().places().stream()
                                .filter(x -> x.id() == a.place())
                                .findFirst()
                                .orElseThrow();
                        return context.work(new OpenPlace(p.vault(), place)).undo(a, progress);
                    },
                    u -> message.set(
                            u.failed().isEmpty()
                                    ? Words.of("retention.takenBack", u.done().size())
                                    : String.join(" ", u.failed())));
        }
    }

    /** Lifts a hold. */
    public void lift(Hold hold) {
        Picture p = picture.get();
        if (p != null) {
            job(
                    "job.unhold",
                    progress -> new Holds(
                                    p.vault(),
                                    context.clock(),
                                    context.settings().who())
                            .lift(hold.id()),
                    h -> message.set(Words.of("retention.lifted", h.reason())));
        }
    }

    /** Tells what the rules would let go if a hold were lifted; only the newest question is answered. */
    public void without(Hold hold, Consumer<ThinPlan> told) {
        Picture p = picture.get();
        if (p == null) {
            return;
        }
        liftQuestion.ask(
                () -> {
                    Instant now = context.clock().instant();
                    return HoldEffect.lifting(p.verdicts(), p.space(), hold, now, context.calendar());
                },
                told,
                e -> message.set(Failures.words(e)));
    }
}
