package org.mendedleaf.sample;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Function;

/** A document of the sample office that people work on: rows or paragraphs, and the format it is saved in. */
final class Draft {

    private static final String[] KINDS = {
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
    private static final String[] SENTENCES = {
        "The press was cleaned and the new cloths were put on.",
        "Twelve members came on Saturday, and two of them stayed until dark.",
        "The scale at the gate shows three kilos too many and will be looked at.",
        "Seeds of the old pears are dry and can be labelled.",
        "We ask for the second half of the grant in spring.",
        "The lease of the lower meadow runs until Michaelmas.",
        "Bottles are short; the next pallet comes in the second week.",
        "Frost on the north side, no damage in the walled garden.",
        "The juice of the early apples was thin and went to vinegar.",
        "Rota for the coming weekend hangs at the door of the shed."
    };

    private static final String[] WHO = {
        "Ines",
        "Tomas",
        "Wilma",
        "Jory",
        "Adele",
        "Somebody",
        "Nobody",
        "The cooper",
        "The council",
        "The mill",
        "Our neighbour",
        "The beekeeper",
        "The treasurer",
        "The school",
        "The village",
        "The bank"
    };
    private static final String[] DID = {
        "counted",
        "sold",
        "mended",
        "offered",
        "weighed",
        "labelled",
        "ordered",
        "found",
        "brought",
        "returned",
        "promised",
        "stacked",
        "lost",
        "kept",
        "emptied",
        "gave away"
    };
    private static final String[] WHAT = {
        "bottles",
        "crates",
        "barrels",
        "ladders",
        "receipts",
        "seeds",
        "trays",
        "cloths",
        "baskets",
        "posts",
        "grafts",
        "sacks",
        "corks",
        "boxes",
        "hives",
        "saplings"
    };
    private static final String[] WHERE = {
        "in the garden", "at the gate", "behind the shed", "by the pond", "at the market", "on the hill",
        "in the meadow", "under the pear", "at the desk", "below the wall", "in the cellar", "on the lorry"
    };
    private static final String[] WHEN = {
        "before noon",
        "in spring",
        "on Monday",
        "last week",
        "at dusk",
        "in the rain",
        "twice",
        "as agreed",
        "by hand",
        "for nothing",
        "with care",
        "too late"
    };

    private final List<List<String>> rows;
    private final Function<List<List<String>>, byte[]> format;
    private final boolean table;

    private Draft(List<List<String>> rows, boolean table, Function<List<List<String>>, byte[]> format) {
        this.rows = rows;
        this.table = table;
        this.format = format;
    }

    /** A table of weighings: the ledger, the press log, the stock. */
    static Draft table(Random random, int rows, String name, boolean sheet) {
        List<List<String>> all = new ArrayList<>();
        all.add(new ArrayList<>(List.of("Row", "Kind", "Kilos", "Crates", "By")));
        for (int i = 1; i <= rows; i++) {
            all.add(row(random, i));
        }
        return new Draft(
                all,
                true,
                sheet
                        ? r -> OpenDocument.sheet(name, r)
                        : r -> csv(r).getBytes(java.nio.charset.StandardCharsets.UTF_8));
    }

    private static List<String> row(Random random, int number) {
        int kilos = 40 + random.nextInt(1200);
        return new ArrayList<>(List.of(
                Integer.toString(number),
                KINDS[random.nextInt(KINDS.length)],
                Integer.toString(kilos),
                Integer.toString(kilos / 18 + 1),
                Office.PEOPLE.get(random.nextInt(Office.PEOPLE.size()))));
    }

    /** A text of paragraphs: minutes, the newsletter, the grant application. */
    static Draft text(Random random, int paragraphs, String title, boolean document) {
        List<List<String>> all = new ArrayList<>();
        all.add(new ArrayList<>(List.of("# " + title)));
        for (int i = 0; i < paragraphs; i++) {
            all.add(paragraph(random));
        }
        return new Draft(all, false, document ? r -> OpenDocument.text(flat(r)) : Draft::markdown);
    }

    private static List<String> paragraph(Random random) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 3; i++) {
            text.append(i == 0 ? "" : " ")
                    .append(i == 0 && random.nextInt(4) == 0 ? of(SENTENCES, random) : sentence(random));
        }
        return new ArrayList<>(List.of(text.toString()));
    }

    private static String sentence(Random random) {
        return String.join(
                        " ",
                        of(WHO, random),
                        of(DID, random),
                        Integer.toString(2 + random.nextInt(400)),
                        of(WHAT, random),
                        of(WHERE, random),
                        of(WHEN, random))
                + ".";
    }

    private static String of(String[] words, Random random) {
        return words[random.nextInt(words.length)];
    }

    private static byte[] markdown(List<List<String>> rows) {
        return (String.join("\n\n", flat(rows)) + "\n").getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }

    private static List<String> flat(List<List<String>> rows) {
        return rows.stream().map(r -> r.get(0)).toList();
    }

    static String csv(List<List<String>> rows) {
        StringBuilder out = new StringBuilder();
        for (List<String> row : rows) {
            out.append(String.join(",", row)).append('\n');
        }
        return out.toString();
    }

    /** Works on it a little: some cells, or a row more, or a row less. */
    void edit(Random random) {
        int what = random.nextInt(10);
        if (what < 5 || rows.size() < 4) {
            rows.add(table ? row(random, rows.size()) : paragraph(random));
        } else if (what < 9) {
            int changes = 1 + random.nextInt(3);
            for (int i = 0; i < changes; i++) {
                List<String> row = rows.get(1 + random.nextInt(rows.size() - 1));
                if (table) {
                    row.set(2, Integer.toString(40 + random.nextInt(1200)));
                } else {
                    row.set(0, paragraph(random).get(0));
                }
            }
        } else {
            rows.remove(1 + random.nextInt(rows.size() - 1));
        }
    }

    /** The file as it would be saved now. */
    byte[] save() {
        return format.apply(rows);
    }
}
