package org.mendedleaf.sample;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** What the office sends and gets: invoices that add up, messages with attachments, letters with pictures, the talk. */
final class Papers {

    private static final String[] SLIDES = {
        "A season in the orchard", "The press", "The bees came through", "What the cellar holds", "The pond", "Thanks"
    };

    private static final String[] NOTES = {
        "Greet the school first. Say how many trees: 212, on four meadows.",
        "Hold up the pressing cloth. Ask who has ever tasted juice from the spout.",
        "Four hives; let Tomas say what the winter was like. Not more than three minutes.",
        "The new cider costs 6 euros for members. Last year's is gone but for 40 bottles.",
        "Why the pond matters: frogs, dragonflies, and water for the walled garden in August.",
        "Name everybody who gave a Sunday. Then open the press for all."
    };

    private Papers() {}

    /** An invoice for pressing, with lines that add up to its total. */
    static byte[] invoice(int number, Random random) {
        String member = Office.PEOPLE.get(random.nextInt(Office.PEOPLE.size()));
        int crates = 4 + random.nextInt(40);
        int bottles = 12 * (1 + random.nextInt(9));
        int deposit = random.nextInt(4) * 6;
        int pressing = crates * 4;
        int sold = bottles * 2;
        List<String> lines = new ArrayList<>(List.of(
                "The orchard and press",
                "Front desk, Mill Lane 4",
                "",
                "Invoice 2026-%03d".formatted(number),
                "to " + member + ", member " + (10 + number),
                "",
                "%s\t%s\t%s\t%s".formatted("", "number", "each", "euros"),
                "%s\t%d\t%s\t%s".formatted("Crates of apples pressed", crates, "4.00", money(pressing)),
                "%s\t%d\t%s\t%s".formatted("Bottles, filled and closed", bottles, "2.00", money(sold))));
        if (deposit > 0) {
            lines.add("%s\t%d\t%s\t%s".formatted("Bottles given back", deposit, "-0.50", money(-deposit / 2)));
        }
        lines.addAll(List.of(
                "",
                "%s\t%s\t%s\t%s".formatted("Total", "", "", money(pressing + sold - deposit / 2)),
                "",
                "Please pay within 30 days, and name the number of the invoice."));
        return Pictures.pdf(lines);
    }

    private static String money(int euros) {
        return euros + ".00";
    }

    /** The talk with its pictures and what the speaker says to each slide; {@code count} slides of it. */
    static byte[] talk(int count, Random random) {
        Scenes[] scenes = {Scenes.ORCHARD, Scenes.PRESS, Scenes.HIVES, Scenes.CELLAR, Scenes.POND};
        List<byte[]> pictures = new ArrayList<>();
        for (int i = 0; i < Math.min(count, scenes.length); i++) {
            pictures.add(Pictures.png(scenes[i].photograph(480, 270, random)));
        }
        return OpenDocument.slides(
                List.of(SLIDES).subList(0, count), pictures, List.of(NOTES).subList(0, count));
    }

    /** The letter to all members, with pictures between its paragraphs. */
    static byte[] newsletter(int edition, Random random) {
        List<String> text = new ArrayList<>();
        text.add("# Autumn in the orchard");
        Phrases phrases = Phrases.LETTER;
        Random own = new Random(7);
        for (int i = 0; i < 9 + edition; i++) {
            text.add(String.join(" ", phrases.paragraph(own)));
        }
        text.add(3, "!0");
        text.add(7, "!1");
        if (edition > 1) {
            text.add(text.size() - 1, "!2");
        }
        Scenes last = edition > 2 ? Scenes.POND : Scenes.HIVES;
        return OpenDocument.text(
                text,
                List.of(
                        Pictures.jpeg(Scenes.PRESS.photograph(480, 320, random)),
                        Pictures.jpeg(Scenes.ORCHARD.photograph(480, 320, random)),
                        Pictures.jpeg(last.photograph(480, 320, random))));
    }

    /** Messages of the last weeks, each with what was sent along. */
    static void mails(Office office, Random random) throws IOException {
        Instant day = office.now().minus(Duration.ofDays(4));
        office.write(
                "Mail/Quote for the pump.eml",
                Mails.mail(
                        "Adele",
                        "Tomas",
                        "Quote for the pump",
                        day,
                        List.of(
                                "Hello Tomas,",
                                "",
                                "here is the quote for the new pump. 840 euros with the hose; the old one is taken back.",
                                "I would take it, the board decides on Thursday.",
                                "",
                                "Adele"),
                        List.of(new Mails.Attachment(
                                "Quote 118.pdf",
                                "application/pdf",
                                Pictures.pdf(List.of(
                                        "Quote 118",
                                        "Pump, 40 litres a minute\t\t\t760.00",
                                        "Hose, 12 metres\t\t\t80.00",
                                        "Total\t\t\t840.00"))))),
                day,
                "Tomas");
        office.write(
                "Mail/Photographs for the letter.eml",
                Mails.mail(
                        "Wilma",
                        "Ines",
                        "Photographs for the letter",
                        day.plus(Duration.ofHours(5)),
                        List.of("Two for the autumn letter. The second is the better one.", "", "Wilma"),
                        List.of(
                                new Mails.Attachment(
                                        "press.jpg",
                                        "image/jpeg",
                                        Pictures.jpeg(Scenes.PRESS.photograph(480, 320, random))),
                                new Mails.Attachment(
                                        "hives.jpg",
                                        "image/jpeg",
                                        Pictures.jpeg(Scenes.HIVES.photograph(480, 320, random))))),
                day.plus(Duration.ofHours(5)),
                "Ines");
        for (int i = 1; i <= 6; i++) {
            String who = Office.PEOPLE.get(i % Office.PEOPLE.size());
            List<String> text = new ArrayList<>(List.of("Dear all,", ""));
            for (int p = 0; p < 3; p++) {
                text.addAll(Phrases.LETTER.paragraph(random));
            }
            text.addAll(List.of("", who));
            office.write(
                    "Mail/Round letter %d.eml".formatted(i),
                    Mails.mail(
                            who, "Members", "Round letter " + i, day.plus(Duration.ofHours(9L * i)), text, List.of()),
                    day.plus(Duration.ofHours(9L * i)),
                    who);
        }
    }
}
