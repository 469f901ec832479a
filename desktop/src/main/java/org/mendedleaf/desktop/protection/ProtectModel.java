package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.mendedleaf.core.capture.Exclusions;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.NetworkDrive;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.UsualRules;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** Protecting a folder, without its scene: what is typed, what it would mean, and doing it. */
public final class ProtectModel {

    /** From what was changed in this time it is told what a year will take. */
    private static final Duration LATELY = Duration.ofDays(30);

    private static final int MONTHS_OF_A_YEAR = 12;

    private final AppContext context;
    private final Background.Newest question;
    private final StringProperty folder = new SimpleStringProperty("");
    private final StringProperty vault = new SimpleStringProperty("");
    private final StringProperty exclusions = new SimpleStringProperty("");
    private final ObjectProperty<Rhythm> rhythm = new SimpleObjectProperty<>(Rhythm.ON_SAVE);
    private final StringProperty copy = new SimpleStringProperty("");
    private final ObjectProperty<UsualRules> keeping = new SimpleObjectProperty<>(UsualRules.EVERYTHING);
    private final ReadOnlyStringWrapper forecast = new ReadOnlyStringWrapper("");
    private final BooleanProperty always = new SimpleBooleanProperty();
    private final ReadOnlyObjectWrapper<List<FolderSuggestion>> suggestions = new ReadOnlyObjectWrapper<>(List.of());
    private final Steps steps;
    private final ReadOnlyStringWrapper outlook = new ReadOnlyStringWrapper("");
    private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
    private final ReadOnlyBooleanWrapper ready = new ReadOnlyBooleanWrapper();

    /** What comes after the folder is protected. */
    interface Steps {
        /** Begins a copy of the vault. */
        void copy(OpenPlace openPlace, Path folder) throws IOException;

        /** Has rules count for the folder. */
        void keep(OpenPlace openPlace, UsualRules rules) throws IOException;

        /** Has the service run always. */
        void always() throws IOException;
    }

    /** The model over this desk. */
    public ProtectModel(AppContext context) {
        this(context, new Steps() {
            @Override
            public void copy(OpenPlace openPlace, Path folder) throws IOException {
                new Copies(
                                openPlace.vault(),
                                context.clock(),
                                context.settings().who())
                        .add(folder);
            }

            @Override
            public void keep(OpenPlace openPlace, UsualRules rules) throws IOException {
                rules.set(
                        openPlace.vault(),
                        openPlace.place(),
                        context.clock(),
                        context.settings().who());
            }

            @Override
            public void always() throws IOException {
                ServiceControl.here(context.settings().folder(), System.getenv())
                        .install();
            }
        });
    }

    ProtectModel(AppContext context, Steps steps) {
        this.context = context;
        this.steps = steps;
        this.question = context.background().new Newest();
        folder.addListener((o, a, b) -> look());
        vault.addListener((o, a, b) -> look());
        exclusions.addListener((o, a, b) -> look());
    }

    /** Suggests the folder that most people mean, and a vault beside it. */
    public void suggest() {
        Path user = UserFolders.home();
        Path documents = user.resolve("Documents");
        folder.set(Files.isDirectory(documents) ? documents.toString() : "");
        vault.set(context.settings().vaults().stream()
                .findFirst()
                .orElse(user.resolve(Words.of("protect.vaultName")))
                .toString());
        exclusions.set("");
        look();
        context.background()
                .run(
                        () -> FolderSuggestion.of(System.getenv()),
                        suggestions::set,
                        e -> org.slf4j.LoggerFactory.getLogger(ProtectModel.class)
                                .debug("no suggestions", e));
    }

    /** Folders of this user that are likely meant. */
    ReadOnlyObjectProperty<List<FolderSuggestion>> suggestionsProperty() {
        return suggestions.getReadOnlyProperty();
    }

    /** Where a copy of the vault shall be kept, as it is typed; empty for none. */
    StringProperty copyProperty() {
        return copy;
    }

    /** What shall be kept of the folder. */
    ObjectProperty<UsualRules> keepingProperty() {
        return keeping;
    }

    /** What the past of the folder will take, from what was changed lately; empty while that is not known. */
    ReadOnlyStringProperty forecastProperty() {
        return forecast.getReadOnlyProperty();
    }

    /** Whether the service shall run always from then on. */
    BooleanProperty alwaysProperty() {
        return always;
    }

    /** Which folder shall be protected, as it is typed. */
    public StringProperty folderProperty() {
        return folder;
    }

    /** Where its past shall be kept, as it is typed. */
    public StringProperty vaultProperty() {
        return vault;
    }

    /** Patterns of what is left out, separated by commas. */
    public StringProperty exclusionsProperty() {
        return exclusions;
    }

    /** How often. */
    public ObjectProperty<Rhythm> rhythmProperty() {
        return rhythm;
    }

    /** What protecting would mean, in numbers. */
    public ReadOnlyStringProperty outlookProperty() {
        return outlook.getReadOnlyProperty();
    }

