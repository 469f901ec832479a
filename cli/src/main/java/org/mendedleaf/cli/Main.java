package org.mendedleaf.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Map;
import java.util.Optional;
import java.util.ResourceBundle;
import java.util.function.Predicate;
import org.mendedleaf.core.capture.PlaceGoneException;
import org.mendedleaf.core.recovery.Failures;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/**
 * The command line. Exit codes: 0 done, 1 some files failed, 2 wrong use, 3 the vault cannot be used now, 4 something is
 * late or failing ({@code status}).
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
        resourceBundle = "org.mendedleaf.core.words.messages",
        subcommands = {
            ProtectCommand.class,
            SetCommand.class,
            UnprotectCommand.class,
            CaptureCommand.class,
            WatchCommand.class,
            ListCommand.class,
            LineCommand.class,
            RestoreCommand.class,
            RollbackCommand.class,
            CompareCommand.class,
            PreviewCommand.class,
            PickCommand.class,
            FindCommand.class,
            IndexCommand.class,
            FindingsCommand.class,
            MendCommand.class,
            DismissCommand.class,
            HealthCommand.class,
            NoticesCommand.class,
            JournalCommand.class,
            CopyCommand.class,
            RemoveCommand.class,
            UndoCommand.class,
            RedoCommand.class,
            CheckCommand.class,
            CopyVaultCommand.class,
            StatusCommand.class,
            SystemsCommand.class,
            ConnectCommand.class,
            DisconnectCommand.class,
            PlaceCommand.class,
            PutCommand.class,
            PublishCommand.class,
            CheckOutCommand.class,
            CheckInCommand.class,
            NoteCommand.class,
            FoldCommand.class,
            StraysCommand.class,
            ArrivalsCommand.class,
            PeopleCommand.class,
            TakeCommand.class,
            SnapshotCommand.class,
            RoomCommand.class,
            RulesCommand.class,
            ThinCommand.class,
            HoldCommand.class,
            UnholdCommand.class,
            EraseCommand.class,
            RemovedCommand.class,
            ReclaimCommand.class,
            ForecastCommand.class,
            StandinsCommand.class
        })
public final class Main extends Group {

    @CommandLine.Option(
            names = {"-V", "--version"},
            versionHelp = true,
            descriptionKey = "cli.option.programVersion")
    boolean version;

    static final int DONE = 0;
    static final int SOME_FAILED = 1;
    static final int WRONG_USE = 2;
    static final int NO_VAULT = 3;

    /** What {@code status} ends with when something is late or failing. */
    static final int LATE = 4;

    /** Runs a command and ends the process with its exit code. */
    public static void main(String[] arguments) {
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
        PrintWriter err = surroundings.err();
        CommandLine line = line(surroundings);
        line.setExecutionExceptionHandler((e, command, parsed) -> explain(e, err));
        int code;
        try {
            code = line.execute(arguments);
        } catch (StackOverflowError | OutOfMemoryError e) {
            code = explain(new IllegalStateException(String.valueOf(e), e), err);
        }
        out.flush();
        return code;
    }

    /** All commands, with their surroundings. */
    static CommandLine line(Surroundings surroundings) {
        CommandLine line = new CommandLine(new Main(), new Factory(surroundings));
        line.setResourceBundle(ResourceBundle.getBundle("org.mendedleaf.core.words.messages"));
        line.setOut(surroundings.out()).setErr(surroundings.err());
        line.setCaseInsensitiveEnumValuesAllowed(true);
        return line;
    }

    private static int explain(Exception e, PrintWriter err) {
        Throwable cause = e instanceof java.io.UncheckedIOException && e.getCause() != null ? e.getCause() : e;
        org.slf4j.LoggerFactory.getLogger(Main.class).error("command failed", cause);
        if (cause instanceof VaultException v) {
            err.println(v.words());
            return NO_VAULT;
        }
        if (cause instanceof SystemException s) {
            err.println(s.words());
            return SOME_FAILED;
        }
        if (cause instanceof IllegalArgumentException) {
            err.println(cause.getMessage());
            return WRONG_USE;
        }
        if (cause instanceof NoSuchFileException missing) {
            err.println(Words.of("cli.noSuchFile", missing.getFile()));
            return SOME_FAILED;
        }
        if (cause instanceof PlaceGoneException || cause instanceof IOException) {
            err.println(Failures.words(cause));
            return SOME_FAILED;
        }
        err.println(Words.of("cli.defect", cause));
        return SOME_FAILED;
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
