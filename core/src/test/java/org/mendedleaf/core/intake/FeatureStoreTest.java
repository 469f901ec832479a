package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.Color;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.findings.HealthCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.vault.Digest;

/** What is kept of versions for the guard is what would be made of them anew. */
class FeatureStoreTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private Path file() {
        return p.vault().folder().root().resolve("features.db");
    }

    private Evidence evidence() {
        return new Evidence(p.vault(), p.place(), p.clock(), VersionBytes.VAULT_ONLY);
    }

    private Path incoming(String name, byte[] content) throws IOException {
        Path file = Files.createDirectories(temp.resolve("in")).resolve(name);
        Files.write(file, content);
        Files.setLastModifiedTime(file, FileTime.from(p.later(5)));
        return file;
    }

    private Optional<Features> kept(String path) throws IOException {
        Version v = p.line(path).newest().orElseThrow();
        try (FeatureStore store = FeatureStore.open(p.vault()).orElseThrow()) {
            return store.get(v.digest(), path);
        }
    }

    private static void assertSame(Features a, Features b) {
        assertThat(a.kind()).isEqualTo(b.kind());
        assertThat(a.mediaType()).isEqualTo(b.mediaType());
        assertThat(a.scan()).isEqualTo(b.scan());
        assertThat(a.words()).isEqualTo(b.words());
        assertThat(a.near().hashes()).isEqualTo(b.near().hashes());
        assertThat(a.near().level()).isEqualTo(b.near().level());
        assertThat(a.far().hashes()).isEqualTo(b.far().hashes());
        assertThat(a.look().isPresent()).isEqualTo(b.look().isPresent());
        a.look().ifPresent(l -> assertThat(l.fields()).isEqualTo(b.look().get().fields()));
    }

    @Test
    void featuresComeBackAsTheyWerePut() throws IOException {
        byte[] document = Documents.odt(3, 400);
        byte[] picture = Documents.picture(3, Color.BLUE);
        try (FeatureStore store = FeatureStore.open(p.vault()).orElseThrow()) {
            for (byte[] content : List.of(document, picture)) {
                Features features = Features.of("a.odt", content).kept();
                Digest digest = features.scan().digest();
                assertThat(store.get(digest, "a.odt")).isEmpty();
                store.put(digest, features);
            }
        }
        try (FeatureStore store = FeatureStore.open(p.vault()).orElseThrow()) {
            for (byte[] content : List.of(document, picture)) {
                Features features = Features.of("b.odt", content).kept();
                assertSame(store.get(features.scan().digest(), "b.odt").orElseThrow(), features);
            }
        }
        Features long_ = Features.of("a.odt", document);
        assertThat(long_.near().size()).isGreaterThan(2048);
        assertThat(long_.kept().near().size()).isLessThanOrEqualTo(2048).isGreaterThan(700);
        assertThat(long_.kept().near().containment(long_.near())).isEqualTo(1);
    }

    @Test
    void aJudgementIsTheSameWhetherFeaturesWereKeptOrNot() throws IOException {
        List<String> letter = Documents.paragraphs(1, 12);
        p.save("letter.odt", Documents.openDocument("text", letter));
        p.save("other.odt", Documents.odt(2, 12));
        p.save("note.txt", String.join("\n", letter).getBytes(StandardCharsets.UTF_8));
        p.capture();
        List<String> edited = new ArrayList<>(letter);
        edited.set(2, "another paragraph altogether, with some more words");
        Path in = incoming("letter.odt", Documents.openDocument("text", edited));
        Path text = incoming("note.txt", String.join("\n", edited).getBytes(StandardCharsets.UTF_8));
        Judgement first = evidence().judge(in, "letter.odt");
        Judgement firstText = evidence().judge(text, "note.txt");
        assertThat(kept("letter.odt")).isPresent();
        assertThat(kept("other.odt")).as("its neighbour").isPresent();
        assertThat(evidence().judge(in, "letter.odt")).isEqualTo(first);
        assertThat(evidence().judge(text, "note.txt")).isEqualTo(firstText);
        assertThat(first.shared()).isBetween(50, 98);
    }

    @Test
    void whatIsKeptIsUsedInsteadOfTheContent() throws IOException {
        p.save("letter.odt", Documents.odt(1, 12));
        p.capture();
        Path in = incoming("letter.odt", Documents.odt(2, 12));
        assertThat(evidence().judge(in, "letter.odt").outcome()).isEqualTo(Judgement.Outcome.UNLIKELY);
        Version v = p.line("letter.odt").newest().orElseThrow();
        try (FeatureStore store = FeatureStore.open(p.vault()).orElseThrow()) {
            store.put(v.digest(), evidence().features(in).kept());
        }
        assertThat(evidence().judge(in, "letter.odt").shared()).isGreaterThanOrEqualTo(99);
    }

    @Test
    void whoLooksIntoNewVersionsKeepsTheFeaturesOfTheLastOnes() throws IOException {
        p.save("letter.odt", Documents.odt(1, 12));
        p.capture();
        p.save("letter.odt", Documents.odt(1, 13));
        p.later(5);
        p.capture();
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        Features kept = kept("letter.odt").orElseThrow();
        assertSame(kept, Features.of("letter.odt", Documents.odt(1, 13)).kept());
        Version first = p.line("letter.odt").version(1).orElseThrow();
        try (FeatureStore store = FeatureStore.open(p.vault()).orElseThrow()) {
            assertThat(store.has(first.digest())).isFalse();
        }
    }

    @Test
    void whatWasErasedIsKeptNoLonger() throws IOException {
        p.save("letter.odt", Documents.odt(1, 12));
        p.save("other.odt", Documents.odt(2, 12));
        p.capture();
        evidence().judge(incoming("letter.odt", Documents.odt(3, 12)), "letter.odt");
        Version v = p.line("letter.odt").newest().orElseThrow();
        Files.delete(p.path("letter.odt"));
        p.later(5);
        p.capture();
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                .erase(p.line("letter.odt").id(), Erasing.What.ALL, 0, Progress.NONE);
        new Reclaim(p.vault(), p.clock()).endGrace("Ines", Progress.NONE);
        try (FeatureStore store = FeatureStore.open(p.vault()).orElseThrow()) {
            assertThat(store.has(v.digest())).isFalse();
            assertThat(store.has(p.line("other.odt").newest().orElseThrow().digest()))
                    .isTrue();
        }
        assertThat(new String(Files.readAllBytes(file()), StandardCharsets.ISO_8859_1))
                .as("nor in the file itself")
                .doesNotContain(new String(v.digest().bytes(), StandardCharsets.ISO_8859_1));
    }

    @Test
    void whatWasNotAskedForLongestGoesWhenThereAreTooMany() throws IOException {
        try (FeatureStore store = FeatureStore.open(p.vault().folder(), 200_000)) {
            for (int i = 0; i < 100; i++) {
                Features f = Features.of("a.odt", Documents.odt(i, 60)).kept();
                store.put(f.scan().digest(), f);
            }
            assertThat(store.isFull()).isTrue();
            store.trim();
            assertThat(store.isFull()).isFalse();
            long left = 0;
            for (int i = 0; i < 100; i++) {
                Features f = Features.of("a.odt", Documents.odt(i, 60));
                left += store.has(f.scan().digest()) ? 1 : 0;
            }
            assertThat(left).isBetween(5L, 95L);
        }
    }

    @Test
    void aStoreThatCannotBeReadIsBegunAnew() throws IOException {
        p.save("letter.odt", Documents.odt(1, 12));
        p.capture();
        Path in = incoming("letter.odt", Documents.odt(1, 13));
        Judgement before = evidence().judge(in, "letter.odt");
        Files.write(file(), new byte[5000]);
        assertThat(evidence().judge(in, "letter.odt")).isEqualTo(before);
        assertThat(kept("letter.odt")).isPresent();
    }

    /** Stops once so many files were compared. */
    private record StopAfter(int files, java.util.concurrent.atomic.AtomicInteger done) implements Progress {
        @Override
        public void advance(long more, long bytes) {
            done.addAndGet((int) more);
        }

        @Override
        public boolean isCancelled() {
            return done.get() >= files;
        }
    }

    @Test
    void aPlanOfManyFilesIsInOrderAndCanBeCancelled() throws IOException {
        List<Path> dropped = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            p.save("paper%02d.odt".formatted(i), Documents.odt(i, 12));
        }
        p.capture();
        for (int i = 0; i < 12; i++) {
            dropped.add(incoming("paper%02d.odt".formatted(i), Documents.odt(i, 13)));
        }
        IntakePlan plan =
                new Intake(p.vault(), p.place(), evidence()).plan(dropped, "", NameTaken.VERSION, Progress.NONE);
        assertThat(plan.rows()).hasSize(12);
        for (int i = 0; i < 12; i++) {
            assertThat(plan.rows().get(i).target()).isEqualTo("paper%02d.odt".formatted(i));
            assertThat(plan.rows().get(i).judgement().orElseThrow().outcome()).isEqualTo(Judgement.Outcome.SURE);
        }
        assertThatThrownBy(() -> new Intake(p.vault(), p.place(), evidence())
                        .plan(
                                dropped,
                                "",
                                NameTaken.VERSION,
                                new StopAfter(15, new java.util.concurrent.atomic.AtomicInteger())))
                .isInstanceOf(InterruptedIOException.class);
    }

    @Test
    void aFileThatCannotBeReadAnyMoreIsSaid() throws IOException {
        p.save("a.odt", Documents.odt(1, 12));
        p.capture();
        Path in = incoming("a.odt", Documents.odt(1, 13));
        Progress removes = new Progress() {
            @Override
            public void begin(String step, long files, long bytes) {
                try {
                    if (step.equals(org.mendedleaf.core.words.Words.of("intake.comparing"))) {
                        Files.delete(in);
                    }
                } catch (IOException e) {
                    throw new java.io.UncheckedIOException(e);
                }
            }
        };
        assertThatThrownBy(() ->
                        new Intake(p.vault(), p.place(), evidence()).plan(List.of(in), "", NameTaken.VERSION, removes))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("a.odt");
    }
}
