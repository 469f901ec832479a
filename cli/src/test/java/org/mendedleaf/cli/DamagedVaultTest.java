package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Whatever a vault looks like, no command prints a stack trace, and none says that all is well. */
class DamagedVaultTest extends TerminalTest {

    private String file = "";

    /** What happened to a vault. */
    enum Damage {
        /** A byte in the middle of a pack. */
        FLIPPED {
            @Override
            void to(Path vault) throws IOException {
                Path pack = pack(vault);
                write(pack, Files.size(pack) / 2, new byte[] {
                    (byte) ~Files.readAllBytes(pack)[(int) (Files.size(pack) / 2)]
                });
            }
        },
        /** The start of a pack. */
        HEADLESS {
            @Override
            void to(Path vault) throws IOException {
                write(pack(vault), 0, new byte[64]);
            }
        },
        /** A pack that ends too early. */
        CUT {
            @Override
            void to(Path vault) throws IOException {
                try (FileChannel c = FileChannel.open(pack(vault), StandardOpenOption.WRITE)) {
                    c.truncate(c.size() / 3);
                }
            }
        },
        /** No packs. */
        NO_PACKS {
            @Override
            void to(Path vault) throws IOException {
                Files.delete(pack(vault));
            }
        },
        /** A catalogue of nothing. */
        EMPTY_CATALOGUE {
            @Override
            void to(Path vault) throws IOException {
                Files.write(catalogue(vault), new byte[0]);
            }
        },
        /** A catalogue of noise. */
        NOISE_CATALOGUE {
            @Override
            void to(Path vault) throws IOException {
                byte[] noise = new byte[20_000];
                new java.util.Random(3).nextBytes(noise);
                Files.write(catalogue(vault), noise);
            }
        },
        /** A catalogue with a page of noise. */
        TORN_CATALOGUE {
            @Override
            void to(Path vault) throws IOException {
                byte[] noise = new byte[4096];
                new java.util.Random(5).nextBytes(noise);
                write(catalogue(vault), 4096 * 3L, noise);
            }
        },
        /** No catalogue. */
        NO_CATALOGUE {
            @Override
            void to(Path vault) throws IOException {
                Files.delete(catalogue(vault));
            }
        };

        abstract void to(Path vault) throws IOException;

        static Path pack(Path vault) throws IOException {
            try (Stream<Path> all = Files.walk(vault)) {
                return all.filter(p -> p.toString().endsWith(".pack"))
                        .max(Comparator.comparing(p -> p.toFile().length()))
                        .orElseThrow();
            }
        }

        static Path catalogue(Path vault) throws IOException {
            try (Stream<Path> all = Files.list(vault)) {
                for (Path p : all.toList()) {
                    Files.deleteIfExists(Path.of(p + "-wal"));
                    Files.deleteIfExists(Path.of(p + "-shm"));
                }
            }
            return vault.resolve("catalogue.db");
        }

        static void write(Path file, long at, byte[] bytes) throws IOException {
            try (FileChannel c = FileChannel.open(file, StandardOpenOption.WRITE)) {
                c.write(ByteBuffer.wrap(bytes), at);
            }
        }
    }

    private void history() throws IOException {
        file = save("d/ledger.txt", noise(1));
        save("other.txt", noise(2));
        protect();
        for (int i = 3; i < 6; i++) {
            save("d/ledger.txt", noise(i));
            assertThat(run("capture")).isZero();
        }
        assertThat(run("snapshot", "take", desk.toString(), "--label", "one")).isZero();
        assertThat(run("check", "--full")).isZero();
    }

    private static String noise(int seed) {
        StringBuilder text = new StringBuilder();
        new java.util.Random(seed).ints(2000).forEach(i -> text.append(Integer.toHexString(i)));
        return text.toString();
    }

    private List<List<String>> commands() {
        String folder = desk.toString();
        String to = temp.resolve("to").toString();
        return List.of(
                List.of("status"),
                List.of("list", folder),
                List.of("list", folder, "--removed", "--json"),
                List.of("line", file),
                List.of("line", file, "--json"),
                List.of("space"),
                List.of("rules", "show"),
                List.of("thin", "--plan"),
                List.of("forecast"),
                List.of("removed"),
                List.of("hold"),
                List.of("snapshot", "list", folder),
                List.of("restore", file, "--version", "1", "--plan"),
                List.of("restore", folder, "--at", "now", "--to", to),
                List.of("copy", file, "--version", "2", "--to", to),
                List.of("compare", folder, "--from", "2 hours ago"),
                List.of("undo", "--list"),
                List.of("reclaim"),
                List.of("check"),
                List.of("capture"),
                List.of("restore", file, "--version", "1"));
    }

    @ParameterizedTest
    @EnumSource(Damage.class)
    void noCommandPrintsATraceOrSaysThatAllIsWell(Damage damage) throws Exception {
        history();
        byte[] live = Files.readAllBytes(Path.of(file));
        damage.to(temp.resolve("vault"));
        for (List<String> command : commands()) {
            int code = run(command.toArray(String[]::new));
            assertThat(out + err)
                    .as("%s: %s", damage, command)
                    .doesNotContain("\tat ")
                    .doesNotContain("Exception")
                    .doesNotContain("SQLITE")
                    .doesNotContain("null");
            assertThat(code).as("%s: %s: %s", damage, command, err).isBetween(0, 4);
            if (code != 0) {
                assertThat(command.contains("--json") ? out : err)
                        .as("%s: %s", damage, command)
                        .isNotBlank();
            }
        }
        byte[] now = Files.readAllBytes(Path.of(file));
        if (!java.util.Arrays.equals(now, live)) {
            assertThat(Files.readString(Path.of(file))).as("a whole version").isEqualTo(noise(1));
        }
        assertThat(run("check", "--full")).as("%s: %s %s", damage, out, err).isNotZero();
        run("check", "--rebuild");
        assertThat(out + err).doesNotContain("\tat ").doesNotContain("Exception");
        save("d/ledger.txt", "after all that");
        assertThat(run("capture")).as("%s: %s %s", damage, out, err).isBetween(0, 1);
        assertThat(run(
                        "copy",
                        file,
                        "--version",
                        newest(),
                        "--to",
                        temp.resolve("last").toString()))
                .as("%s: %s", damage, err)
                .isZero();
    }

    private String newest() throws IOException {
        return json("line", file).at("/points/0/version").asText();
    }
}
