package org.mendedleaf.cli;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.Outcome;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine;

/** Says what went wrong with a command: on the error output in words, or as JSON where that was asked for. */
final class Explanation {

    private Explanation() {}

    /** Says why a command failed; returns its exit code. */
    static int explain(Throwable e, Surroundings surroundings, boolean json) {
        Outcome.Failure failure = Outcome.of(e);
        org.slf4j.LoggerFactory.getLogger(Explanation.class).error("command failed", e);
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
    static int misused(CommandLine.ParameterException e, Surroundings surroundings, boolean json) {
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
                    missing.getMissing().stream()
                            .map(Explanation::name)
                            .collect(java.util.stream.Collectors.joining(", ")));
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
}
