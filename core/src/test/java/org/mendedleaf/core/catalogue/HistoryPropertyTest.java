package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Version;

class HistoryPropertyTest {

    /** What a naive keeper would have written down at each look: the whole tree with its contents. */
    private final Map<Instant, Map<String, String>> naive = new LinkedHashMap<>();

    @Property(tries = 5)
    void theListingOfEachLookIsWhatWasThereAndEveryContentComesBack(@ForAll long seed) throws IOException {
        Path temp = Files.createTempDirectory("history");
        Random random = new Random(seed);
        naive.clear();
        try (TestPlace p = new TestPlace(temp)) {
            for (int look = 0; look < 8; look++) {
                for (int i = 0; i < 1 + random.nextInt(5); i++) {
                    change(p, random);
                }
                p.capture();
                naive.put(p.now(), onDisk(p.folder()));
            }
            replay(p);
            assertThat(p.check().isClean()).isTrue();
            // The packs alone hold all of it.
            p.vault().close();
            Rebuild.run(temp.resolve("vault"), "test", Duration.ZERO, Clock.fixed(Instant.EPOCH, ZoneOffset.UTC));
        }
        try (TestPlace again = new TestPlace(temp)) {
            replay(again);
            assertThat(again.check().isClean()).isTrue();
        } finally {
            try (Stream<Path> all = Files.walk(temp)) {
                for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(path);
                }
            }
        }
    }

    private static void change(TestPlace p, Random random) throws IOException {
        String path = (random.nextBoolean() ? "" : "d" + random.nextInt(3) + "/") + "f" + random.nextInt(6);
        Path file = p.path(path);
        switch (random.nextInt(5)) {
            case 0 -> Files.deleteIfExists(file);
            case 1 -> {
                Path to = p.path("d" + random.nextInt(3) + "/f" + random.nextInt(6));
                if (Files.exists(file) && !Files.exists(to)) {
                    Files.createDirectories(to.getParent());
                    Files.move(file, to);
                }
            }
            case 2 -> {
                Path from = p.path("d" + random.nextInt(3));
                Path to = p.path("d" + random.nextInt(3));
                if (Files.exists(from) && !Files.exists(to)) {
                    Files.move(from, to);
                }
            }
            default -> p.save(path, "content " + random.nextInt(8));
        }
    }

    private static Map<String, String> onDisk(Path folder) throws IOException {
        Map<String, String> found = new TreeMap<>();
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path path : all.toList()) {
                if (Files.isRegularFile(path)) {
                    found.put(folder.relativize(path).toString(), Files.readString(path));
                }
            }
        }
        return found;
    }

    private void replay(TestPlace p) throws IOException {
        for (Map.Entry<Instant, Map<String, String>> look : naive.entrySet()) {
            Map<String, String> found = new TreeMap<>();
            try (Reading reading = p.vault().read()) {
                for (Map.Entry<String, Entry> e :
                        reading.folders().tree(p.place(), "", look.getKey()).entrySet()) {
                    if (e.getValue().kind() == EntryKind.FILE) {
                        Version v = reading.line(e.getValue().line())
                                .orElseThrow()
                                .version(e.getValue().number())
                                .orElseThrow();
                        byte[] content = reading.contents().head(v.recipe(), 1000);
                        found.put(e.getKey(), new String(content, StandardCharsets.UTF_8));
                    }
                }
            }
            assertThat(found).as("the listing at %s", look.getKey()).isEqualTo(look.getValue());
        }
    }
}
