package org.mendedleaf.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Group;
import org.mendedleaf.cli.base.Outcome;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;
import org.slf4j.LoggerFactory;
import org.slf4j.helpers.Reporter;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
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
@Command(name = "mended-leaf", version = Main.VERSION)
public final class Main extends Group {

    @CommandLine.Option(
            names = {"-V", "--version"},
            versionHelp = true,
            descriptionKey = "cli.option.programVersion")
    boolean version;

    static final String VERSION = "Mended Leaf 0.1.0";

    private static final String LOG_LEVEL = "org.slf4j.simpleLogger.log.org.mendedleaf";

    /** Runs a command and ends the process with its exit code. */
    public static void main(String[] arguments) {
        // Otherwise each library on the class path is searched for one that writes logs.
        setUnlessSet(LoggerFactory.PROVIDER_PROPERTY_KEY, "org.slf4j.simple.SimpleServiceProvider");
        setUnlessSet(Reporter.SLF4J_INTERNAL_VERBOSITY_KEY, "WARN");
        if (has(arguments, "--verbose")) {
            setUnlessSet(LOG_LEVEL, "debug");
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

    private static void setUnlessSet(String property, String value) {
        if (System.getProperty(property) == null) {
            System.setProperty(property, value);
        }
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
        if (Commands.isVersion(arguments)) {
            out.println(VERSION);
            out.flush();
            return 0;
        }
        Words.use(language(surroundings));
        boolean json = has(arguments, "--json");
        List<String> asked = Commands.asked(arguments);
        boolean isOutline = Commands.isOutline(arguments);
        CommandLine line = isOutline ? outline(surroundings) : line(surroundings, asked);
        // What helps say is put in when one is asked for: going through all words takes longer than many a command.
        boolean helps = asked.size() > 1 || has(arguments, "--help") || has(arguments, "-h");
        if (helps && !isOutline) {
            says(line);
        }
        line.setExecutionExceptionHandler((e, command, parsed) -> Explanation.explain(e, surroundings, json));
        line.setParameterExceptionHandler((e, parsed) -> {
            says(line);
            return Explanation.misused(e, surroundings, json);
        });
        int code;
        try {
            code = line.execute(arguments);
        } catch (StackOverflowError | OutOfMemoryError e) {
            code = Explanation.explain(new IllegalStateException(String.valueOf(e), e), surroundings, json);
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
        CommandLine line = line(surroundings, Commands.NAMES);
        says(line);
        return line;
    }

    /**
     * All commands by what the help of the whole says of them: going through their options, and through all words for each of them, takes
     * most of the time.
     */
    private static CommandLine outline(Surroundings surroundings) {
        CommandLine line = line(surroundings, List.of());
        says(line);
        for (String name : Commands.NAMES) {
            CommandSpec spec = CommandSpec.create();
            String key = Commands.named(name).getAnnotation(Command.class).description()[0];
            spec.usageMessage().description(Words.plain(key.substring("${bundle:".length(), key.length() - 1)));
            line.addSubcommand(name, new CommandLine(spec));
        }
        return line;
    }

    /** These commands, with their surroundings. */
    private static CommandLine line(Surroundings surroundings, List<String> names) {
        Factory factory = new Factory(surroundings);
        CommandLine line = new CommandLine(new Main(), factory);
        names.forEach(name -> line.addSubcommand(name, new CommandLine(Commands.named(name), factory)));
        line.setOut(surroundings.out()).setErr(surroundings.err());
        line.setCaseInsensitiveEnumValuesAllowed(true);
        return line;
    }

    /** Puts in what the helps of commands and options say, and their names in messages. */
    private static void says(CommandLine line) {
        line.setResourceBundle(new CommandWords(Words.bundle()));
        headings(line);
        line.getHelpSectionMap().put(UsageMessageSpec.SECTION_KEY_COMMAND_LIST, new CommandSections());
        line.getSubcommands().forEach((name, sub) -> examples(sub, name));
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
