package org.mendedleaf.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Made-up words and texts whose words are as often or as seldom as in real ones. */
final class Prose {

    private static final String[] SYLLABLES = {
        "ba", "be", "bi", "co", "cu", "da", "de", "di", "el", "en", "fa", "fi", "go", "ha", "hi", "in", "jo", "ka",
                "le",
        "li", "lo", "ma", "me", "mi", "na", "ne", "no", "or", "pa", "pe", "po", "qua", "ra", "re", "ri", "sa", "se",
                "so",
        "ta", "te", "ti", "to", "ul", "va", "ve", "vi", "wa", "we", "xe", "ya", "ze", "zo"
    };
    private static final int WORDS = 4000;

    private final String[] words = new String[WORDS];
    private final Random random;

    Prose(Random random) {
        this.random = random;
        Random own = new Random(7);
        for (int i = 0; i < WORDS; i++) {
            StringBuilder word = new StringBuilder();
            for (int s = 0; s < 1 + i % 3 + own.nextInt(2); s++) {
                word.append(SYLLABLES[own.nextInt(SYLLABLES.length)]);
            }
            words[i] = word.toString();
        }
    }

    Random random() {
        return random;
    }

    /** A word; the n-th of the list comes 1/n as often as the first (Zipf). */
    String word() {
        return words[(int) Math.min(WORDS - 1, Math.exp(random.nextDouble() * Math.log(WORDS)) - 1)];
    }

    String sentence(int least, int more) {
        StringBuilder text = new StringBuilder();
        int length = least + random.nextInt(more);
        for (int i = 0; i < length; i++) {
            text.append(i == 0 ? "" : " ").append(word());
        }
        return text.append('.').toString();
    }

    String paragraph() {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 2 + random.nextInt(4); i++) {
            text.append(i == 0 ? "" : " ").append(sentence(6, 12));
        }
        return text.toString();
    }

    List<String> paragraphs(int least, int more) {
        List<String> all = new ArrayList<>();
        int count = least + random.nextInt(more);
        for (int i = 0; i < count; i++) {
            all.add(paragraph());
        }
        return all;
    }

    String name() {
        String word = words[200 + random.nextInt(3000)];
        return Character.toUpperCase(word.charAt(0)) + word.substring(1);
    }

    /** A table of weighings. */
    List<List<String>> rows(int count) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(new ArrayList<>(List.of("Day", "Kind", "Kilos", "Crates", "By")));
        for (int i = 0; i < count; i++) {
            rows.add(row());
        }
        return rows;
    }

    List<String> row() {
        int kilos = 40 + random.nextInt(1200);
        return new ArrayList<>(List.of(
                "2026-%02d-%02d".formatted(1 + random.nextInt(12), 1 + random.nextInt(28)),
                words[random.nextInt(40)],
                Integer.toString(kilos),
                Integer.toString(kilos / 18 + 1),
                words[40 + random.nextInt(12)]));
    }

    /** What somebody does to a text between two savings, from a word to a third of it. */
    List<String> edit(List<String> paragraphs) {
        List<String> after = new ArrayList<>(paragraphs);
        switch (random.nextInt(9)) {
            case 0 -> after.add(paragraph());
            case 1 -> after.add(random.nextInt(after.size() + 1), paragraph());
            case 2 -> change(after, 1, 3);
            case 3 -> change(after, 3, 6);
            case 4 -> {
                // A name that is exchanged wherever it stands.
                String from = word();
                String to = word();
                after.replaceAll(p -> p.replace(" " + from + " ", " " + to + " "));
                after.add(sentence(4, 5));
            }
            case 5 -> {
                for (int i = 0; i < Math.max(1, after.size() / 4) && after.size() > 2; i++) {
                    after.remove(random.nextInt(after.size()));
                }
            }
            case 6 -> {
                for (int i = 0; i < Math.max(1, after.size() / 3); i++) {
                    after.set(random.nextInt(after.size()), paragraph());
                }
            }
            case 7 -> {
                String moved = after.remove(random.nextInt(after.size()));
                after.add(random.nextInt(after.size() + 1), moved);
            }
            default -> {
                // Corrections all over it.
                for (int i = 0; i < after.size(); i++) {
                    if (random.nextBoolean()) {
                        after.set(i, changeWords(after.get(i), 1 + random.nextInt(2)));
                    }
                }
            }
        }
        return after;
    }

    private void change(List<String> after, int places, int words) {
        for (int i = 0; i < places; i++) {
            int at = random.nextInt(after.size());
            after.set(at, changeWords(after.get(at), 1 + random.nextInt(words)));
        }
    }

    private String changeWords(String text, int count) {
        String[] all = text.split(" ");
        for (int i = 0; i < count; i++) {
            all[random.nextInt(all.length)] = word();
        }
        return String.join(" ", all);
    }

    /** What somebody does to a table between two savings. */
    List<List<String>> editRows(List<List<String>> rows) {
        List<List<String>> after = new ArrayList<>();
        rows.forEach(r -> after.add(new ArrayList<>(r)));
        switch (random.nextInt(6)) {
            case 0 -> after.add(row());
            case 1 -> {
                for (int i = 0; i < 1 + after.size() / 5; i++) {
                    after.add(row());
                }
            }
            case 2 -> {
                for (int i = 0; i < 1 + random.nextInt(5); i++) {
                    after.get(1 + random.nextInt(after.size() - 1)).set(2, Integer.toString(random.nextInt(1200)));
                }
            }
            case 3 -> {
                for (int i = 0; i < Math.max(1, after.size() / 6) && after.size() > 4; i++) {
                    after.remove(1 + random.nextInt(after.size() - 1));
                }
            }
            case 4 -> java.util.Collections.swap(after, 1, after.size() - 1);
            default -> {
                // A column more.
                for (List<String> r : after) {
                    r.add(r == after.get(0) ? "Note" : word());
                }
            }
        }
        return after;
    }
}
