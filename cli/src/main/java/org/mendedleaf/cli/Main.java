package org.mendedleaf.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.Group;
import org.mendedleaf.cli.base.Outcome;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.cli.care.CheckCommand;
import org.mendedleaf.cli.care.CopyVaultCommand;
import org.mendedleaf.cli.care.DismissCommand;
import org.mendedleaf.cli.care.FindingsCommand;
import org.mendedleaf.cli.care.HealthCommand;
import org.mendedleaf.cli.care.MendCommand;
import org.mendedleaf.cli.care.NoticesCommand;
import org.mendedleaf.cli.care.StatusCommand;
import org.mendedleaf.cli.keep.EraseCommand;
import org.mendedleaf.cli.keep.ForecastCommand;
import org.mendedleaf.cli.keep.HoldCommand;
import org.mendedleaf.cli.keep.ReclaimCommand;
import org.mendedleaf.cli.keep.RemovedCommand;
import org.mendedleaf.cli.keep.RulesCommand;
import org.mendedleaf.cli.keep.SnapshotCommand;
import org.mendedleaf.cli.keep.SpaceCommand;
import org.mendedleaf.cli.keep.ThinCommand;
import org.mendedleaf.cli.keep.UnholdCommand;
import org.mendedleaf.cli.past.CompareCommand;
import org.mendedleaf.cli.past.FindCommand;
import org.mendedleaf.cli.past.IndexCommand;
import org.mendedleaf.cli.past.JournalCommand;
import org.mendedleaf.cli.past.LineCommand;
import org.mendedleaf.cli.past.ListCommand;
import org.mendedleaf.cli.past.PreviewCommand;
import org.mendedleaf.cli.protect.CaptureCommand;
import org.mendedleaf.cli.protect.ProtectCommand;
import org.mendedleaf.cli.protect.SetCommand;
import org.mendedleaf.cli.protect.UnprotectCommand;
import org.mendedleaf.cli.protect.WatchCommand;
import org.mendedleaf.cli.recover.CopyCommand;
import org.mendedleaf.cli.recover.PickCommand;
import org.mendedleaf.cli.recover.RedoCommand;
import org.mendedleaf.cli.recover.RemoveCommand;
import org.mendedleaf.cli.recover.RestoreCommand;
import org.mendedleaf.cli.recover.RollbackCommand;
import org.mendedleaf.cli.recover.UndoCommand;
import org.mendedleaf.cli.revise.ArrivalsCommand;
import org.mendedleaf.cli.revise.CheckInCommand;
import org.mendedleaf.cli.revise.CheckOutCommand;
import org.mendedleaf.cli.revise.FoldCommand;
import org.mendedleaf.cli.revise.NoteCommand;
import org.mendedleaf.cli.revise.PublishCommand;
import org.mendedleaf.cli.revise.PutCommand;
import org.mendedleaf.cli.revise.StraysCommand;
import org.mendedleaf.cli.revise.TakeCommand;
import org.mendedleaf.cli.systems.ConnectCommand;
import org.mendedleaf.cli.systems.DisconnectCommand;
import org.mendedleaf.cli.systems.PlaceCommand;
import org.mendedleaf.cli.systems.StandinsCommand;
import org.mendedleaf.cli.systems.SystemsCommand;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.UsageMessageSpec;

/**
 * The command line. What it returns is told by {@link Outcome}.
 *
 * <pre>{@code
 * mended-leaf protect ~/Documents --vault /media/disk/vault
 * mended-leaf line ~/Documents/ledger.csv
 * mended-leaf restore ~/Documents/ledger.csv --version 7
 * }</pre>
 */
@Command(
        name = "mended-leaf",
        version = "Mended Leaf 0.1.0",
        subcommands = {
            ProtectCommand.class,
            SetCommand.class,
            UnprotectCommand.class,
            CaptureCommand.class,
            WatchCommand.class,
            ListCommand.class,
            LineCommand.class,
            CompareCommand.class,
            PreviewCommand.class,
            FindCommand.class,
            IndexCommand.class,
            JournalCommand.class,
            RestoreCommand.class,
            RollbackCommand.class,
            PickCommand.class,
            CopyCommand.class,
            RemoveCommand.class,
            UndoCommand.class,
            RedoCommand.class,
            PutCommand.class,
            PublishCommand.class,
            CheckOutCommand.class,
            CheckInCommand.class,
            NoteCommand.class,
            FoldCommand.class,
            StraysCommand.class,
            ArrivalsCommand.class,
            TakeCommand.class,
            SnapshotCommand.class,
            SpaceCommand.class,
            RulesCommand.class,
            ThinCommand.class,
            HoldCommand.class,
            UnholdCommand.class,
            EraseCommand.class,
            RemovedCommand.class,
            ReclaimCommand.class,
            ForecastCommand.class,
            FindingsCommand.class,
            MendCommand.class,
            DismissCommand.class,
            HealthCommand.class,
            NoticesCommand.class,
            CheckCommand.class,
            CopyVaultCommand.class,
            StatusCommand.class,
            SystemsCommand.class,
            ConnectCommand.class,
            DisconnectCommand.class,
            PlaceCommand.class,
            StandinsCommand.class,
            PeopleCommand.class,
            LanguageCommand.class,
            CompletionCommand.class,
            ManCommand.class
        })
