package org.mendedleaf.core.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.jobs.Supervisor;
import org.mockito.Mockito;

/** What can wait waits while a computer runs on its battery. */
class PowerSourceTest {

    @TempDir
    private Path supplies;

    private void supply(String name, String file, String value) throws IOException {
        Files.writeString(Files.createDirectories(supplies.resolve(name)).resolve(file), value + "\n");
    }

    private boolean isBattery() {
        return new PowerSource(supplies).isBattery();
    }

    @Test
    void aComputerWithoutABatteryIsPluggedIn() {
        assertThat(isBattery()).isFalse();
        assertThat(new PowerSource(supplies.resolve("nothing")).isBattery()).isFalse();
    }

    @Test
    void onlyABatteryOfTheComputerThatIsBeingEmptiedCounts() throws IOException {
        supply("BAT0", "type", "Battery");
        supply("BAT0", "status", "Discharging");
        assertThat(isBattery()).isTrue();
        supply("BAT0", "status", "Charging");
        assertThat(isBattery()).isFalse();
        supply("mouse", "type", "Battery");
        supply("mouse", "status", "Discharging");
        supply("mouse", "scope", "Device");
        assertThat(isBattery()).as("the battery of a mouse").isFalse();
        supply("BAT0", "status", "Discharging");
        supply("AC", "type", "Mains");
        supply("AC", "online", "1");
        assertThat(isBattery()).as("plugged in").isFalse();
        supply("AC", "online", "0");
        assertThat(isBattery()).isTrue();
    }

    @Test
    void aDutyThatCanWaitDoesUntilItIsPluggedIn() throws Exception {
        AtomicInteger rounds = new AtomicInteger();
        Supervisor.Duty duty = Mockito.mock(Supervisor.Duty.class);
        Mockito.when(duty.round(Mockito.any())).thenAnswer(i -> {
            rounds.incrementAndGet();
            return Duration.ofSeconds(1);
        });
        VaultDuties.WhilePluggedIn waiting = new VaultDuties.WhilePluggedIn(duty, new PowerSource(supplies));
        supply("BAT0", "type", "Battery");
        supply("BAT0", "status", "Discharging");
        assertThat(waiting.round(Mockito.mock(Supervisor.Breath.class))).isGreaterThan(Duration.ofSeconds(1));
        assertThat(rounds).hasValue(0);
        supply("BAT0", "status", "Full");
        assertThat(waiting.round(Mockito.mock(Supervisor.Breath.class))).isEqualTo(Duration.ofSeconds(1));
        assertThat(rounds).hasValue(1);
    }
}
