package org.mendedleaf.sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.FindingStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.intake.ScatteredCopies;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.intake.StrayCopies;
import org.mendedleaf.core.intake.VersionBytes;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;

/** The sample office as a whole. It is tried here, in the module that is built last: no other has to wait for it. */
class OfficeTest {

    @Test
    void theOfficeHasItsFilesItsHistoryAndItsMishapsAndIsSound(@TempDir Path folder) throws Exception {
        Office.make(folder, Clock.fixed(Office.TODAY, ZoneOffset.UTC));
        try (Stream<Path> all = Files.walk(Office.desk(folder))) {
            assertThat(all.filter(Files::isRegularFile).count()).isBetween(350L, 450L);
        }
        try (OpenVault vault = OpenVault.open(Office.vault(folder), "test", Duration.ZERO);
                Reading reading = vault.read()) {
            Place place = reading.places().get(0);
            assertThat(reading.space().versions()).isBetween(2800L, 3600L);
            assertThat(reading.changes().captures(place)).hasSizeGreaterThan(120);
            Line ledger = reading.line(place, Furniture.HARVEST + "Harvest ledger.ods")
                    .orElseThrow();
            List<EventKind> events = ledger.points().stream()
                    .filter(Event.class::isInstance)
                    .map(e -> ((Event) e).kind())
                    .toList();
            assertThat(events).as("renamed twice").containsExactly(EventKind.RENAMED, EventKind.RENAMED);
            assertThat(ledger.newest().orElseThrow().who())
                    .as("who saved over it")
                    .isEqualTo("Tomas");
            assertThat(reading.line(place, Furniture.HARVEST + "Crew rota.ods")
                            .orElseThrow()
                            .newest()
                            .orElseThrow()
                            .size())
                    .as("the emptied rota")
                    .isZero();
            assertThat(reading.line(place, Furniture.HARVEST + "Bottle stock.csv")
                            .orElseThrow()
                            .removed())
                    .isPresent();
            assertThat(reading.changes().captures(place))
                    .as("the burst")
                    .anyMatch(c -> c.changes() >= Furniture.CARD_COUNT && !c.first());
            assertThat(new VaultCheck(vault).run(true, Progress.NONE).isClean()).isTrue();
        }
        believable(Office.desk(folder));
        elsewhere(folder);
        contracts(folder);
        copies(folder);
        arrivals(folder);
    }

    private static Document read(Path desk, String path) throws Exception {
        Path file = desk.resolve(path);
        return Documents.read(String.valueOf(file.getFileName()), Files.readAllBytes(file), false);
    }

    /** What a document says, as far as it is of this style. */
    private static List<String> blocks(Document document, Document.Style style) {
        return ((Document.Prose) document)
                .sections().stream()
                        .flatMap(s -> s.blocks().stream())
                        .filter(b -> b.style() == style)
                        .map(Document.Block::text)
                        .toList();
    }

    /** Its documents say what such documents say, and look as they are called. */
    private static void believable(Path desk) throws Exception {
        Document talk = read(desk, Furniture.HARVEST + "Season talk.odp");
        assertThat(blocks(talk, Document.Style.NOTE))
                .as("what the speaker says")
                .hasSize(6);
        assertThat(blocks(talk, Document.Style.PICTURE)).hasSize(5);
        Document letter = read(desk, "Newsletter/Autumn letter.odt");
        assertThat(blocks(letter, Document.Style.PICTURE)).as("its pictures").hasSize(3);
        Document mail = read(desk, "Mail/Quote for the pump.eml");
        assertThat(blocks(mail, Document.Style.ITEM)).singleElement().asString().startsWith("Quote 118.pdf");
        for (int i = 1; i <= 46; i++) {
            List<String> lines = Document.words(read(desk, "Accounts/Invoices/Invoice %03d.pdf".formatted(i)));
            List<Double> euros = lines.stream()
                    .filter(l -> l.matches("(Crates|Bottles|Total).*"))
                    .map(l -> Double.parseDouble(l.substring(l.lastIndexOf(' ') + 1)))
                    .toList();
            double sum = euros.subList(0, euros.size() - 1).stream()
                    .mapToDouble(Double::doubleValue)
                    .sum();
            assertThat(sum).as("invoice " + i + " adds up").isEqualTo(euros.get(euros.size() - 1));
        }
        Document.Sheets fees = (Document.Sheets) read(desk, "Accounts/Membership fees 2026.ods");
        assertThat(fees.sheets().get(0).rows().stream()
                        .flatMap(r -> r.cells().stream())
                        .filter(c -> !c.formula().isEmpty()))
                .as("totals")
                .isNotEmpty();
    }

