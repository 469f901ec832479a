package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import gov.loc.repository.bagit.domain.Bag;
import gov.loc.repository.bagit.reader.BagReader;
import gov.loc.repository.bagit.verify.BagVerifier;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.TreeAt;

class ArchiveTest {

    @TempDir
    Path temp;

    private static RestoreRequest everything(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            TreeAt tree = reading.folders().treeAt(p.place(), "", p.now());
            List<RestoreItem> requested = new ArrayList<>();
            tree.files().forEach((path, v) -> requested.add(new RestoreItem(v, path)));
            return RestoreRequest.restore(requested, Collisions.all(Collision.KEEP_BOTH), tree.folders());
        }
    }

    private static TestPlace filled(Path temp) throws IOException {
        TestPlace p = new TestPlace(temp);
        p.save("ledger.csv", "kind,kilos\nKaty,412\n");
        p.save("Käse & Most/100 Stück.txt", "odd names");
        p.save("empty.txt", "");
        p.save("large.bin", new byte[20_000_000]);
        Files.setPosixFilePermissions(p.path("ledger.csv"), PosixFilePermissions.fromString("rwxr-x---"));
        Files.createDirectory(p.path("nothing in it"));
        p.capture();
        return p;
    }

    @Test
    void aZipHoldsTheFilesWithTheirTimesAndOthersCanReadIt() throws Exception {
        try (TestPlace p = filled(temp)) {
            Path file = temp.resolve("out/all.zip");
            ZipArchive archive = new ZipArchive(p.vault(), file);
            RestoreResult result = archive.restore(everything(p), Progress.NONE);
            assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(4);
            try (ZipFile zip = new ZipFile(file.toFile())) {
                List<String> names = new ArrayList<>();
                for (Enumeration<? extends ZipEntry> e = zip.entries(); e.hasMoreElements(); ) {
                    names.add(e.nextElement().getName());
                }
                assertThat(names)
                        .containsExactlyInAnyOrder(
                                "Käse & Most/",
                                "nothing in it/",
                                "Käse & Most/100 Stück.txt",
                                "empty.txt",
                                "large.bin",
                                "ledger.csv");
                ZipEntry ledger = zip.getEntry("ledger.csv");
                assertThat(zip.getInputStream(ledger).readAllBytes()).asString().contains("Katy,412");
                assertThat(ledger.getLastModifiedTime().toInstant())
                        .isEqualTo(
                                Files.getLastModifiedTime(p.path("ledger.csv")).toInstant());
            }
            try (var zip = org.apache.commons.compress.archivers.zip.ZipFile.builder()
                    .setPath(file)
                    .get()) {
                assertThat(zip.getEntry("ledger.csv").getUnixMode() & 0777).isEqualTo(0750);
            }
            assertThatThrownBy(() -> archive.restore(everything(p), Progress.NONE))
                    .hasMessageContaining("already")
                    .hasMessageContaining("nothing was written");
            assertThat(archive.plan(everything(p)).preflight().isGood()).isFalse();
        }
    }

    @Test
    void aLinkIsALinkInAZipAndRefusedByABag() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            Files.createSymbolicLink(p.path("link"), Path.of("a"));
            p.capture();
            Path file = temp.resolve("all.zip");
            new ZipArchive(p.vault(), file).restore(everything(p), Progress.NONE);
            try (var zip = org.apache.commons.compress.archivers.zip.ZipFile.builder()
                    .setPath(file)
                    .get()) {
                assertThat(zip.getEntry("link").isUnixSymlink()).isTrue();
                assertThat(zip.getUnixSymlink(zip.getEntry("link"))).isEqualTo("a");
            }
            BagArchive bag = new BagArchive(p.vault(), temp.resolve("bag"), p.clock());
            RestorePlan plan = bag.plan(everything(p));
            assertThat(plan.count(RestorePlan.Step.REFUSE)).isEqualTo(1);
            RestoreResult result = bag.restore(everything(p), Progress.NONE);
            assertThat(result.count(RestoreResult.Outcome.FAILED)).isEqualTo(1);
            assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(1);
        }
    }

    @Test
    void aBagIsValidToAnIndependentValidator() throws Exception {
        try (TestPlace p = filled(temp)) {
            Path folder = temp.resolve("bag");
            BagArchive archive = new BagArchive(p.vault(), folder, p.clock());
            RestoreResult result = archive.restore(everything(p), Progress.NONE);
            assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(4);
            Bag bag = new BagReader().read(folder);
            try (BagVerifier verifier = new BagVerifier()) {
                verifier.isValid(bag, false);
                verifier.isComplete(bag, false);
            }
            assertThat(bag.getVersion().toString()).isEqualTo("1.0");
            assertThat(folder.resolve("manifest-sha256.txt")).content().contains("  data/Käse & Most/100 Stück.txt");
            assertThat(folder.resolve("bag-info.txt")).content().contains("Payload-Oxum: 20000029.4");
            Files.writeString(folder.resolve("data/ledger.csv"), "somebody changed it");
            try (BagVerifier verifier = new BagVerifier()) {
                assertThatThrownBy(() -> verifier.isValid(new BagReader().read(folder), false))
                        .isInstanceOf(Exception.class);
            }
            assertThatThrownBy(() -> archive.restore(everything(p), Progress.NONE))
                    .hasMessageContaining("already");
        }
    }

    @Test
    void whatWouldBreakALineOfAManifestIsPercentEncoded() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("100 %\nof it", "odd");
            p.capture();
            new BagArchive(p.vault(), temp.resolve("bag"), p.clock()).restore(everything(p), Progress.NONE);
            assertThat(temp.resolve("bag/manifest-sha256.txt")).content().endsWith("  data/100 %25%0Aof it\n");
        }
    }

    @Test
    void whatIsCancelledLeavesNothingBehind() throws Exception {
        try (TestPlace p = filled(temp)) {
            Path out = Files.createDirectory(temp.resolve("out"));
            Job job = new Job("cancelled", () -> {});
            job.cancel();
            assertThat(new ZipArchive(p.vault(), out.resolve("all.zip"))
                            .restore(everything(p), job)
                            .cancelled())
                    .isTrue();
            assertThat(new BagArchive(p.vault(), out.resolve("bag"), p.clock())
                            .restore(everything(p), job)
                            .cancelled())
                    .isTrue();
            try (Stream<Path> left = Files.list(out)) {
                assertThat(left).isEmpty();
            }
        }
    }

    @Test
    void aDamagedContentIsNamedAndTheOthersAreInTheArchive() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("good", "good".repeat(1000));
            p.save("bad", java.util.HexFormat.of().formatHex(noise()).getBytes());
            p.capture();
            damage(p, "bad");
            Path file = temp.resolve("all.zip");
            RestoreResult result = new ZipArchive(p.vault(), file).restore(everything(p), Progress.NONE);
            assertThat(result.items())
                    .extracting(i -> i.plan().target() + " " + i.outcome())
                    .containsExactly("bad FAILED", "good DONE");
            try (ZipFile zip = new ZipFile(file.toFile())) {
                assertThat(zip.size()).isEqualTo(1);
            }
        }
    }

    private static byte[] noise() {
        byte[] noise = new byte[5000];
        new java.util.Random(3).nextBytes(noise);
        return noise;
    }

    private static void damage(TestPlace p, String path) throws IOException {
        try (Reading reading = p.vault().read()) {
            var place = reading.contents()
                    .places(p.line(path).newest().orElseThrow().recipe())
                    .get(0);
            Path pack = p.vault().folder().pack(place.pack());
            byte[] bytes = Files.readAllBytes(pack);
            bytes[(int) place.offset() + place.storedBytes() / 2] ^= 1;
            Files.write(pack, bytes);
        }
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aNameWithABackslashCostsItselfAndIsNamed(boolean zip) throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("good.txt", "good");
            p.save("back\\slash.txt", "odd");
            p.capture();
            Path out = temp.resolve("out");
            Destination archive = zip ? new ZipArchive(p.vault(), out) : new BagArchive(p.vault(), out, p.clock());
            RestoreResult result = archive.restore(everything(p), Progress.NONE);
            assertThat(result.items())
                    .filteredOn(i -> i.outcome() == RestoreResult.Outcome.FAILED)
                    .singleElement()
                    .satisfies(i -> assertThat(i.why()).contains("\"back\\slash.txt\""));
            assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(1);
            if (zip) {
                try (ZipFile read = new ZipFile(out.toFile())) {
                    assertThat(read.stream()).extracting(ZipEntry::getName).containsExactly("good.txt");
                }
            } else {
                try (BagVerifier verifier = new BagVerifier()) {
                    verifier.isValid(new BagReader().read(out), false);
                }
            }
        }
    }
}
