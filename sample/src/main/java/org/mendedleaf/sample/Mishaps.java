package org.mendedleaf.sample;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;

/** What goes wrong in the office, and what is put in order, by day. */
final class Mishaps {

    private static final String HARVEST = Furniture.HARVEST;

    private final Office office;
    private final Random random;

    Mishaps(Office office) {
        this.office = office;
        this.random = office.random();
    }

    private interface Deed {
        void run() throws IOException;
    }

    private Runnable at(LocalDate date, int hour, int minute, Deed deed) {
        Instant when = date.atTime(hour, minute).atZone(Office.ZONE).toInstant();
        return () -> {
            try {
                office.at(when.minus(Duration.ofSeconds(30)));
                deed.run();
                office.at(when);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        };
    }

    /** What happens on this day, before noon (look 0) or after it (look 1). */
    List<Runnable> on(LocalDate date, int look) {
        List<Runnable> found = new ArrayList<>();
        String day = date + (look == 0 ? " am" : " pm");
        switch (day) {
            case "2026-09-03 pm" -> found.add(at(date, 17, 12, () -> rename("New ledger.ods", "Ledger 2026.ods")));
            case "2026-09-17 am" -> found.add(at(date, 12, 5, () -> rename("Ledger 2026.ods", "Harvest ledger.ods")));
            case "2026-10-02 am" -> found.add(at(date, 11, 58, () -> remove(HARVEST + "Picking plan (1).ods", "Jory")));
            case "2026-10-09 pm" -> found.add(at(date, 17, 30, () -> broken(HARVEST + "Cider prices.ods")));
            case "2026-11-02 pm" -> found.add(at(date, 17, 3, this::garble));
            case "2026-11-05 pm" ->
                found.add(at(
                        date,
                        17,
                        21,
                        () -> save(HARVEST + "Labels/Bramley.png", Pictures.label("Perry", 245, 5), "Jory")));
            case "2026-11-11 pm" -> found.add(at(date, 17, 40, () -> removeFolder("Seasons/2025/Letters")));
            case "2026-11-16 am" -> found.add(at(date, 11, 52, () -> remove(HARVEST + "Bottle stock.csv", "Tomas")));
            case "2026-11-17 pm" ->
                found.add(at(date, 17, 5, () -> save(HARVEST + "Crew rota.ods", new byte[0], "Wilma")));
            case "2026-11-20 am" -> found.add(at(date, 10, 31, this::overwriteLedger));
            default -> talk(date, look, found);
        }
        return found;
    }

    /** The talk is polished again and again, each time with new pictures: its versions take most of the space. */
    private void talk(LocalDate date, int look, List<Runnable> found) {
        if (look == 1 && date.getDayOfMonth() % 9 == 0) {
            found.add(at(date, 18, 0, () -> {
                save(HARVEST + "Season talk.odp", Papers.talk(6, random), "Adele");
            }));
        }
        if (look == 0 && date.getMonthValue() > 9 && date.getDayOfMonth() == 13) {
            int edition = date.getMonthValue() - 8;
            found.add(at(
                    date,
                    12,
                    2,
                    () -> save("Newsletter/Autumn letter.odt", Papers.newsletter(edition, random), "Wilma")));
        }
        if (look == 0 && date.getDayOfMonth() % 21 == 0) {
            found.add(at(
                    date,
                    12,
                    1,
                    () -> save(
                            HARVEST + "Orchard map.svg",
                            Furniture.map(3 + date.getDayOfMonth() / 20 + date.getMonthValue() % 3),
                            "Wilma")));
        }
    }

    private void save(String path, byte[] content, String who) throws IOException {
        office.write(path, content, office.now(), who);
        office.retire(path);
    }

    private void rename(String from, String to) throws IOException {
        office.rename(HARVEST + from, HARVEST + to);
        office.editor(HARVEST + to, "Ines");
    }

    private void remove(String path, String who) throws IOException {
        Files.delete(office.desk().resolve(path));
        office.editor(path, who);
        office.retire(path);
    }

    /** A spreadsheet of which only the first part was written: it no longer opens. */
    private void broken(String path) throws IOException {
        byte[] whole = Files.readAllBytes(office.desk().resolve(path));
        save(path, java.util.Arrays.copyOf(whole, whole.length * 2 / 3), "Wilma");
    }

    /** All seed cards become unreadable within three minutes. */
    private void garble() throws IOException {
        Instant start = office.now().minus(Duration.ofMinutes(3));
        for (int i = 1; i <= Furniture.CARD_COUNT; i++) {
            String path = Furniture.CARDS + "Seed card %03d.md".formatted(i);
            byte[] noise = new byte[700 + random.nextInt(900)];
            random.nextBytes(noise);
            office.write(path, noise, start.plusSeconds(i), "Adele");
            office.retire(path);
        }
    }

    private void removeFolder(String path) throws IOException {
        try (Stream<Path> all = Files.walk(office.desk().resolve(path))) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(each);
                office.editor(office.desk().relativize(each).toString(), "Jory");
            }
        }
    }

    /** Somebody saves a letter under the name of the ledger. */
    private void overwriteLedger() throws IOException {
        byte[] letter = Draft.text(random, 6, "Dear members", true).save();
        save(HARVEST + "Harvest ledger.ods", letter, "Tomas");
    }
}
