package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Line;

class PackReaderTest {

    @TempDir
    Path temp;

    private List<ChunkPlace> places(TestPlace p, int packs) throws IOException {
        for (int i = 0; i < packs; i++) {
            p.save("a.txt", "content of round " + i);
            p.capture();
            try (WriteSession session = p.vault().write()) {
                session.chunks().sealNext();
                session.commit();
            }
        }
        List<ChunkPlace> places = new ArrayList<>();
        Line line = p.line("a.txt");
        try (Reading r = p.vault().read()) {
            for (int i = 1; i <= packs; i++) {
                places.addAll(r.contents().places(line.version(i).orElseThrow().recipe()));
            }
        }
        return places;
    }

    @Test
    void aThreadThatIsInterruptedEndsAndSaysSo() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            ChunkPlace place = places(p, 1).get(0);
            try (PackReader reader = new PackReader(p.vault().folder())) {
                assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
                    Thread.currentThread().interrupt();
                    assertThatThrownBy(() -> reader.read(place)).isInstanceOf(InterruptedIOException.class);
                    assertThat(Thread.interrupted()).as("still set").isTrue();
                    assertThat(reader.read(place)).isNotEmpty();
                });
            }
        }
    }

    @Test
    void manyThreadsReadMorePacksThanAreKeptOpen() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            List<ChunkPlace> places = places(p, 60);
            ExecutorService threads = Executors.newFixedThreadPool(4);
            try (PackReader reader = new PackReader(p.vault().folder())) {
                Callable<Integer> all = () -> {
                    int n = 0;
                    for (int round = 0; round < 5; round++) {
                        for (ChunkPlace place : places) {
                            n += reader.read(place).length > 0 ? 1 : 0;
                        }
                    }
                    return n;
                };
                for (Future<Integer> done : threads.invokeAll(List.of(all, all, all, all))) {
                    assertThat(done.get()).isEqualTo(5 * places.size());
                }
            } finally {
                threads.shutdown();
            }
        }
    }
}
