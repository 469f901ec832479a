package org.mendedleaf.core.compare;

import java.text.BreakIterator;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;

/** Compares lines and paragraphs word by word. Pure. */
final class WordCompare {

    /** Texts of more words are not looked into word by word. */
    private static final int WORDS_MOST = 4000;

    private WordCompare() {}

    /** Words, spaces and signs of a text, as the platform divides them (Unicode Standard Annex 29). */
    static List<String> words(String text) {
        BreakIterator breaks = BreakIterator.getWordInstance(Locale.ROOT);
        breaks.setText(text);
        List<String> words = new ArrayList<>();
        int from = breaks.first();
        for (int to = breaks.next(); to != BreakIterator.DONE; to = breaks.next()) {
            words.add(text.substring(from, to));
            from = to;
        }
        return words;
    }

    /** Both in one run: what is the same once, what is gone before what came. */
    static List<Piece> pieces(String before, String after) {
        List<String> a = words(before);
        List<String> b = words(after);
        if (a.size() > WORDS_MOST || b.size() > WORDS_MOST) {
            return List.of(new Piece(Mark.REMOVED, before), new Piece(Mark.ADDED, after));
        }
        List<Piece> pieces = new ArrayList<>();
        Alignment.walk(
                Alignment.of(a, b),
                b.size(),
                (fromA, endA, fromB, endB) -> {
                    add(pieces, Mark.REMOVED, String.join("", a.subList(fromA, endA)));
                    add(pieces, Mark.ADDED, String.join("", b.subList(fromB, endB)));
                },
                (i, j) -> add(pieces, Mark.SAME, a.get(i)));
        return pieces;
    }

    private static void add(List<Piece> pieces, Mark mark, String text) {
        if (text.isEmpty()) {
            return;
        }
        int last = pieces.size() - 1;
        if (last >= 0 && pieces.get(last).mark() == mark) {
            pieces.set(last, new Piece(mark, pieces.get(last).text() + text));
        } else {
            pieces.add(new Piece(mark, text));
        }
    }

    /** The pieces of one side: of the earlier one what is the same or gone, of the later one what is the same or came. */
    static List<Piece> side(List<Piece> pieces, Mark other) {
        return pieces.stream()
                .filter(p -> p.mark() == Mark.SAME || p.mark() == other)
                .toList();
    }

    /** The words of a text, counted, to see how much texts have in common. */
    static final class Bag {
        private final String text;
        private final int[] words;

        Bag(String text) {
            this.text = text;
            String stripped = text.strip().toLowerCase(Locale.ROOT);
            String[] split = stripped.isEmpty() ? new String[0] : stripped.split("[^\\p{L}\\p{N}]+");
            words = new int[split.length];
            for (int i = 0; i < split.length; i++) {
                words[i] = split[i].hashCode();
            }
            Arrays.sort(words);
        }

        /** How much both have in common, 0 to 100: their words counted (Dice's coefficient). */
        int likeness(Bag other) {
            if (text.equals(other.text)) {
                return 100;
            }
            int common = 0;
            int i = 0;
            int j = 0;
            while (i < words.length && j < other.words.length) {
                int order = Integer.compare(words[i], other.words[j]);
                common += order == 0 ? 1 : 0;
                i += order <= 0 ? 1 : 0;
                j += order >= 0 ? 1 : 0;
            }
            int all = words.length + other.words.length;
            return all == 0 ? 0 : 200 * common / all;
        }
    }

    /** The words of texts. */
    static List<Bag> bags(List<String> texts) {
        return texts.stream().map(Bag::new).toList();
    }
}
