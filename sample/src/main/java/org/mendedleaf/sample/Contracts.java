package org.mendedleaf.sample;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Random;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.intake.FolderLines;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;

/**
 * A second folder of the office, where papers that bind it lie: what is saved there is a draft until somebody publishes
 * it. One paper has drafts and published versions, one is checked out while somebody else saved over it, one was
 * replaced by what the other side sent, with notes.
 */
final class Contracts {

    static final String MILL = "Mill supply contract.odt";
    static final String INSURANCE = "Orchard insurance.odt";
    static final String RULES = "House rules.odt";

    private final OpenVault vault;
    private final Path folder;
    private final Random random = new Random(1120);
    private Place place;
    private String author = "Ines";
    private Instant now = Office.TODAY;

    private Contracts(OpenVault vault, Path folder) throws IOException {
        this.vault = vault;
        this.folder = folder;
        at(44, 9, 10);
        this.place = Protect.place(vault, folder.toRealPath(), Rhythm.ON_SAVE, List.of(), clock(), "Ines");
    }

    /** Makes it, with all that happened in it. */
    static void make(OpenVault vault, Path folder) throws IOException {
        Files.createDirectories(folder);
        new Contracts(vault, folder).run();
    }

    private void run() throws IOException {
        PlaceSettings settings = PlaceRules.DEFAULT
                .settings()
                .with(Setting.NUMBERING, "drafts")
                .with(Setting.KEEP_DRAFTS_OF, "3")
                .with(List.of(
                        new Member("Tomas", Role.EDITOR),
                        new Member("Wilma", Role.EDITOR),
                        new Member("Adele", Role.READER)));
        try (WriteSession session = vault.write()) {
            PlaceRules.DEFAULT.store(session, place, settings, now, "Ines");
            session.commit();
        }
        Draft mill = Draft.text(random, 18, "Supply contract with the mill", true);
        Draft insurance = Draft.text(random, 12, "Insurance of the orchard", true);
        Draft rules = Draft.text(random, 9, "House rules of the press", true);
        autumn(mill, rules);
        october(mill, insurance);
        lately(mill, insurance, rules);
    }

    /** The contract goes out to the mill, and the house rules are agreed. */
    private void autumn(Draft mill, Draft rules) throws IOException {
        at(43, 9, 20);
        save(MILL, mill, "Ines");
        at(41, 14, 5);
        edit(MILL, mill, "Tomas");
        at(40, 10, 30);
        work("Ines").publish(MILL, "as sent to the mill");
        at(38, 8, 55);
        save(RULES, rules, "Wilma");
        at(37, 9, 40);
        work("Ines").publish(RULES, "agreed by the members");
    }

    /** The mill's answer replaces the contract, and is signed; the insurance comes. */
    private void october(Draft mill, Draft insurance) throws IOException {
        at(33, 11, 0);
        mill.edit(random);
        mill.edit(random);
        Path sent = Files.createTempFile("mill", ".odt");
        try {
            Files.write(sent, mill.save());
            new Recovery(new WorkContext(vault, place, clock(), authors(), "Ines"))
                    .put(
                            List.of(new Revision(sent, MILL, "the mill's answer: other price, other notice")),
                            Progress.NONE);
        } finally {
            Files.delete(sent);
        }
        at(32, 16, 40);
        work("Tomas").comment(newest(MILL), "The notice of three months is new, see the last part.");
        at(30, 9, 0);
        edit(MILL, mill, "Ines");
        at(29, 15, 15);
        work("Ines").publish(MILL, "signed by both");
        work("Ines").card(MILL, new FileProperties("Contracts in force", FileProperties.Visibility.EVERYBODY));
        at(26, 10, 0);
        save(INSURANCE, insurance, "Ines");
        at(25, 10, 30);
        work("Ines").publish(INSURANCE, "as it came from the broker");
    }

    /** New drafts, and two papers are checked out; one of them is saved over all the same. */
    private void lately(Draft mill, Draft insurance, Draft rules) throws IOException {
        at(16, 17, 2);
        edit(RULES, rules, "Wilma");
        at(9, 10, 12);
        edit(MILL, mill, "Wilma");
        at(6, 13, 44);
        edit(MILL, mill, "Ines");
        at(5, 9, 30);
        work("Wilma").comment(newest(MILL), "The crates are ours now, so that part can go.");
        at(3, 9, 5);
        work("Tomas").checkOut(INSURANCE);
        at(2, 11, 26);
        edit(INSURANCE, insurance, "Wilma");
        at(1, 10, 20);
        work("Ines").checkOut(RULES);
    }

    private void edit(String path, Draft paper, String who) throws IOException {
        paper.edit(random);
        save(path, paper, who);
    }

    private void save(String path, Draft paper, String who) throws IOException {
        author = who;
        Path file = folder.resolve(path);
        Files.deleteIfExists(file);
        Files.write(file, paper.save());
        Files.setLastModifiedTime(file, FileTime.from(now.minusSeconds(20)));
        new Capture(vault, place, clock(), authors()).run(CaptureScope.WHOLE, Progress.NONE);
    }

    private Version newest(String path) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.line(place, path).orElseThrow().newest().orElseThrow();
        }
    }

    private FolderLines work(String who) {
        return new FolderLines(new WorkContext(vault, place, clock(), authors(), who));
    }

    private Authors authors() {
        String who = author;
        return new Authors() {
            @Override
            public String author(String path, String owner) {
                return who;
            }

            @Override
            public String remover(String path) {
                return who;
            }
        };
    }

    private void at(int before, int hour, int minute) {
        LocalDate today = Office.TODAY.atZone(Office.ZONE).toLocalDate();
        now = today.minusDays(before).atTime(hour, minute).atZone(Office.ZONE).toInstant();
    }

    private Clock clock() {
        return new Clock() {
            @Override
            public ZoneId getZone() {
                return Office.ZONE;
            }

            @Override
            public Clock withZone(ZoneId zone) {
                return this;
            }

            @Override
            public Instant instant() {
                // Steps that follow each other are not at one moment.
                now = now.plus(Duration.ofMillis(1500));
                return now;
            }
        };
    }
}
