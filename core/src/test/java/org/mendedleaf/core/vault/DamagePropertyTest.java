package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.Tries;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;

/**
 * Whatever is damaged in a vault, any byte, any length, any pack, with its catalogue there, older, emptied, garbled or gone:
 * only versions are lost that need a damaged byte, however often a new catalogue is made, and whatever is captured later.
 */
class DamagePropertyTest {

    private static final int ROUNDS = 14;

    @TempDir
    static Path template;

    @TempDir
    Path temp;

    /** Where bytes stand that something needs. */
    private record Stretch(long pack, long from, long to) {
        boolean meets(Stretch other) {
            return pack == other.pack && from < other.to && other.from < to;
        }
    }

    /** A content, the bytes of its chunks, and the commit that tells of it. */
    private record Kept(String content, List<Stretch> chunks, long commit) {}

    private static final List<Kept> KEPT = new ArrayList<>();
    private static final Map<Long, Stretch> COMMITS = new HashMap<>();
    private static final Map<Long, Long> LENGTHS = new LinkedHashMap<>();
    private static long olderCommit;

    enum Catalogue {
        THERE,
        OLDER,
        EMPTIED,
        GARBLED,
        GONE
    }

    static LongStream seeds() {
        return Tries.seeds(2);
    }

    @BeforeAll
    static void fill() throws Exception {
        Random random = new Random(15);
        Map<String, Long> commitOf = new LinkedHashMap<>();
        try (TestPlace p = new TestPlace(template)) {
            for (int i = 0; i < ROUNDS; i++) {
                for (int file = 0; file < 3; file++) {
                    String content = content(random, i, file);
                    commitOf.put(content, 0L);
                    p.save("folder " + file + "/file " + random.nextInt(4) + ".txt", content);
                }
                p.capture();
                long commit = commit(template);
                commitOf.replaceAll((c, n) -> n == 0 ? commit : n);
                if (i % 5 == 4) {
                    try (WriteSession session = p.vault().write()) {
                        session.chunks().sealNext();
                        session.commit();
                    }
                }
                if (i == ROUNDS / 2) {
                    Files.copy(template.resolve("vault/catalogue.db"), template.resolve("older.db"));
                    Files.copy(template.resolve("vault/catalogue.db-wal"), template.resolve("older.db-wal"));
                    olderCommit = commit(template);
                }
            }
            read(p.vault(), commitOf);
        }
        VaultFolder vault = VaultFolder.open(template.resolve("vault"));
        try (PackReader reader = new PackReader(vault)) {
            for (long number : vault.packNumbers()) {
                LENGTHS.put(number, Files.size(vault.pack(number)));
                new PackWalk(reader, number, PackChunks.NONE).run(new PackWalk.Taker() {
                    @Override
                    public void sound(PackRecord head, byte[] bytes) {
                        if (head.type() == PackFormat.COMMIT) {
                            COMMITS.put(head.id(), new Stretch(number, head.offset(), head.end()));
                        }
                    }

                    @Override
                    public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
                        throw new IllegalStateException("expected a sound vault");
                    }
                });
            }
        }
    }

    private static String content(Random random, int round, int file) {
        byte[] noise = new byte[random.nextInt(4) == 0 ? 30_000 : random.nextInt(300)];
        random.nextBytes(noise);
        return "round %d, file %d: %s"
                .formatted(round, file, java.util.Base64.getEncoder().encodeToString(noise));
    }

    private static long commit(Path folder) throws Exception {
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("vault/catalogue.db"));
                ResultSet row = db.createStatement().executeQuery("SELECT value FROM counter WHERE name = 'commit'")) {
            return row.getLong(1);
        }
    }

    private static void read(OpenVault vault, Map<String, Long> commitOf) throws IOException {
        try (Reading r = vault.read()) {
            for (Version v : versions(r)) {
                String content = text(r, v);
                List<Stretch> chunks = r.contents().places(v.recipe()).stream()
                        .map(c -> new Stretch(
                                c.pack(), c.offset(), c.offset() + PackFormat.recordLength(c.storedBytes())))
                        .toList();
                KEPT.add(new Kept(content, chunks, commitOf.get(content)));
            }
        }
    }

    private static List<Version> versions(Reading r) throws IOException {
        List<Version> all = new ArrayList<>();
        for (Place place : r.places()) {
            for (long line : r.lines().ids(place)) {
                r.line(line).map(Line::versions).ifPresent(all::addAll);
            }
        }
        return all;
    }

    private static String text(Reading r, Version v) throws IOException {
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        r.contents().copy(v.recipe(), java.nio.channels.Channels.newChannel(out));
        return out.toString(StandardCharsets.UTF_8);
    }

    /** All contents that come back. */
    private Set<String> contents() throws IOException {
        Set<String> all = new HashSet<>();
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO);
                Reading r = vault.read()) {
            for (Version v : versions(r)) {
                try {
                    all.add(text(r, v));
                } catch (VaultException.Damaged e) {
                    continue;
                }
            }
        }
        return all;
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void onlyWhatNeedsADamagedByteIsLost(long seed) throws Exception {
        Random random = new Random(seed);
        copyTemplate();
        Catalogue catalogue = Catalogue.values()[random.nextInt(Catalogue.values().length)];
        put(catalogue);
        if (random.nextInt(3) == 0) {
            FirstVersion.of(VaultFolder.open(temp.resolve("vault")));
        }
        List<Stretch> damaged = damage(random);
        if (random.nextInt(6) == 0) {
            swapNames();
        }
        Set<String> mustComeBack = new HashSet<>();
        for (Kept k : KEPT) {
            boolean told = k.commit() <= known(catalogue) || !isHurt(List.of(COMMITS.get(k.commit())), damaged);
            if (told && !isHurt(k.chunks(), damaged)) {
                mustComeBack.add(k.content());
            }
        }
        String what = catalogue + ", " + damaged;
        if (catalogue == Catalogue.THERE) {
            assertThat(contents()).as("at once: " + what).containsAll(mustComeBack);
        }
        tryToCapture("before anything is made anew");
        rebuild();
        assertThat(contents()).as("made anew: " + what).containsAll(mustComeBack);
        rebuild();
        assertThat(contents()).as("made anew twice: " + what).containsAll(mustComeBack);
        assertThat(tryToCapture("afterwards")).as("captures go on: " + what).isTrue();
        assertThat(contents())
                .as("captured since: " + what)
                .containsAll(mustComeBack)
                .contains("afterwards");
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.NONE);
            if (damaged.isEmpty() || catalogue == Catalogue.THERE) {
                // Without a catalogue that knows of it, nobody can tell that the end of a pack was cut off.
                assertThat(report.isClean()).as("damage is said: " + what).isEqualTo(damaged.isEmpty());
            }
        }
        rebuild();
        assertThat(contents())
                .as("and made anew: " + what)
                .containsAll(mustComeBack)
                .contains("afterwards");
    }

    private static long known(Catalogue catalogue) {
        return switch (catalogue) {
            case THERE -> Long.MAX_VALUE;
            case OLDER -> olderCommit;
            default -> 0;
        };
    }

    private static boolean isHurt(List<Stretch> needed, List<Stretch> damaged) {
        return needed.stream().anyMatch(n -> damaged.stream().anyMatch(n::meets));
    }

    private void copyTemplate() throws IOException {
        try (Stream<Path> all = Files.walk(template)) {
            for (Path from : all.sorted().toList()) {
                Path to = temp.resolve(template.relativize(from).toString());
                if (Files.isDirectory(from)) {
                    Files.createDirectories(to);
                } else {
                    Files.copy(from, to, StandardCopyOption.REPLACE_EXISTING);
                }
            }
        }
    }

    private void put(Catalogue catalogue) throws Exception {
        Path vault = temp.resolve("vault");
        Path db = vault.resolve("catalogue.db");
        if (catalogue == Catalogue.THERE) {
            return;
        }
        for (String ending : List.of("", "-wal", "-shm")) {
            Files.deleteIfExists(vault.resolve("catalogue.db" + ending));
        }
        switch (catalogue) {
            case OLDER -> {
                Files.copy(temp.resolve("older.db"), db);
                Files.copy(temp.resolve("older.db-wal"), vault.resolve("catalogue.db-wal"));
            }
            case EMPTIED -> {
                try (OpenVault other = OpenVault.openOrCreate(temp.resolve("other"), "test", Duration.ZERO)) {
                    assertThat(other.folder().catalogue()).exists();
                }
                Files.copy(temp.resolve("other/catalogue.db"), db);
            }
            case GARBLED -> Files.writeString(db, "garbled");
            default -> assertThat(db).doesNotExist();
        }
    }

    /** Damages some stretches of some packs; what was cut off counts as damaged too. */
    private List<Stretch> damage(Random random) throws IOException {
        List<Stretch> damaged = new ArrayList<>();
        List<Long> packs = List.copyOf(LENGTHS.keySet());
        int times = random.nextInt(4);
        for (int i = 0; i < times; i++) {
            long pack = packs.get(random.nextInt(packs.size()));
            Path file = temp.resolve("vault/packs/%08d.pack".formatted(pack));
            byte[] bytes = Files.readAllBytes(file);
            int from = random.nextInt(bytes.length);
            if (random.nextInt(8) == 0) {
                Files.write(file, java.util.Arrays.copyOf(bytes, from));
                damaged.add(new Stretch(pack, from, LENGTHS.get(pack)));
                continue;
            }
            int length = 1 + random.nextInt(random.nextBoolean() ? 1 : 5000);
            int to = Math.min(bytes.length, from + length);
            for (int at = from; at < to; at++) {
                bytes[at] ^= (byte) (1 + random.nextInt(255));
            }
            Files.write(file, bytes);
            damaged.add(new Stretch(pack, from, to));
        }
        return damaged;
    }

    private void swapNames() throws IOException {
        Path one = temp.resolve("vault/packs/00000001.pack");
        Path two = temp.resolve("vault/packs/00000002.pack");
        Files.move(one, temp.resolve("between"));
        Files.move(two, one);
        Files.move(temp.resolve("between"), two);
    }

    private void rebuild() throws IOException {
        Rebuild.run(temp.resolve("vault"), "test", Duration.ZERO, Clock.systemUTC());
    }

    /** Captures something; whether that was possible. */
    private boolean tryToCapture(String content) throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.later(1_000_000);
            p.save("new " + content.length() + ".txt", content);
            p.capture();
            return true;
        } catch (VaultException e) {
            return false;
        }
    }
}