    /** Papers with drafts and published versions; one is checked out by Tomas while Wilma saved over it. */
    private static void contracts(Path folder) throws Exception {
        try (OpenVault vault = OpenVault.open(Office.vault(folder), "test", Duration.ZERO);
                Reading reading = vault.read()) {
            Place place = reading.places().stream()
                    .filter(p -> p.label().equals("Contracts") && !p.isOutside())
                    .findFirst()
                    .orElseThrow();
            Line mill = reading.line(place, Contracts.MILL).orElseThrow();
            assertThat(mill.versions())
                    .extracting(v -> v.edition().label())
                    .containsExactly("3.2", "3.1", "3", "2.1", "2", "1");
            assertThat(mill.version("3").orElseThrow().note()).isEqualTo("signed by both");
            assertThat(CheckOutStore.of(reading).all(place))
                    .extracting(CheckOut::who)
                    .containsExactlyInAnyOrder("Tomas", "Ines");
            assertThat(FindingStore.of(reading).open(place)).hasSize(1);
        }
    }

    private static Evidence evidence(OpenVault vault, Place place) {
        return new Evidence(vault, place, Clock.fixed(Office.TODAY, ZoneOffset.UTC), VersionBytes.VAULT_ONLY);
    }

    private static Place desk(OpenVault vault) throws Exception {
        try (Reading reading = vault.read()) {
            return reading.places().get(0);
        }
    }

    /** Five copies of one plan are a family, and a drawing is gone except for its safety copy. */
    private static void copies(Path folder) throws Exception {
        try (OpenVault vault = OpenVault.open(Office.vault(folder), "test", Duration.ZERO)) {
            Place desk = desk(vault);
            assertThat(new ScatteredCopies(vault, desk, evidence(vault, desk)).find("Plans", Progress.NONE))
                    .singleElement()
                    .satisfies(f -> assertThat(f.members()).hasSize(5));
            StrayCopies copies =
                    new StrayCopies(vault, desk, evidence(vault, desk), Clock.fixed(Office.TODAY, ZoneOffset.UTC));
            assertThat(copies.find("Plans", List.of()))
                    .extracting(Stray::belongsTo, Stray::present)
                    .containsExactlyInAnyOrder(
                            tuple("Plans/Cellar drawing.svg", true), tuple("Plans/Gate drawing.svg", false));
        }
    }

    /** Of five files that arrived, four are revisions of what is there and one has only the right name. */
    private static void arrivals(Path folder) throws Exception {
        Map<String, String> targets = Map.of(
                "Press log.csv", Furniture.HARVEST + "Press log.csv",
                "Cash book (1).csv", "Accounts/Cash book.csv",
                "Grant application final.odt", Furniture.HARVEST + "Grant application.odt",
                "Lower meadow v2.odt", "Lease/Lower meadow.odt",
                "Walled garden.odt", "Lease/Walled garden.odt");
        UserSettings home = UserSettings.open(Office.settings(folder));
        try (OpenVault vault = OpenVault.open(Office.vault(folder), "test", Duration.ZERO)) {
            Evidence evidence = evidence(vault, desk(vault));
            for (Map.Entry<String, String> e : targets.entrySet()) {
                assertThat(evidence.judge(home.arrivals().get(0).resolve(e.getKey()), e.getValue())
                                .outcome())
                        .as(e.getKey())
                        .isEqualTo(
                                e.getKey().equals("Walled garden.odt")
                                        ? Judgement.Outcome.UNLIKELY
                                        : Judgement.Outcome.SURE);
            }
        }
    }

    /** Its part in other systems: one file in several of them, a drive that missed two runs. */
    private static void elsewhere(Path folder) throws Exception {
        UserSettings home = UserSettings.open(Office.settings(folder));
        assertThat(home.connections())
                .extracting(Connection::name)
                .containsExactlyInAnyOrder("Library", "Archive", "Server", "Drive");
        SystemRegistry registry =
                new SystemRegistry(home, Systems.OPENER, Clock.fixed(Office.TODAY, ZoneOffset.UTC), Retry.DEFAULT);
        try (OpenVault vault = OpenVault.open(Office.vault(folder), "test", Duration.ZERO)) {
            Line log;
            try (Reading reading = vault.read()) {
                log = reading.line(reading.places().get(0), Furniture.HARVEST + "Press log.csv")
                        .orElseThrow();
            }
            assertThat(MergedLine.of(vault, log, registry, true).others())
                    .extracting(l -> l.place().where())
                    .containsExactlyInAnyOrder("Drive:Front desk", "Server:Harvest", "Archive:Press logs");
            Coverage.Row drive = Coverage.of(vault, Office.TODAY, java.time.ZoneOffset.UTC).stream()
                    .filter(r -> r.where().equals("Drive:Front desk"))
                    .findFirst()
                    .orElseThrow();
            assertThat(drive.state()).isEqualTo(CoverageState.AWAY);
            assertThat(drive.missed()).isEqualTo(2);
        }
        Connection library = home.connection("Library").orElseThrow();
        home.connect(new Connection("Library", library.kind(), "http://127.0.0.1:1", library.token(), library.vault()));
        SampleSystems.readdress(Office.outside(folder), home);
        assertThat(home.connection("Library").orElseThrow().address()).isEqualTo(library.address());
    }
}
