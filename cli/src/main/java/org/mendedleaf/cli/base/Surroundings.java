package org.mendedleaf.cli.base;

import java.io.Console;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.time.Clock;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * What a command sees of the world around it.
 *
 * @param environment variables
 * @param clock of the system
 * @param out for what was asked for
 * @param err for progress and errors
 * @param terminal where somebody can be asked; empty when nobody sits there
 * @param rawIn what is piped in, as bytes
 * @param rawOut for contents, as bytes
 */
public record Surroundings(
        Map<String, String> environment,
        Clock clock,
        PrintWriter out,
        PrintWriter err,
        Optional<Predicate<String>> terminal,
        InputStream rawIn,
        OutputStream rawOut) {

    /** With the standard input and output of the process. */
    public Surroundings(
            Map<String, String> environment,
            Clock clock,
            PrintWriter out,
            PrintWriter err,
            Optional<Predicate<String>> terminal) {
        this(environment, clock, out, err, terminal, System.in, new FileOutputStream(FileDescriptor.out));
    }

    /** Asks for something that is not shown while it is typed; empty without anybody there. */
    public Optional<String> secret(String question) {
        Console console = terminal.isPresent() ? System.console() : null;
        char[] typed = console == null ? null : console.readPassword("%s ", question);
        return Optional.ofNullable(typed)
                .map(String::new)
                .filter(s -> !s.isBlank())
                .map(String::strip);
    }

    /** Asks for a yes; without anybody there the answer is no. */
    public boolean confirms(String question) {
        return terminal.map(t -> t.test(question)).orElse(false);
    }
}
