package org.mendedleaf.core.pick;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.ProseChanges;
import org.mendedleaf.core.compare.Comparison.SheetChanges;
import org.mendedleaf.core.compare.Comparison.TextChanges;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.words.Words;

/**
 * Takes single changes back: the later content with some of its changes undone. Of texts and of tables that are written as
 * text everything else stays byte for byte; of office documents all other parts, and within the part that is written anew
 * everything that is not taken back. What comes of it is read again and must say what was meant; else nothing is made.
 * Formats and changes with which this cannot be done safely are refused in words.
 */
public final class Picking {

    private Picking() {}

    /**
     * What comes of it.
     *
     * @param content the new content
     * @param taken changes that were taken back
     * @param also what else is another than before, as a message
     */
    public record Outcome(byte[] content, List<Change> taken, List<String> also) {
        /** Copies the lists. */
        public Outcome {
            taken = List.copyOf(taken);
            also = List.copyOf(also);
        }
    }

    /** A change that cannot be taken back, with the reason in words. */
    static final class Refused extends IllegalArgumentException {
        private static final long serialVersionUID = 1;

        Refused(String words) {
            super(words);
        }
    }

    private static boolean ends(String name, String... endings) {
        String lower = name.toLowerCase(Locale.ROOT);
        return List.of(endings).stream().anyMatch(lower::endsWith);
    }

    private static boolean isWrittenTable(String name) {
        return ends(name, ".csv", ".tsv");
    }

    private static boolean isWorkbook(String name) {
        return ends(name, ".ods", ".ots", ".xlsx", ".xlsm", ".xltx");
    }

    private static boolean isTextDocument(String name) {
        return ends(name, ".odt", ".ott", ".docx", ".docm", ".dotx");
    }

    /** Why nothing of a comparison can be taken back; empty when some of it can. */
    public static Optional<String> refusal(String name, Comparison comparison) {
        if (comparison instanceof Comparison.Equal) {
            return Optional.of(Words.of("pick.equal"));
        }
        // What is shown as text is text, whatever it is called.
        if (comparison instanceof TextChanges && !ends(name, ".rtf")) {
            return Optional.empty();
        }
        if (comparison instanceof SheetChanges sheets && isWrittenTable(name)) {
            boolean columns = sheets.sheets().stream()
                    .flatMap(s -> s.columns().stream())
                    .anyMatch(c -> c.mark() != Comparison.Mark.SAME);
            return columns ? Optional.of(Words.of("pick.columns")) : Optional.empty();
        }
        boolean known = comparison instanceof SheetChanges && isWorkbook(name)
                || comparison instanceof ProseChanges prose
                        && prose.form() == Document.Form.DOCUMENT
                        && isTextDocument(name);
        return known ? Optional.empty() : Optional.of(Words.of("pick.format"));
    }

    /** Why one change of a comparison cannot be taken back, as far as that is known before it is tried. */
    public static Optional<String> refusal(Comparison comparison, Change change) {
        if (comparison instanceof SheetChanges sheets) {
            return SheetPlan.refusal(sheets, change);
        }
        if (comparison instanceof ProseChanges prose) {
            return ProsePicking.refusal(prose, change);
        }
        return Optional.empty();
    }

    /**
     * Takes changes back.
     *
     * @param before the earlier content
     * @param after the later content
     * @param comparison of both
     * @param numbers of the changes
     * @throws IllegalArgumentException with a message for the user, when it cannot be done
     * @throws InterruptedIOException when the thread was interrupted
     */
    public static Outcome back(String name, byte[] before, byte[] after, Comparison comparison, Set<Integer> numbers)
            throws InterruptedIOException {
        refusal(name, comparison).ifPresent(why -> {
            throw new Refused(why);
        });
        List<Change> taken = comparison.changes().stream()
                .filter(c -> numbers.contains(c.number()))
                .toList();
        Set<Integer> unknown = new LinkedHashSet<>(numbers);
        taken.forEach(c -> unknown.remove(c.number()));
        if (!unknown.isEmpty() || taken.isEmpty()) {
            throw new Refused(Words.of(
                    "pick.noChange",
                    unknown.isEmpty() ? "" : unknown.iterator().next(),
                    comparison.changes().size()));
        }
        for (Change change : taken) {
            refusal(comparison, change).ifPresent(why -> {
                throw new Refused(Words.of("pick.one", change.number(), why));
            });
        }
        if (comparison instanceof TextChanges || isWrittenTable(name)) {
            return new Outcome(TextPicking.back(before, after, comparison, numbers), taken, List.of());
        }
        try {
            return office(name, before, after, comparison, numbers, taken);
        } catch (InterruptedIOException | Refused e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            org.slf4j.LoggerFactory.getLogger(Picking.class).debug("changes that cannot be taken back", e);
            throw new Refused(Words.of("pick.unsure"));
        }
    }

    private static Outcome office(
            String name, byte[] before, byte[] after, Comparison comparison, Set<Integer> numbers, List<Change> taken)
            throws IOException {
        Office.Made made = comparison instanceof SheetChanges sheets
                ? SheetPicking.back(name, before, after, sheets, numbers)
                : ProsePicking.back(before, after, (ProseChanges) comparison, numbers);
        Document read = DocumentProcess.shared().read(name, made.content(), false);
        if (!made.expected().test(read)) {
            throw new Refused(Words.of("pick.unsure"));
        }
        return new Outcome(made.content(), taken, made.also());
    }

    /** What was taken back, for the note of the version that comes of it. */
    public static String note(String from, List<Change> taken) {
        String what = taken.size() == 1 && !taken.get(0).where().isEmpty()
                ? taken.get(0).where()
                : Words.of("pick.changes", taken.size());
        return Words.of("pick.note", what, from);
    }
}
