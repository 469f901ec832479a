package org.mendedleaf.cli.revise;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NeedsYesException;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.intake.Announcer;
import org.mendedleaf.core.intake.Arrivals;
import org.mendedleaf.core.intake.Intake;
import org.mendedleaf.core.intake.IntakePlan;
import org.mendedleaf.core.intake.IntakeRow;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.intake.NameTaken;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.recovery.FileNames;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Puts files in as next versions of lines or as new files, in a folder or in another system; doubtful ones are asked about. */
@Command(name = "put", description = "${bundle:cli.put}")
public final class PutCommand extends Base {

    @Parameters(paramLabel = "FILE|DIR|-", arity = "0..*", descriptionKey = "cli.put.file")
    List<Path> files = List.of();

    @Option(names = "--as", paramLabel = "PATH", descriptionKey = "cli.put.as")
    @Nullable
    Path as;

    @Option(names = "--into", paramLabel = "FOLDER", descriptionKey = "cli.put.into")
    @Nullable
    Path into;

    @Option(names = "--arrived", paramLabel = "NAME", descriptionKey = "cli.put.arrived")
    @Nullable
    String arrived;

    @Option(names = "--note", paramLabel = "TEXT", descriptionKey = "cli.put.note")
    String note = "";

    @Option(names = "--draft", descriptionKey = "cli.put.draft")
    boolean draft;

    @Option(names = "--publish", descriptionKey = "cli.put.publish")
    boolean publish;

    @Option(names = "--yes", descriptionKey = "cli.put.yes")
    boolean yes;

    @Option(names = "--plan", descriptionKey = "cli.put.plan")
    boolean plan;

    @Option(names = "--take", descriptionKey = "cli.put.take")
    boolean take;

    @Option(names = "--on-taken", paramLabel = "version|keep-both|skip", descriptionKey = "cli.put.onTaken")
    @Nullable
    String onTaken;

    @Option(names = "--hidden", descriptionKey = "cli.put.hidden")
    boolean hidden;

    @Option(names = "--tell", paramLabel = "NAME", descriptionKey = "cli.put.tell")
    List<String> tell = new ArrayList<>();

    @Mixin
    private final CardOptions card = new CardOptions();

    /** So many of what came are looked through for a name. */
    private static final int ARRIVALS = 1000;

    private String author = "";

