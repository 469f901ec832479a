package org.mendedleaf.sample;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Tables as the people of the office keep them, by what they are for. Each has five columns; the third and fourth are sums. */
enum Tables {
    /** Apples as they come in. */
    HARVEST("Date", "Kind", "Kilos", "Crates", "By"),
    /** What was pressed. */
    PRESS("Date", "Kind", "Kilos", "Litres", "By"),
    /** Bottles in the cellar. */
    BOTTLES("Shelf", "Cider", "Bottles", "Crates", "Counted by"),
    /** Who is where. */
    ROTA("Date", "Post", "Hours", "Helpers", "Who"),
    /** What things cost. */
    PRICES("Size", "Cider", "Cents", "Sold", "Set by"),
    /** What members paid. */
    FEES("Paid on", "Member", "Euros", "Crates", "Taken by"),
    /** Money in and out. */
    CASH("Date", "For", "Euros", "Receipt", "By"),
    /** Rain and cold. */
    WEATHER("Date", "Where", "Rain mm", "Gusts", "Read by"),
    /** Trees, seeds and what else is counted. */
    COUNTS("Date", "Kind", "Seeds", "Came up", "By");

    private static final String[] POSTS = {"Press", "Gate", "Washing", "Bottling", "Desk", "Lorry"};
    private static final String[] CAUSES = {
        "corks",
        "diesel",
        "cloths",
        "stamps",
        "juice sold",
        "cider sold",
        "deposit",
        "sugar",
        "ladder",
        "lunch",
        "labels",
        "fee"
    };
    private static final String[] WHERE = {"gate", "meadow", "walled garden", "pond"};
    private static final String[] SIZES = {"0.33 l", "0.75 l", "1 l", "5 l", "20 l"};
    private static final String[] NAMES = {
        "Albers",
        "Bosman",
        "Claes",
        "Dumont",
        "Evers",
        "Fontaine",
        "Goossens",
        "Hermans",
        "Jacobs",
        "Lambert",
        "Maes",
        "Noels",
        "Pauwels",
        "Renard",
        "Smets",
        "Thys",
        "Verbeke",
        "Wouters"
    };

    private final List<String> head;

    Tables(String... head) {
        this.head = List.of(head);
    }

    /** What a table of this name is for. */
    static Tables of(String name) {
        return switch (name) {
            case "Press log" -> PRESS;
            case "Bottles", "Deposits" -> BOTTLES;
            case "Rota", "Plan", "Week" -> ROTA;
            case "Prices" -> PRICES;
            case "Fees" -> FEES;
            case "Cash" -> CASH;
            case "Weather" -> WEATHER;
            case "Exchange", "Tests", "Pond" -> COUNTS;
            default -> HARVEST;
        };
    }

    List<String> head() {
        return head;
    }

    /** A row of it, the so-manieth. */
    List<String> row(Random random, int number) {
        String by = Office.PEOPLE.get(random.nextInt(Office.PEOPLE.size()));
        String kind = Draft.KINDS[random.nextInt(Draft.KINDS.length)];
        String date = LocalDate.of(2026, 3, 2)
                .plusDays(Math.min(261, number + random.nextInt(2)))
                .toString();
        int much = 40 + random.nextInt(1200);
        List<String> row = new ArrayList<>();
        switch (this) {
            case PRESS -> row.addAll(List.of(date, kind, text(much), text(much * 62 / 100), by));
            case BOTTLES -> row.addAll(List.of("Shelf " + number, kind, text(much), text(much / 12 + 1), by));
            case ROTA ->
                row.addAll(
                        List.of(date, of(POSTS, random), text(3 + random.nextInt(6)), text(1 + random.nextInt(5)), by));
            case PRICES ->
                row.addAll(List.of(
                        of(SIZES, random), kind, text(250 + random.nextInt(40) * 10), text(random.nextInt(300)), by));
            case FEES ->
                row.addAll(List.of(
                        date,
                        of(NAMES, random) + " " + number,
                        text(15 + random.nextInt(8) * 5),
                        text(random.nextInt(12)),
                        by));
            case CASH ->
                row.addAll(List.of(
                        date,
                        of(CAUSES, random),
                        text(random.nextInt(5) == 0 ? -random.nextInt(90) - 5 : 5 + random.nextInt(180)),
                        text(1000 + number),
                        by));
            case WEATHER ->
                row.addAll(
                        List.of(date, of(WHERE, random), text(random.nextInt(30)), text(10 + random.nextInt(60)), by));
            case COUNTS -> row.addAll(List.of(date, kind, text(20 + random.nextInt(80)), text(random.nextInt(60)), by));
            default -> row.addAll(List.of(date, kind, text(much), text(much / 18 + 1), by));
        }
        return row;
    }

    private static String text(int number) {
        return Integer.toString(number);
    }

    private static String of(String[] words, Random random) {
        return words[random.nextInt(words.length)];
    }

    /** A number as somebody corrects it: two figures that changed places, or a little more or less. */
    static String corrected(String number, Random random) {
        if (number.length() > 1 && number.charAt(0) != '-' && random.nextBoolean()) {
            int at = random.nextInt(number.length() - 1);
            String turned =
                    number.substring(0, at) + number.charAt(at + 1) + number.charAt(at) + number.substring(at + 2);
            if (turned.charAt(0) != '0') {
                return turned;
            }
        }
        int value = Integer.parseInt(number);
        return Integer.toString(value
                + (random.nextBoolean() ? 1 : -1) * (1 + random.nextInt(Math.max(2, Math.abs(value) / 8))));
    }

    /** The row below, with the sums that a sheet computes. */
    static List<String> totals(List<List<String>> rows) {
        return List.of("Total", "", sum(rows, 2, 'C'), sum(rows, 3, 'D'), "");
    }

    private static String sum(List<List<String>> rows, int column, char letter) {
        long sum = rows.stream()
                .skip(1)
                .mapToLong(r -> Long.parseLong(r.get(column)))
                .sum();
        return "=SUM([." + letter + "2:." + letter + rows.size() + "])|" + sum;
    }
}
