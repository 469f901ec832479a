package org.mendedleaf.sample;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Random;

/** What stands in the office on the first day. */
final class Furniture {

    static final String HARVEST = "Seasons/2026/Harvest/";
    static final String CARDS = "Seed library/Cards/";
    static final int CARD_COUNT = 140;

    private static final String[] MONTHS = {
        "2026-03", "2026-04", "2026-05", "2026-06", "2026-07", "2026-08", "2026-09", "2026-10"
    };

    private final Office office;
    private final Random random;

    Furniture(Office office) {
        this.office = office;
        this.random = office.random();
    }

    void set() throws IOException {
        harvest();
        accounts();
        seedLibrary();
        papers();
        lastYear();
    }

    private void harvest() throws IOException {
        office.document(HARVEST + "New ledger.ods", Draft.table(random, 60, "Harvest", true), 6);
        office.document(HARVEST + "Press log.csv", Draft.table(random, 240, "Press log", false), 9);
        office.document(HARVEST + "Bottle stock.csv", Draft.table(random, 90, "Bottles", false), 6);
        office.document(HARVEST + "Crew rota.ods", Draft.table(random, 24, "Rota", true), 5);
        office.document(HARVEST + "Cider prices.ods", Draft.table(random, 30, "Prices", true), 2);
        office.document(HARVEST + "Grant application.odt", Draft.text(random, 30, "Grant application", true), 5);
        office.document(HARVEST + "Picking plan (1).ods", Draft.table(random, 20, "Plan", true), 1);
        office.still(HARVEST + "Orchard map.svg", map(3));
        office.still(HARVEST + "Season talk.odp", Papers.talk(4, random));
        String[] kinds = {"Katy", "Discovery", "Bramley", "Dabinett", "Foxwhelp", "Perry"};
        for (int i = 0; i < kinds.length; i++) {
            office.still(HARVEST + "Labels/" + kinds[i] + ".png", Pictures.label(kinds[i], 20 + i * 45, 2));
            office.still(HARVEST + "Labels/" + kinds[i] + ".svg", map(i + 2));
        }
        office.still(
                HARVEST + "Labels/Label sheet.pdf",
                Pictures.pdf(List.of("Labels, 24 on a sheet", "Cut along the line")));
        office.still(HARVEST + "Photographs of the press/Album.zip", Pictures.album(6, random));
        for (int i = 1; i <= 6; i++) {
            office.still(
                    HARVEST + "Photographs of the press/Press " + i + ".jpg",
                    Pictures.jpeg((i % 3 == 0 ? Scenes.CELLAR : Scenes.PRESS).photograph(640, 420, random)));
        }
    }

    /** A plan of the orchard in an open vector format. */
    static byte[] map(int rows) {
        StringBuilder svg = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 800 600\">\n");
        for (int r = 0; r < rows; r++) {
            for (int c = 0; c < 12; c++) {
                svg.append("  <circle cx=\"%d\" cy=\"%d\" r=\"18\" fill=\"#6b8f5a\"/>\n"
                        .formatted(60 + c * 60, 80 + r * 90));
            }
        }
        return svg.append("</svg>\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    private void accounts() throws IOException {
        office.document("Accounts/Membership fees 2026.ods", Draft.table(random, 40, "Fees", true), 4);
        office.document("Accounts/Cash book.csv", Draft.table(random, 160, "Cash", false), 8);
        office.document("Accounts/Bottle deposits.csv", Draft.table(random, 70, "Deposits", false), 5);
        for (int i = 1; i <= 46; i++) {
            office.still("Accounts/Invoices/Invoice %03d.pdf".formatted(i), Papers.invoice(i, random));
        }
    }

    private void seedLibrary() throws IOException {
        office.document("Seed library/Seed exchange.csv", Draft.table(random, 120, "Exchange", false), 6);
        office.document("Seed library/Germination tests.csv", Draft.table(random, 200, "Tests", false), 6);
        for (int i = 1; i <= CARD_COUNT; i++) {
            office.document(
                    CARDS + "Seed card %03d.md".formatted(i), Draft.text(random, 4, "Seed card " + i, false), 2);
        }
    }

    private void papers() throws IOException {
        for (String month : MONTHS) {
            office.document("Newsletter/Letter " + month + ".md", Draft.text(random, 14, "Letter " + month, false), 4);
            office.document("Weather/" + month + ".csv", Draft.table(random, 90, "Weather", false), 4);
            office.document("Minutes/Minutes " + month + ".odt", Draft.text(random, 16, "Minutes " + month, true), 4);
        }
        office.document("Lease/Lower meadow.odt", Draft.text(random, 24, "Lease of the lower meadow", true), 3);
        office.document("Lease/Walled garden.odt", Draft.text(random, 20, "Lease of the walled garden", true), 2);
        pondPlan();
        office.still("Newsletter/Autumn letter.odt", Papers.newsletter(1, random));
        Papers.mails(office, random);
        office.still("Plans/Cellar drawing.svg", map(5));
        office.still("Plans/Cellar drawing.svg.bak", map(4));
        office.still("Plans/Gate drawing.svg~", map(2));
        for (String place : List.of("Desk", "Shed", "Press space")) {
            office.document("How we do it/" + place + ".md", Draft.text(random, 10, place, false), 2);
        }
    }

    /** One plan in five copies, as it went from hand to hand. */
    private void pondPlan() throws IOException {
        Draft pond = Draft.table(random, 18, "Pond", true);
        int days = 160;
        for (String name : List.of(
                "Pond plan v1", "Copy of Pond plan", "Pond plan (1)", "Pond plan 2026-07-02", "Pond plan v2 FINAL")) {
            office.write("Plans/" + name + ".ods", pond.save(), office.now().minus(Duration.ofDays(days)), "Wilma");
            pond.edit(random);
            pond.edit(random);
            days -= 27;
        }
    }

    private void lastYear() throws IOException {
        String year = "Seasons/2025/";
        office.still(
                year + "Harvest ledger 2025.ods",
                Draft.table(random, 140, "Harvest", true).save());
        for (int i = 1; i <= 52; i++) {
            office.still(
                    year + "Weighings/Week %02d.csv".formatted(i),
                    Draft.table(random, 50, "Week", false).save());
        }
        for (int i = 1; i <= 18; i++) {
            office.still(
                    year + "Letters/Letter %02d.odt".formatted(i),
                    Draft.text(random, 8, "Letter", true).save());
        }
        for (int i = 1; i <= 80; i++) {
            office.document("Members/Member %02d.md".formatted(i), Draft.text(random, 3, "Member " + i, false), 1);
        }
    }
}