    public PutCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (arrived == null && files.isEmpty()
                || arrived != null && !files.isEmpty()
                || (as == null) == (into == null)
                || (as != null && files.size() > 1)
                || (arrived != null && as == null)) {
            throw new IllegalArgumentException(Words.of("cli.put.asOrInto"));
        }
        if (draft && publish) {
            throw new IllegalArgumentException(Words.of("cli.put.draftOrPublish"));
        }
        checkWhatFollows();
        Path target = as;
        if (target != null && arrived != null) {
            return arrived(arrived, target);
        }
        if (target != null && files.get(0).toString().equals("-")) {
            return pipedIn(target);
        }
        for (Path file : files) {
            if (!Files.exists(file)) {
                throw new NoSuchFileException(file.toString());
            }
        }
        return target == null ? many(java.util.Objects.requireNonNull(into)) : one(files.get(0), target);
    }

    /** What is done once a file is in is checked before, so that nothing is half done. */
    private void checkWhatFollows() throws IOException {
        for (String name : tell) {
            if (settings().address(name).isEmpty()) {
                throw new IllegalArgumentException(Words.of("people.noAddress", name));
            }
        }
        card.check();
        if (onTaken != null) {
            NameTaken.parse(onTaken);
        }
    }

    /** What came last under a name goes in; of what came by mail, who sent it is its author, and the subject its note. */
    private int arrived(String name, Path target) throws IOException {
        List<Path> folders = settings().arrivals();
        Arrivals.Arrival found = Arrivals.look(folders, "", ARRIVALS, clock().instant()).stream()
                .filter(a -> a.name().equalsIgnoreCase(name))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(Words.of(
                        "cli.put.notArrived",
                        name,
                        String.join(", ", folders.stream().map(Path::toString).toList()))));
        if (found.mail().isPresent()) {
            if (take) {
                throw new IllegalArgumentException(Words.of("cli.put.takeOfMail"));
            }
            Arrivals.Mail mail = found.mail().get();
            author = mail.author(settings().addresses());
            note = note.isEmpty() ? mail.subject() : note;
            if (!json) {
                say("cli.put.byMail", found.name(), author, mail.subject());
            }
        }
        return one(found.content(), target);
    }

    /** What is piped in goes in under the name that it will have. */
    private int pipedIn(Path target) throws IOException {
        Path folder = TemporaryFiles.folder();
        Path file = folder.resolve(target.getFileName());
        try {
            Files.copy(surroundings.rawIn(), file);
            return one(file, target);
        } finally {
            Files.deleteIfExists(file);
            Files.delete(folder);
        }
    }

    private DraftChoice stage() {
        return draft ? DraftChoice.DRAFT : publish ? DraftChoice.PUBLISHED : DraftChoice.BY_RULE;
    }

    private int one(Path file, Path target) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IllegalArgumentException(Words.of("cli.put.noFile", file));
        }
        try (Located named = locate(target);
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            Optional<Located> free = free(named);
            if (free.isEmpty()) {
                say("cli.put.skipped", named.path());
                return ExitCodes.DONE;
            }
            Located located = free.get();
            Judgement judgement = evidence(located).judge(file, located.path());
            if (plan) {
                if (json) {
                    Map<String, Object> map = new LinkedHashMap<>();
                    map.put("path", located.path());
                    map.put("judgement", Intakes.json(judgement));
                    printJson(map);
                } else {
                    Intakes.print(this, located.path(), judgement);
                }
                return judgement.outcome() == Judgement.Outcome.SURE ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
            }
            // A name of its own beside the other was chosen: it replaces nothing that could be the wrong file.
            boolean beside = !located.path().equals(named.path());
            if (judgement.outcome() != Judgement.Outcome.SURE && !yes && !beside) {
                Intakes.complain(this, located.path(), judgement);
                if (!surroundings.confirms(Words.of("cli.put.anyway", located.path()))) {
                    throw new NeedsYesException(
                            Words.of(surroundings.terminal().isPresent() ? "cli.put.left" : "cli.put.needsYes"));
                }
            }
            Revision revision = new Revision(file, located.path(), note, stage(), take, author);
            PutResult result = work(located).put(List.of(revision), progress);
            result.failed().forEach((path, why) -> complain(path + ": " + why));
            result.stayed().forEach(this::complain);
            if (!result.failed().isEmpty()) {
                return ExitCodes.SOME_FAILED;
            }
            String label = result.labels().getOrDefault(located.path(), "");
            List<Path> messages = new ArrayList<>();
            boolean followed = follow(located, located.path(), messages);
            if (json) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("path", located.path());
                map.put("version", label);
                map.put("same", result.same().contains(located.path()));
                map.put("judgement", Intakes.json(judgement));
                map.put("messages", messages.stream().map(Path::toString).toList());
                printJson(map);
            } else {
                say(result.same().isEmpty() ? "cli.put.done" : "cli.put.same", located.path(), label);
                messages.forEach(m -> say("cli.put.told", m));
            }
            return followed ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
    }

    /** Where one file goes: what has the name already decides together with what was chosen; empty for nowhere. */
    private Optional<Located> free(Located named) throws IOException {
        NameTaken rule = onTaken == null ? NameTaken.VERSION : NameTaken.parse(onTaken);
        if (rule == NameTaken.VERSION || !isTaken(named, named.path())) {
            return Optional.of(named);
        }
        if (rule == NameTaken.SKIP) {
            return Optional.empty();
        }
        String name = RelativePath.name(named.path());
        for (int i = 2; ; i++) {
            String path = RelativePath.child(RelativePath.parent(named.path()), FileNames.numbered(name, i));
            if (!isTaken(named, path)) {
                return Optional.of(new Located(named.vault(), named.place(), path, named.file()));
            }
        }
    }

    private static boolean isTaken(Located located, String path) throws IOException {
        try (Reading reading = located.vault().read()) {
            boolean kept = reading.line(located.place(), path)
                    .filter(l -> l.removed().isEmpty())
                    .isPresent();
            return kept
                    || (!located.place().isOutside()
                            && Files.exists(located.place().root().resolve(path), LinkOption.NOFOLLOW_LINKS));
        }
    }

    /**
     * What is said of a file that is in, and telling people of it. What goes wrong there is said and undoes nothing.
     *
     * @param messages that were written are added
     * @return whether all of it was done
     */
    private boolean follow(Located located, String path, List<Path> messages) {
        try {
            said(located, path);
            messages.addAll(tell(located, path));
            return true;
        } catch (IOException | IllegalArgumentException e) {
            complain(Words.of("cli.put.notFollowed", path, Failures.words(e)));
            return false;
        }
    }

    /** What a file is filed under and who may see it, where that was given. */
    private void said(Located located, String path) throws IOException {
        if (card.isGiven()) {
            FileProperties before;
            try (Reading reading = located.vault().read()) {
                Line line = reading.line(located.place(), path).orElseThrow();
                before = RemarkStore.of(reading).card(line.id());
            }
            lineWork(located).card(path, card.of(before));
        }
    }

    private List<Path> tell(Located located, String path) throws IOException {
        if (tell.isEmpty()) {
            return List.of();
        }
        Announcer.Told told = new Announcer(
                        located.vault(),
                        located.place(),
                        clock(),
                        who(),
                        settings()::address,
                        settings().outbox())
                .tell(path, tell);
        told.left().forEach(this::complain);
        return told.messages();
    }

    private int many(Path target) throws IOException {
        try (Located located = locate(target);
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            IntakePlan proposed = new Intake(located.vault(), located.place(), evidence(located))
                    .plan(files, located.path(), taken(located), hidden, progress);
            IntakePlan wanted = yes ? Intakes.withUnsure(proposed) : proposed;
            if (wanted.rows().isEmpty() && !json) {
                say("cli.put.nothing");
                return ExitCodes.DONE;
            }
            if (plan) {
                if (json) {
                    printJson(wanted.rows().stream().map(Intakes::json).toList());
                } else {
                    Intakes.print(this, wanted);
                }
                return wanted.count(IntakeRow.Fate.UNSURE) > 0 ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
            }
            PutResult result = wanted.acting() == 0
                    ? new PutResult(0, Map.of(), Map.of(), List.of(), List.of(), false)
                    : work(located).put(wanted.revisions(note, stage(), take), progress);
            if (json) {
                printJson(Intakes.json(wanted, result));
            } else {
                Intakes.print(this, wanted, result);
            }
            result.failed().forEach((path, why) -> complain(path + ": " + why));
            result.stayed().forEach(this::complain);
            List<Path> messages = new ArrayList<>();
            boolean followed = true;
            for (String path : result.labels().keySet()) {
                followed &= follow(located, path, messages);
            }
            if (!json) {
                messages.forEach(m -> say("cli.put.told", m));
            }
            boolean unsure = wanted.count(IntakeRow.Fate.UNSURE) > 0;
            if (unsure) {
                complain(Words.of("cli.put.unsure", wanted.count(IntakeRow.Fate.UNSURE)));
            }
            return unsure || !followed || !result.failed().isEmpty() || result.cancelled()
                    ? ExitCodes.SOME_FAILED
                    : ExitCodes.DONE;
        }
    }

    private NameTaken taken(Located located) throws IOException {
        String typed = onTaken;
        if (typed != null) {
            return NameTaken.parse(typed);
        }
        if (located.place().isOutside()) {
            return NameTaken.VERSION;
        }
        try (Reading reading = located.vault().read()) {
            return NameTaken.of(PlaceRules.of(reading, located.place()).settings());
        }
    }
}
