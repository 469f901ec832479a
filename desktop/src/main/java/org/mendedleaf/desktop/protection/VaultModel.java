package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.CheckSchedule;
import org.mendedleaf.core.check.DamagedChunks;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.check.SoundPacks;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyHealing;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** The vaults themselves and their copies, without a scene: how they stand, and what can be done. */
public final class VaultModel {

    private static final Duration PATIENCE = Duration.ofSeconds(10);

    private final AppContext context;
    private final Background.Newest question;
    private final ReadOnlyObjectWrapper<List<Row>> rows = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<List<Closed>> closed = new ReadOnlyObjectWrapper<>(List.of());
    /** What is said as soon as the list shows it too, never beside a list from before. */
    private String toSay = "";

    private final ReadOnlyObjectWrapper<String> said = new ReadOnlyObjectWrapper<>("");
    private final ReadOnlyObjectWrapper<@Nullable Asked> asked = new ReadOnlyObjectWrapper<>();

    /**
     * A version that is damaged, and that nobody has whole.
     *
     * @param openPlace its place; empty when that is not known any more
     */
    public record Lost(Optional<OpenPlace> openPlace, VaultCheck.LostVersion version) {}

    /**
     * A vault.
     *
     * @param storedBytes that it takes
     * @param freeBytes on its drive
     * @param check the last one of every byte
     * @param reading how far the one is that goes on; empty when none does
     * @param days how often it is; 0 for by hand
     * @param lost versions that nobody has whole
     */
    public record Row(
            OpenVault vault,
            long storedBytes,
            long freeBytes,
            Optional<LastCheck> check,
            Optional<SoundPacks.Share> reading,
            int days,
            List<Lost> lost,
            List<CopyStatus> copies) {
        /** Copies the lists. */
        public Row {
            lost = List.copyOf(lost);
            copies = List.copyOf(copies);
        }

        /** Where it is. */
        public Path folder() {
            return vault.folder().root();
        }
    }

    /**
     * A vault that cannot be opened.
     *
     * @param why in words
     * @param packs whether its packs are there, from which a catalogue can be made anew
     */
    public record Closed(Path folder, String why, boolean packs) {}

    /**
     * Something that is asked before it is done.
     *
     * @param words what would happen
     * @param go what the button says that does it
     */
    public record Asked(String words, String go, Runnable work) {}

    VaultModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
    }

    /** What is shared. */
    public AppContext context() {
        return context;
    }

    /** The vaults. */
    public ReadOnlyObjectProperty<List<Row>> rowsProperty() {
        return rows.getReadOnlyProperty();
    }

    /** The vaults that cannot be opened. */
    public ReadOnlyObjectProperty<List<Closed>> closedProperty() {
        return closed.getReadOnlyProperty();
    }

    /** What was done last, or why it was not, as a message. */
    public ReadOnlyObjectProperty<String> saidProperty() {
        return said.getReadOnlyProperty();
    }

    /** What is asked now; null when nothing is. */
    public ReadOnlyObjectProperty<@Nullable Asked> askedProperty() {
        return asked.getReadOnlyProperty();
    }

    /** Looks again. */
    public void reload() {
        List<OpenVault> vaults = context.vaults().entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .map(Map.Entry::getValue)
                .toList();
        List<OpenPlace> places = List.copyOf(context.places());
        Map<Path, String> failed = context.closedVaults();
        record Found(List<Row> rows, List<Closed> closed) {}
        question.ask(
                () -> {
                    List<Row> found = new ArrayList<>();
                    for (OpenVault vault : vaults) {
                        found.add(row(vault, places));
                    }
                    List<Closed> without = new ArrayList<>();
                    failed.forEach((folder, why) ->
                            without.add(new Closed(folder, why, Files.isDirectory(folder.resolve("packs")))));
                    return new Found(found, without);
                },
                found -> {
                    rows.set(found.rows());
                    closed.set(found.closed());
                    said.set(toSay);
                },
                e -> say(Failures.words(e)));
    }

    private Row row(OpenVault vault, List<OpenPlace> places) throws IOException {
        try (Reading reading = vault.read()) {
            List<Lost> lost = new ArrayList<>();
            for (VaultCheck.LostVersion v : DamagedChunks.lost(reading)) {
                Optional<Line> line = reading.line(v.line());
                lost.add(new Lost(
                        places.stream()
                                .filter(h -> h.vault().equals(vault)
                                        && line.isPresent()
                                        && h.place().id() == line.get().place().id())
                                .findFirst(),
                        v));
            }
            Optional<Instant> began = CheckSchedule.began(reading);
            return new Row(
                    vault,
                    reading.space().storedBytes(),
                    Files.getFileStore(vault.folder().root()).getUsableSpace(),
                    LastCheck.of(reading),
                    began.isEmpty() ? Optional.empty() : Optional.of(new SoundPacks(vault, began.get()).share()),
                    CheckSchedule.days(reading),
                    lost,
                    copies(vault).list());
        }
    }

    private Copies copies(OpenVault vault) {
        return new Copies(vault, context.clock(), context.settings().who());
    }

    /** Leaves what is asked undone. */
    public void leave() {
        asked.set(null);
    }

    private void ask(String words, String go, Runnable work) {
        say("");
        asked.set(new Asked(words, go, () -> {
            asked.set(null);
            work.run();
        }));
    }

    /** Begins a copy in a folder; where that is on the drive of the vault, it is asked first. */
    public void add(OpenVault vault, Path folder) {
        say("");
        context.background()
                .run(
                        () -> {
                            Copies copies = copies(vault);
                            return copies.wouldShareDrive(copies.check(folder));
                        },
                        same -> {
                            if (same) {
                                ask(Words.of("copies.sameDrive"), "vaultBox.allTheSame", () -> begin(vault, folder));
                            } else {
                                begin(vault, folder);
                            }
                        },
                        e -> say(Failures.words(e)));
    }

    private void begin(OpenVault vault, Path folder) {
        context.jobs()
                .start(
                        Words.of("job.copyVault"),
                        progress -> {
                            Copies copies = copies(vault);
                            CopyStatus begun = copies.add(folder);
                            context.background().onScreen(this::reload);
                            return copies.run(begun.copy(), progress);
                        },
                        written -> done(Words.of("cli.copyVault.added", folder, Formats.size(written))),
                        this::failed);
    }

    private void say(String words) {
        toSay = words;
        said.set(words);
    }

    private void done(String words) {
        toSay = words;
        context.changed();
        reload();
    }

    private void failed(Exception e) {
        toSay = Failures.words(e);
        reload();
    }

    /** Brings a copy in step now. */
    public void run(OpenVault vault, VaultCopy copy) {
        say("");
        context.jobs()
                .start(
                        Words.of("job.copyVault"),
                        progress -> copies(vault).run(copy, progress),
                        written -> done(Words.of("cli.copyVault.ran", copy.folder(), Formats.size(written))),
                        this::failed);
    }

    /** Reads every byte of a copy, and takes what is damaged again from the vault. */
    public void check(OpenVault vault, VaultCopy copy) {
        say("");
        context.jobs()
                .start(
                        Words.of("job.checkVault"),
                        progress -> new CopyHealing(copies(vault)).check(copy, progress),
                        checked -> done(Words.of(
                                checked.after().isClean() ? "cli.copyVault.sound" : "cli.copyVault.damaged",
                                copy.folder(),
                                checked.after().versions(),
                                Formats.size(checked.after().bytes()),
                                checked.after().lost().size())),
                        this::failed);
    }

    /** Asks whether a copy shall be kept in step no longer. */
    public void end(OpenVault vault, VaultCopy copy) {
        ask(
                Words.of("vaultBox.end.what", copy.folder()),
                "vaultBox.end",
                () -> context.background()
                        .run(
                                () -> {
                                    copies(vault).end(copy);
                                    return true;
                                },
                                is -> done(Words.of("cli.copyVault.ended", copy.folder())),
                                this::failed));
    }

    /** Reads every byte of a vault and of its copies now, and heals what is damaged. */
    public void check(OpenVault vault) {
        say("");
        context.jobs()
                .start(
                        Words.of("job.checkVault"),
                        progress -> new Healing(vault, context.registry(), context.clock(), context.authors())
                                .run(progress),
                        result -> done(words(vault, result)),
                        this::failed);
    }

    private static String words(OpenVault vault, Healing.Result result) {
        if (result.after().cancelled()) {
            return Words.of("vaultBox.cancelled");
        }
        int lost = result.after().lost().size();
        String key = lost > 0
                ? "vaultBox.read.lost"
                : !result.after().isClean()
                        ? "vaultBox.read.damaged"
                        : result.before().isClean() ? "vaultBox.read.whole" : "vaultBox.read.healed";
        return Words.of(
                key,
                vault.folder().root(),
                result.after().versions(),
                Formats.size(result.after().bytes()),
                result.healed().size(),
                lost,
                result.after().damages().size());
    }

    /** Chooses how often every byte is read. */
    public void every(OpenVault vault, int days) {
        context.background()
                .run(
                        () -> {
                            CheckSchedule.choose(vault, days);
                            return days;
                        },
                        is -> done(Words.of("cli.check.schedule", vault.folder().root(), days)),
                        this::failed);
    }

    /** Asks whether the catalogue shall be made anew from the packs. */
    public void rebuild(Path folder) {
        ask(
                Words.of("vaultBox.rebuild.what"),
                "vaultBox.rebuild.go",
                () -> context.jobs()
                        .start(
                                Words.of("job.rebuild"),
                                progress -> Rebuild.run(folder, Words.of("desktop.holder"), PATIENCE, context.clock()),
                                report -> rebuilt(folder, report),
                                this::failed));
    }

    private void rebuilt(Path folder, Rebuild.Report report) {
        String words = report.words()
                + (report.basis() == Rebuild.Basis.PACKS ? "" : " " + Words.of("cli.check.basis." + report.basis()));
        if (context.closedVaults().containsKey(folder)) {
            context.open(() -> done(words));
        } else {
            done(words);
        }
    }
}
