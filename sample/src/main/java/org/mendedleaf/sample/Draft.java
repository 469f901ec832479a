package org.mendedleaf.sample;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Function;

/** A document of the sample office that people work on: rows or paragraphs, and the format it is saved in. */
final class Draft {

    static final String[] KINDS = {
        "Katy",
        "Discovery",
        "Bramley",
        "Egremont",
        "Kingston Black",
        "Dabinett",
        "Ashmead",
        "Tom Putt",
        "Foxwhelp",
        "Brown Snout",
        "Yarlington",
        "Slack-ma-Girdle"
    };
    private final List<List<String>> rows;
    private final Function<List<List<String>>, byte[]> format;
    private final Tables table;
    private final Phrases phrases;

    private Draft(List<List<String>> rows, Tables table, Phrases phrases, Function<List<List<String>>, byte[]> format) {
        this.rows = rows;
        this.table = table;
        this.phrases = phrases;
        this.format = format;
    }

    /** A table: the ledger, the press log, the stock. A sheet has its sums below. */
    static Draft table(Random random, int rows, String name, boolean sheet) {
        Tables table = Tables.of(name);
        List<List<String>> all = new ArrayList<>();
        all.add(new ArrayList<>(table.head()));
        for (int i = 1; i <= rows; i++) {
            all.add(table.row(random, i));
        }
        return new Draft(
                all,
                table,
                Phrases.NOTE,
                sheet
                        ? r -> OpenDocument.sheet(name, summed(r))
                        : r -> csv(r).getBytes(java.nio.charset.StandardCharsets.UTF_8));
    }

    private static List<List<String>> summed(List<List<String>> rows) {
        List<List<String>> all = new ArrayList<>(rows);
        all.add(Tables.totals(rows));
        return all;
    }

    /** A text of paragraphs: minutes, the newsletter, the grant application. */
    static Draft text(Random random, int paragraphs, String title, boolean document) {
        Phrases phrases = Phrases.of(title);
        List<List<String>> all = new ArrayList<>();
        all.add(new ArrayList<>(List.of("# " + title)));
        for (int i = 0; i < paragraphs; i++) {
            all.add(phrases.paragraph(random));
        }
        return new Draft(all, Tables.HARVEST, phrases, document ? r -> OpenDocument.text(flat(r)) : Draft::markdown)
                .asText();
    }

    private boolean text;

    private Draft asText() {
        text = true;
        return this;
    }

    private static byte[] markdown(List<List<String>> rows) {
        return (String.join("\n\n", flat(rows)) + "\n").getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }

    private static List<String> flat(List<List<String>> rows) {
        return rows.stream().map(r -> String.join(" ", r)).toList();
    }

    static String csv(List<List<String>> rows) {
        StringBuilder out = new StringBuilder();
        for (List<String> row : rows) {
            out.append(String.join(",", row)).append('\n');
        }
        return out.toString();
    }

    /** Works on it a little: some cells or sentences, or a row or paragraph more, or one less. */
    void edit(Random random) {
        int what = random.nextInt(10);
        if (what < 3 || rows.size() < 4) {
            rows.add(text ? phrases.paragraph(random) : table.row(random, rows.size()));
        } else if (what < 9) {
            int changes = 1 + random.nextInt(3);
            for (int i = 0; i < changes; i++) {
                List<String> row = rows.get(1 + random.nextInt(rows.size() - 1));
                if (text) {
                    row.set(random.nextInt(row.size()), phrases.sentence(random));
                } else {
                    int column = 2 + random.nextInt(2);
                    row.set(column, Tables.corrected(row.get(column), random));
                }
            }
        } else if (random.nextBoolean()) {
            rows.remove(1 + random.nextInt(rows.size() - 1));
        } else {
            rows.add(1 + random.nextInt(rows.size() - 1), rows.remove(1 + random.nextInt(rows.size() - 1)));
        }
    }

    /** The file as it would be saved now. */
    byte[] save() {
        return format.apply(rows);
    }
}
