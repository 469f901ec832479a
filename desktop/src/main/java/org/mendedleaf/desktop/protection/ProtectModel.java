package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.nio.file.FileStore;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.mendedleaf.core.capture.Exclusions;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** Protecting a folder, without its scene: what is typed, what it would mean, and doing it. */
public final class ProtectModel {

    private static final int COUNT_MOST = 2_000_000;

    private final AppContext context;
    private final Background.Newest question;
    private final StringProperty folder = new SimpleStringProperty("");
    private final StringProperty vault = new SimpleStringProperty("");
    private final StringProperty exclusions = new SimpleStringProperty("");
    private final ObjectProperty<Rhythm> rhythm = new SimpleObjectProperty<>(Rhythm.ON_SAVE);
    private final ReadOnlyStringWrapper outlook = new ReadOnlyStringWrapper("");
    private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
    private final ReadOnlyBooleanWrapper ready = new ReadOnlyBooleanWrapper();

    /** The model over this desk. */
    public ProtectModel(AppContext context) {
        this.context = context;
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

    private record Outlook(String words, String problem) {}

    private void look() {
        String typedFolder = folder.get().strip();
        String typedVault = vault.get().strip();
        ready.set(false);
        problem.set("");
        if (typedFolder.isEmpty() || typedVault.isEmpty()) {
            question.drop();
            outlook.set(Words.of("protect.choose"));
            return;
        }
        outlook.set(Words.of("protect.counting"));
        List<String> patterns = patterns();
        List<OpenPlace> there = List.copyOf(context.places());
        question.ask(
                () -> outlook(Path.of(typedFolder), Path.of(typedVault), patterns, there),
                found -> {
                    outlook.set(found.words());
                    problem.set(found.problem());
                    ready.set(found.problem().isEmpty());
                },
                e -> {
                    outlook.set("");
                    problem.set(String.valueOf(e.getMessage()));
                });
    }

    private static Outlook outlook(Path folder, Path vault, List<String> patterns, List<OpenPlace> places)
            throws IOException {
        Path root;
        try {
            root = Protect.check(folder, vault, patterns);
        } catch (IllegalArgumentException e) {
            return new Outlook("", String.valueOf(e.getMessage()));
        }
        Path in = Protect.realOfNew(vault);
        boolean already = places.stream()
                .anyMatch(h -> !h.place().isOutside()
                        && h.place().root().equals(root)
                        && h.vault().folder().root().equals(in));
        if (already) {
            return new Outlook("", Words.of("protect.already", root));
        }
        Count count = new Count(root, new Exclusions(patterns));
        Files.walkFileTree(root, count);
        Path there = Protect.realOfNew(vault);
        while (!Files.exists(there) && there.getParent() != null) {
            there = there.getParent();
        }
        FileStore disk = Files.getFileStore(there);
        boolean sameDisk = disk.equals(Files.getFileStore(root));
        String words = Words.of(
                "protect.outlook",
                Formats.number(count.files),
                Formats.size(count.bytes),
                Formats.size(disk.getUsableSpace()),
                count.files);
        return new Outlook(words + (sameDisk ? " " + Words.of("protect.sameDisk") : ""), "");
    }

    private static final class Count extends SimpleFileVisitor<Path> {
        private final Path root;
        private final Exclusions exclusions;
        private long files;
        private long bytes;

        Count(Path root, Exclusions exclusions) {
            this.root = root;
            this.exclusions = exclusions;
        }

        private boolean isOut(Path path, boolean isFolder) {
            Path parent = path.getParent();
            String in = parent == null ? "" : RawNames.text(root.relativize(parent));
            Path name = path.getFileName();
            return name != null
                    && exclusions.find(in, RawNames.text(name), isFolder).isPresent();
        }

        @Override
        public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes a) {
            boolean out = !folder.equals(root) && isOut(folder, true);
            return out ? FileVisitResult.SKIP_SUBTREE : FileVisitResult.CONTINUE;
        }

        @Override
        public FileVisitResult visitFile(Path file, BasicFileAttributes a) {
            if (!isOut(file, false)) {
                files++;
                bytes += a.size();
            }
            return files > COUNT_MOST ? FileVisitResult.TERMINATE : FileVisitResult.CONTINUE;
        }

        @Override
        public FileVisitResult visitFileFailed(Path file, IOException e) {
            return FileVisitResult.CONTINUE;
        }
    }

    /** Protects the folder; the first capture runs as a job. */
    public void protect(Consumer<OpenPlace> done) {
        ready.set(false);
        context.protect(
                Path.of(folder.get().strip()), Path.of(vault.get().strip()), rhythm.get(), patterns(), done, e -> {
                    problem.set(String.valueOf(e.getMessage()));
                    ready.set(true);
                });
    }
}
