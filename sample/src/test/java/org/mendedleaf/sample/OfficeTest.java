package org.mendedleaf.sample;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.home.Connection;
import org.mendedleaf.core.home.Home;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.VaultCheck;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.SystemBook;
import org.mendedleaf.core.systems.wire.Retry;

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
            assertThat(reading.room().versions()).isBetween(2800L, 3600L);
            assertThat(reading.captures(place)).hasSizeGreaterThan(120);
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
            assertThat(reading.captures(place))
                    .as("the burst")
                    .anyMatch(c -> c.changes() >= Furniture.CARD_COUNT && !c.first());
            assertThat(new VaultCheck(vault).run(true, Progress.NONE).isClean()).isTrue();
        }
        elsewhere(folder);
    }

    /** Its part in other systems: one file in several of them, a drive that missed two runs. */
    private static void elsewhere(Path folder) throws Exception {
        Home home = Home.open(Office.settings(folder));
        assertThat(home.connections())
                .extracting(Connection::name)
                .containsExactlyInAnyOrder("Library", "Archive", "Server", "Drive");
        SystemBook book = new SystemBook(home, Clock.fixed(Office.TODAY, ZoneOffset.UTC), Retry.STANDARD);
        try (OpenVault vault = OpenVault.open(Office.vault(folder), "test", Duration.ZERO)) {
            Line log;
            try (Reading reading = vault.read()) {
                log = reading.line(reading.places().get(0), Furniture.HARVEST + "Press log.csv")
                        .orElseThrow();
            }
            assertThat(MergedLine.of(vault, log, book, true).others())
                    .extracting(l -> l.place().where())
                    .containsExactlyInAnyOrder("Drive:Front desk", "Server:Harvest", "Archive:Press logs");
            Coverage.Row drive = Coverage.of(vault, Office.TODAY).stream()
                    .filter(r -> r.where().equals("Drive:Front desk"))
                    .findFirst()
                    .orElseThrow();
            assertThat(drive.state()).isEqualTo(CoverageState.AWAY);
            assertThat(drive.missed()).isEqualTo(2);
        }
        Connection library = home.connection("Library").orElseThrow();
        home.connect(new Connection("Library", library.kind(), "http://127.0.0.1:1", library.token(), library.vault()));
        Elsewhere.readdress(Office.outside(folder), home);
        assertThat(home.connection("Library").orElseThrow().address()).isEqualTo(library.address());
    }
}
