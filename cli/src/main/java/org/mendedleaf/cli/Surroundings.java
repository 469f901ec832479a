package org.mendedleaf.cli;

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
 */
record Surroundings(
        Map<String, String> environment,
        Clock clock,
        PrintWriter out,
        PrintWriter err,
        Optional<Predicate<String>> terminal) {

    /** Asks for a yes; without anybody there the answer is no. */
    boolean confirms(String question) {
        return terminal.map(t -> t.test(question)).orElse(false);
    }
}