public final class Main extends Group {

    @CommandLine.Option(
            names = {"-V", "--version"},
            versionHelp = true,
            descriptionKey = "cli.option.programVersion")
    boolean version;

    private static final String LOG_LEVEL = "org.slf4j.simpleLogger.log.org.mendedleaf";

    /** Runs a command and ends the process with its exit code. */
    public static void main(String[] arguments) {
        if (has(arguments, "--verbose") && System.getProperty(LOG_LEVEL) == null) {
            System.setProperty(LOG_LEVEL, "debug");
        }
        if (has(arguments, "--quiet")) {
            System.setProperty(TerminalProgress.VISIBLE, "false");
        }
        PrintWriter out = new PrintWriter(System.out, false, StandardCharsets.UTF_8);
        PrintWriter err = new PrintWriter(System.err, true, StandardCharsets.UTF_8);
        Clock clock = Clock.system(ZoneId.systemDefault());
        int code = run(arguments, new Surroundings(System.getenv(), clock, out, err, terminal(out)));
        out.flush();
        System.exit(code);
    }

    /** Asks whoever sits at the terminal; a pipe is asked nothing. */
    private static Optional<Predicate<String>> terminal(PrintWriter out) {
        return !Boolean.getBoolean("mendedleaf.asks")
                ? Optional.empty()
                : Optional.of(question -> {
                    out.print(Words.of("cli.ask", question) + " ");
                    out.flush();
                    try {
                        String answer =
                                new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8)).readLine();
                        return answer != null && answer.strip().equalsIgnoreCase(Words.of("cli.ask.yes"));
                    } catch (IOException e) {
                        return false;
                    }
                });
    }

    /** Runs a command where nobody can be asked; returns its exit code. */
    public static int run(
            String[] arguments, Map<String, String> environment, Clock clock, PrintWriter out, PrintWriter err) {
        return run(arguments, new Surroundings(environment, clock, out, err, Optional.empty()));
    }

    /** Runs a command with these surroundings; returns its exit code. */
    static int run(String[] arguments, Surroundings surroundings) {
        PrintWriter out = surroundings.out();
        Words.use(language(surroundings));
        boolean json = has(arguments, "--json");
        CommandLine line = line(surroundings);
        line.setExecutionExceptionHandler((e, command, parsed) -> explain(e, surroundings, json));
        line.setParameterExceptionHandler((e, parsed) -> misused(e, surroundings, json));
        int code;
        try {
            code = line.execute(arguments);
        } catch (StackOverflowError | OutOfMemoryError e) {
            code = explain(new IllegalStateException(String.valueOf(e), e), surroundings, json);
        }
        out.flush();
        return code;
    }

    /** The language that was chosen; null where none was, and where the settings cannot be read, of which the command tells. */
    private static @Nullable String language(Surroundings surroundings) {
        try {
            return UserSettings.open(UserSettings.defaultFolder(surroundings.environment()))
                    .language();
        } catch (IOException e) {
            return null;
        }
    }

    /** All commands, with their surroundings. */
    static CommandLine line(Surroundings surroundings) {
        CommandLine line = new CommandLine(new Main(), new Factory(surroundings));
        line.setResourceBundle(Words.bundle());
        line.setOut(surroundings.out()).setErr(surroundings.err());
        line.setCaseInsensitiveEnumValuesAllowed(true);
        headings(line);
        line.getHelpSectionMap().put(UsageMessageSpec.SECTION_KEY_COMMAND_LIST, new CommandSections());
        line.getSubcommands().forEach((name, sub) -> examples(sub, name));
        return line;
    }

    /** Puts the headings of a help, of this command and of all below it, in the language of all words. */
    private static void headings(CommandLine line) {
        line.getCommandSpec()
                .usageMessage()
                .synopsisHeading(Words.of("cli.usage") + " ")
                .commandListHeading(line.getParent() == null ? "" : Words.of("cli.commands") + "%n");
        line.getSubcommands().values().forEach(Main::headings);
    }

    /** Puts the examples of a command, and of those that it holds, under its help. */
    private static void examples(CommandLine line, String path) {
        line.getSubcommands().forEach((name, sub) -> examples(sub, path + "." + name));
        if (!line.getSubcommands().isEmpty()) {
            return;
        }
        String[] all = Words.plain("cli.examples." + path).split("\n");
        line.getCommandSpec()
                .usageMessage()
                .footerHeading("%n" + Words.of("cli.examples") + "%n")
                .footer(Arrays.stream(all)
                        .map(e -> "  mended-leaf " + e.replace("%", "%%"))
                        .toArray(String[]::new));
    }

    private static int explain(Throwable e, Surroundings surroundings, boolean json) {
        Outcome.Failure failure = Outcome.of(e);
        org.slf4j.LoggerFactory.getLogger(Main.class).error("command failed", e);
        return told(failure, surroundings, json);
    }

    /** Says what went wrong: on the error output in words, and as JSON where that was asked for. */
    private static int told(Outcome.Failure failure, Surroundings surroundings, boolean json) {
        if (json) {
            Map<String, Object> error = new LinkedHashMap<>();
            error.put("code", failure.outcome().word());
            error.put("message", failure.words());
            failure.path().ifPresent(p -> error.put("path", p));
            surroundings.out().println(Base.jsonText(Map.of("error", error)));
        } else {
            surroundings.err().println(Base.printable(failure.words()));
        }
        return failure.outcome().code();
    }

    /** What cannot be meant is answered in one line, with what may have been meant, and where to read on. */
    private static int misused(CommandLine.ParameterException e, Surroundings surroundings, boolean json) {
        String command = e.getCommandLine().getCommandSpec().qualifiedName();
        List<String> meant = e instanceof CommandLine.UnmatchedArgumentException u
                        && !u.getUnmatched().isEmpty()
                ? Typos.near(u.getUnmatched().get(0), u.getSuggestions())
                : List.of();
        String wrong = wrong(e);
        String words = meant.isEmpty()
                ? Words.of("cli.misused", wrong, command)
                : Words.of("cli.misused.meant", wrong, String.join(", ", meant), command);
        return told(new Outcome.Failure(Outcome.WRONG_USE, words, Optional.empty()), surroundings, json);
    }

    /** What was used wrongly, in the language of all words; in that of the parser where it is about no option and no parameter. */
    private static String wrong(CommandLine.ParameterException e) {
        if (e instanceof CommandLine.MissingParameterException missing
                && !missing.getMissing().isEmpty()) {
            return Words.of(
                    "cli.misused.missing",
                    missing.getMissing().stream().map(Main::name).collect(java.util.stream.Collectors.joining(", ")));
        }
        if (e instanceof CommandLine.UnmatchedArgumentException unmatched) {
            return Words.of(
                    unmatched.isUnknownOption() ? "cli.misused.option" : "cli.misused.argument",
                    String.join(" ", unmatched.getUnmatched()));
        }
        if (e instanceof CommandLine.OverwrittenOptionException twice) {
            return Words.of("cli.misused.twice", name(twice.getOverwritten()));
        }
        CommandLine.Model.ArgSpec of = e.getArgSpec();
        if (of != null) {
            return e.getValue() != null
                    ? Words.of("cli.misused.value", name(of), e.getValue())
                    : Words.of("cli.misused.how", name(of));
        }
        return String.valueOf(e.getMessage());
    }

    private static String name(CommandLine.Model.ArgSpec of) {
        return of instanceof CommandLine.Model.OptionSpec option ? option.longestName() : of.paramLabel();
    }

    /** Whether an option is among the arguments, before what is no option any more. */
    private static boolean has(String[] arguments, String option) {
        List<String> all = Arrays.asList(arguments);
        int end = all.indexOf("--");
        return (end < 0 ? all : all.subList(0, end)).contains(option);
    }

    /** Makes commands with their surroundings. */
    private record Factory(Surroundings surroundings) implements CommandLine.IFactory {
        @Override
        public <K> K create(Class<K> type) throws Exception {
            if (Surroundings.class.equals(type)) {
                return type.cast(surroundings);
            }
            try {
                return type.getDeclaredConstructor(Surroundings.class).newInstance(surroundings);
            } catch (NoSuchMethodException e) {
                return CommandLine.defaultFactory().create(type);
            }
        }
    }
}
