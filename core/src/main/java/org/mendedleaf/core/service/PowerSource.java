package org.mendedleaf.core.service;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** Whether the computer runs on its battery, where the system says so; where it does not, it is taken to be plugged in. */
public final class PowerSource {

    private static final Path SUPPLIES = Path.of("/sys/class/power_supply");

    private final Path supplies;

    /** As Linux tells it in its files; other systems have none, and nothing waits for their plug. */
    public PowerSource() {
        this(SUPPLIES);
    }

    PowerSource(Path supplies) {
        this.supplies = supplies;
    }

    /** Whether there is a battery that is being emptied and nothing that feeds the computer. */
    public boolean isBattery() {
        boolean discharging = false;
        try (DirectoryStream<Path> all = Files.newDirectoryStream(supplies)) {
            for (Path supply : all) {
                String type = word(supply.resolve("type"));
                if (type.equals("Mains") && word(supply.resolve("online")).equals("1")) {
                    return false;
                }
                // A mouse has a battery too.
                boolean ofComputer = !word(supply.resolve("scope")).equals("Device");
                discharging |= type.equals("Battery")
                        && ofComputer
                        && word(supply.resolve("status")).equals("Discharging");
            }
        } catch (IOException e) {
            return false;
        }
        return discharging;
    }

    private static String word(Path file) {
        try {
            return Files.readString(file).strip();
        } catch (IOException e) {
            return "";
        }
    }
}
