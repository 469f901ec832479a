package org.mendedleaf.core.find;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.mendedleaf.core.words.Words;

/**
 * What is looked for.
 *
 * @param terms words and phrases that must all be there
 * @param without words and phrases that must not be there
 * @param narrow which files and versions it is looked for in
 */
public record Wanted(List<Term> terms, List<Term> without, Narrow narrow) {

    /** Copies the lists. */
    public Wanted {
        terms = List.copyOf(terms);
        without = List.copyOf(without);
    }

    /**
     * A word or a phrase.
     *
     * @param text as it was typed, without its signs
     * @param prefix whether what follows it may be anything
     */
    public record Term(String text, boolean prefix) {
        /** As FTS5 has it: a string, and a star for what may follow. */
        String expression() {
            return "\"" + text.replace("\"", "\"\"") + "\"" + (prefix ? "*" : "");
        }
    }

    /** Of which files it may be. */
    public enum Presence {
        /** Those that are there and those that were removed. */
        ALL,
        /** Those that are there. */
        PRESENT,
        /** Those that were removed. */
        REMOVED
    }

    /** What is searched. */
    public enum Field {
        /** Everything. */
        ALL,
        /** What versions say. */
        TEXT,
        /** Names, notes, comments, people and labels. */
        NAMES
    }

    /**
     * Limits of a search.
     *
     * @param place by its id
     * @param folder within the place; empty for all of it
     * @param ending of the names of files, such as ods; empty for any
     * @param from only versions saved at or after this moment
     * @param to only versions saved before this moment
     * @param who saved the version; empty for anybody
     */
    public record Narrow(
            Optional<Long> place,
            String folder,
            String ending,
            Optional<Instant> from,
            Optional<Instant> to,
            String who,
            Presence presence,
            Field field) {
        /** None. */
        public static final Narrow NOT =
                new Narrow(Optional.empty(), "", "", Optional.empty(), Optional.empty(), "", Presence.ALL, Field.ALL);
    }

    private static final Pattern PART = Pattern.compile("(-?)(?:\"([^\"]*)\"?|(\\S+))");

    /**
     * Reads what was typed: words, {@code word*} for what begins so, {@code "phrases"}, and {@code -without}.
     *
     * @param lastMayGoOn whether the last word is still being typed
     * @throws IllegalArgumentException with a message for the user, when nothing is looked for
     */
    public static Wanted parse(String typed, boolean lastMayGoOn, Narrow narrow) {
        List<Term> terms = new ArrayList<>();
        List<Term> without = new ArrayList<>();
        Matcher m = PART.matcher(typed.strip());
        while (m.find()) {
            boolean phrase = m.group(3) == null;
            String text = phrase ? m.group(2) : m.group(3);
            boolean prefix = !phrase && text.endsWith("*");
            text = prefix ? text.substring(0, text.length() - 1) : text;
            boolean open = lastMayGoOn && !phrase && m.end() == typed.strip().length() && !typed.endsWith(" ");
            if (text.chars().anyMatch(Character::isLetterOrDigit)) {
                (m.group(1).isEmpty() ? terms : without)
                        .add(new Term(text, prefix || open && m.group(1).isEmpty()));
            }
        }
        if (terms.isEmpty()) {
            throw new IllegalArgumentException(Words.of("find.nothing"));
        }
        return new Wanted(terms, without, narrow);
    }

    /** As FTS5 has it. */
    String expression() {
        StringBuilder all = new StringBuilder();
        for (Term term : terms) {
            all.append(all.isEmpty() ? "" : " AND ").append(term.expression());
        }
        for (Term term : without) {
            all.insert(0, "(").append(") NOT ").append(term.expression());
        }
        return all.toString();
    }

    List<String> words() {
        return terms.stream().map(Term::text).toList();
    }

    List<String> unwanted() {
        return without.stream().map(Term::text).toList();
    }
}