    /** What is wrong with what was typed; empty when nothing is. */
    public ReadOnlyStringProperty problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Whether it can be done. */
    public ReadOnlyBooleanProperty readyProperty() {
        return ready.getReadOnlyProperty();
    }

    private List<String> patterns() {
        return Arrays.stream(exclusions.get().split(","))
                .map(String::strip)
                .filter(p -> !p.isEmpty())
                .toList();
    }

    private record Outlook(String words, String problem, String forecast) {
        Outlook(String words, String problem) {
            this(words, problem, "");
        }
    }

    private void look() {
        String typedFolder = folder.get().strip();
        String typedVault = vault.get().strip();
        ready.set(false);
        problem.set("");
        forecast.set("");
        if (typedFolder.isEmpty() || typedVault.isEmpty()) {
            question.drop();
            outlook.set(Words.of("protect.choose"));
            return;
        }
        outlook.set(Words.of("protect.counting"));
        List<String> patterns = patterns();
        List<OpenPlace> there = List.copyOf(context.places());
        question.ask(
                () -> outlook(
                        Path.of(typedFolder),
                        Path.of(typedVault),
                        patterns,
                        there,
                        context.clock().instant().minus(LATELY)),
                found -> {
                    outlook.set(found.words());
                    forecast.set(found.forecast());
                    problem.set(found.problem());
                    ready.set(found.problem().isEmpty());
                },
                e -> {
                    outlook.set("");
                    problem.set(Failures.named(e));
                });
    }

    private static Outlook outlook(
            Path folder, Path vault, List<String> patterns, List<OpenPlace> places, Instant lately) throws IOException {
        Path root;
        try {
            root = Protect.check(folder, vault, patterns);
        } catch (IllegalArgumentException e) {
            return new Outlook("", Failures.named(e));
        }
        Path in = Protect.realOfNew(vault);
        boolean already = places.stream()
                .anyMatch(h -> !h.place().isOutside()
                        && h.place().root().equals(root)
                        && h.vault().folder().root().equals(in));
        if (already) {
            return new Outlook("", Words.of("protect.already", root));
        }
        FolderSuggestion.Counter count = new FolderSuggestion.Counter(root, new Exclusions(patterns), lately);
        Files.walkFileTree(root, count);
        Path there = Protect.realOfNew(vault);
        while (!Files.exists(there) && there.getParent() != null) {
            there = there.getParent();
        }
        FileStore disk = Files.getFileStore(there);
        boolean sameDisk = disk.equals(Files.getFileStore(root));
        String words = Words.of(
                "protect.outlook",
                Formats.number(count.files()),
                Formats.size(count.bytes()),
                Formats.size(disk.getUsableSpace()),
                count.files());
        String network = NetworkDrive.holds(root) ? " " + Words.of("protect.network") : "";
        return new Outlook(
                words + " " + Words.of(sameDisk ? "protect.sameDisk" : "protect.otherDisk") + network,
                "",
                forecast(count));
    }

    /** What is saved often is counted once here, and what is like what was there is stored once: the two go against each other. */
    private static String forecast(FolderSuggestion.Counter count) {
        long year = count.bytes() + count.changedBytes() * MONTHS_OF_A_YEAR;
        return count.changed() == 0
                ? Words.of("protect.forecast.none")
                : Words.of("protect.forecast", count.changed(), Formats.size(count.changedBytes()), Formats.size(year));
    }

    /** Protects the folder, and does what was chosen beside that; the first capture runs as a job. */
    public void protect(Consumer<OpenPlace> done) {
        ready.set(false);
        String copyTo = copy.get().strip();
        boolean stays = always.get();
        UsualRules rules = keeping.get();
        context.protect(
                Path.of(folder.get().strip()),
                Path.of(vault.get().strip()),
                rhythm.get(),
                patterns(),
                openPlace -> {
                    done.accept(openPlace);
                    after(openPlace, rules, copyTo, stays);
                },
                e -> {
                    problem.set(Failures.named(e));
                    ready.set(true);
                });
    }

    /** The folder is protected by then; what cannot be done beside that is said, and can be done later. */
    private void after(OpenPlace openPlace, UsualRules rules, String copyTo, boolean stays) {
        if (rules != UsualRules.EVERYTHING) {
            context.background()
                    .run(
                            () -> {
                                steps.keep(openPlace, rules);
                                return rules;
                            },
                            set -> context.changed(),
                            e -> context.tell(Words.of("protect.keep.failed", Failures.named(e))));
        }
        if (!copyTo.isEmpty()) {
            context.background()
                    .run(
                            () -> {
                                steps.copy(openPlace, Path.of(copyTo));
                                return copyTo;
                            },
                            to -> context.changed(),
                            e -> context.tell(Words.of("protect.copy.failed", Failures.named(e))));
        }
        if (stays) {
            context.background()
                    .run(
                            () -> {
                                steps.always();
                                return true;
                            },
                            is -> context.leaveToService(),
                            e -> context.tell(Failures.named(e)));
        }
    }
}
